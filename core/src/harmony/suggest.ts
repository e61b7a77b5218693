import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { barTicks, beatTicks, isCompound, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import { misfitOf, offScaleOf, weigh, weighSlots, type Slot, type TuneNote } from './fit.js';
import { keyFromSignature, signatureOf, type Key } from './key.js';
import { PROGRESSION_COSTS, asKeyChord, endingCost, isHome, progressionCost } from './progression.js';
import { keyChords, type HarmonicRhythm, type KeyChord, type Vocabulary } from './vocabulary.js';

/** What chords are to be suggested for, and how. */
export interface SuggestionTask {
  readonly tune: readonly TuneNote[];
  readonly bars: readonly Bar[];
  readonly key: Key;
  readonly vocabulary: Vocabulary;
  readonly rhythm: HarmonicRhythm;
  /** The stretch to find chords for; fixed chords around it are heard with it. */
  readonly from: Ticks;
  readonly to: Ticks;
  /** Where parts end, in order: a chord there should sound like an ending. */
  readonly ends: readonly Ticks[];
  /** Chords that stand already; null where no chord may begin. */
  readonly fixed: ReadonlyMap<Ticks, string | null>;
}

/** A chord that the search chose. */
export interface SuggestedChord {
  readonly at: Ticks;
  readonly symbol: string;
  /** The key it is heard in there. */
  readonly key: Key;
}

/** A chord in the key it is heard in: one state of the search. A place without a chord has a null chord. */
interface State {
  readonly key: number;
  readonly symbol: string;
  readonly chord: KeyChord | null;
}

interface Place extends Slot {
  readonly change: number;
  /** True for the last place of a part. */
  readonly ends: boolean;
  /** True for the places of a part's close: its last one and those of the bar before it. */
  readonly closes: boolean;
  /** Bars that it lasts. */
  readonly bars: number;
  readonly fixed: string | null | undefined;
}

/** The search as it is posed, for the tests to pose it again in their own way. */
export interface SuggestionProblem {
  readonly places: readonly Place[];
  readonly states: readonly (readonly State[])[];
  readonly keys: readonly Key[];
  readonly own: (place: number, state: State) => number;
  readonly step: (place: number, from: State, to: State) => number;
}

/**
 * Suggests chords for a tune: the exact minimum, over every row of chords of the vocabulary in the key and its near
 * keys, of what the tune's notes cost outside their chords, what the changes cost, and how parts and song end. The
 * time it takes grows linearly with the song.
 */
export function suggestChords(task: SuggestionTask): SuggestedChord[] {
  const problem = poseSuggestion(task);
  const found = cheapestRow(problem);
  const chords: SuggestedChord[] = [];
  found.forEach((state, i) => {
    const { from } = problem.places[i];
    if (from < task.from || from >= task.to) return;
    if (i > 0 && found[i - 1].symbol === state.symbol && !task.fixed.has(from)) return;
    if (task.fixed.get(from) === null) return;
    chords.push({ at: problem.places[i].from, symbol: state.symbol, key: problem.keys[state.key] });
  });
  return chords;
}

/**
 * The key that each chord of a row is heard in, the song's own or a near one: the same search with every chord a
 * fixed point.
 */
export function hearKeys(
  task: Pick<SuggestionTask, 'tune' | 'bars' | 'key'>,
  chords: readonly { readonly at: Ticks; readonly symbol: string }[],
): Key[] {
  if (chords.length === 0) return [];
  const fixed = new Map(chords.map((c) => [c.at, c.symbol]));
  const problem = poseSuggestion({ ...task, vocabulary: 'three', rhythm: 'bar', from: 0, to: 0, ends: [], fixed });
  return cheapestRow(problem).map((state) => problem.keys[state.key]);
}

/** Keys whose signatures differ by at most one sign, the song's own first. */
function nearKeys(key: Key): Key[] {
  const signature = signatureOf(key);
  const near = [0, 1, -1].flatMap((by) => {
    const fifths = signature + by;
    return Math.abs(fifths) > 7 ? [] : [keyFromSignature(fifths, 'major'), keyFromSignature(fifths, 'minor')];
  });
  return [key, ...near.filter((k) => k.tonic !== key.tonic || k.mode !== key.mode)];
}

/** The places, the states of each, and the costs. */
export function poseSuggestion(task: SuggestionTask): SuggestionProblem {
  const C = PROGRESSION_COSTS;
  const keys = nearKeys(task.key);
  const places = layPlaces(task);
  const free = keys.flatMap((key, k) =>
    keyChords(key, task.vocabulary).map((chord): State => ({ key: k, symbol: chord.symbol, chord })),
  );
  const states = places.map((place) =>
    place.fixed === undefined || place.fixed === null
      ? free
      : keys.map((key, k): State => ({ key: k, symbol: place.fixed as string, chord: asKeyChord(place.fixed as string, key) })),
  );
  const offScale = keys.map(offScaleOf);
  const whole = places.length > 0 && barAt(task.bars, places[0].from).number <= 1;
  const toEnd = task.to >= task.bars[task.bars.length - 1].end;
  const own = (i: number, { key, chord }: State): number => {
    if (chord === null) return 0;
    const { weights, ends, fixed } = places[i];
    let cost = weigh(weights, misfitOf(chord.chord)) + weigh(weights, offScale[key]);
    if (typeof fixed !== 'string') cost += chord.price;
    const home = isHome(chord);
    if (i === 0 && whole && (!home || key !== 0)) cost += C.firstElsewhere;
    if (i === places.length - 1 && toEnd && (!home || key !== 0)) cost += C.lastElsewhere;
    if (key !== 0) cost += C.barAway * places[i].bars;
    if (ends) cost += endingCost(chord);
    return cost;
  };
  const step = (i: number, from: State, to: State): number => {
    const { change, fixed, closes } = places[i];
    const changes = from.symbol !== to.symbol;
    if (fixed === null && changes) return Infinity;
    const cadence = closes && from.chord?.role === 'dominant' && to.chord !== null && isHome(to.chord);
    return (changes ? change : 0) + (cadence ? C.cadence : 0) + moveCost(from, to);
  };
  return { places, states, keys, own, step };
}

function moveCost(from: State, to: State): number {
  const C = PROGRESSION_COSTS;
  const turn = from.key === to.key ? 0 : to.key === 0 ? C.comesBack : C.leavesKey;
  if (from.chord === null || to.chord === null) return turn;
  return turn + progressionCost(from.chord, to.chord);
}

/** The exact search: one table of moves between all states, one row of best costs a place. */
function cheapestRow({ places, states, own, step }: SuggestionProblem): State[] {
  if (places.length === 0) return [];
  const moves = new Map<string, Float64Array>();
  const back: Int32Array[] = [];
  let costs = Float64Array.from(states[0], (s) => own(0, s));
  for (let i = 1; i < places.length; i++) {
    const [before, now] = [states[i - 1], states[i]];
    const { change, fixed, closes } = places[i];
    // Places of the same kind share their table of moves.
    const kind = `${change} ${closes} ${fixed === null} ${places[i - 1].fixed ?? ''} ${fixed ?? ''}`;
    let table = moves.get(kind);
    if (!table) {
      table = new Float64Array(before.length * now.length);
      for (let t = 0, n = 0; t < now.length; t++) for (const from of before) table[n++] = step(i, from, now[t]);
      moves.set(kind, table);
    }
    const next = new Float64Array(now.length);
    const chosen = new Int32Array(now.length);
    for (let t = 0, n = 0; t < now.length; t++) {
      let best = Infinity;
      for (let f = 0; f < before.length; f++) {
        const cost = costs[f] + table[n++];
        if (cost < best - 1e-9) {
          best = cost;
          chosen[t] = f;
        }
      }
      next[t] = best + own(i, now[t]);
    }
    back.push(chosen);
    costs = next;
  }
  let at = 0;
  for (let s = 1; s < costs.length; s++) if (costs[s] < costs[at] - 1e-9) at = s;
  const row = [states[places.length - 1][at]];
  for (let i = places.length - 1; i > 0; i--) row.unshift(states[i - 1][(at = back[i - 1][at])]);
  return row;
}

/** Where chords may change: whole bars, half bars or beats, and wherever a chord stands already. */
function layPlaces(task: SuggestionTask): Place[] {
  const { bars, from, to, fixed, rhythm } = task;
  const starts = new Set<Ticks>();
  for (const bar of bars) {
    if (bar.number === 0 || bar.end <= from || bar.start >= to) continue;
    const felt = barTicks(bar.meter) / beatTicks(bar.meter);
    const each =
      rhythm === 'beat'
        ? beatTicks(bar.meter)
        : rhythm !== 'bar' && felt % 2 === 0
          ? (felt / 2) * beatTicks(bar.meter)
          : barTicks(bar.meter);
    for (let at = bar.start; at < bar.end; at += each) if (at >= from && at < to) starts.add(at);
  }
  for (const at of fixed.keys()) starts.add(at);
  const ordered = [...starts].sort((a, b) => a - b);
  const stretches = ordered.map((at, i) => ({ from: at, to: ordered[i + 1] ?? Math.max(to, barAt(bars, at).end) }));
  const slots = weighSlots(task.tune, bars, stretches);
  const last = lastPlaces(task, ordered);
  const barAround = (i: number) => barTicks(barAt(bars, slots[i].from).meter);
  const closing = new Set<number>();
  for (const i of last) for (let k = i; k >= 0 && slots[k].from > slots[i].from - barAround(i); k--) closing.add(k);
  return slots.map((slot, i) => ({
    ...slot,
    change: changeCost(slot.from, task),
    ends: last.has(i),
    closes: closing.has(i),
    bars: (slot.to - slot.from) / barAround(i),
    fixed: fixed.get(slot.from),
  }));
}

/** The place of the last note of each part. */
function lastPlaces({ tune, ends }: SuggestionTask, starts: readonly Ticks[]): Set<number> {
  const last = new Set<number>();
  let n = 0;
  let s = 0;
  for (const end of ends) {
    while (n < tune.length && tune[n].at < end) n++;
    if (n === 0) continue;
    const at = tune[n - 1].at;
    while (s + 1 < starts.length && starts[s + 1] <= at) s++;
    if (starts[s] <= at) last.add(s);
  }
  return last;
}

function changeCost(at: Ticks, { bars, rhythm }: SuggestionTask): number {
  const C = PROGRESSION_COSTS;
  const bar = barAt(bars, at);
  const strength = metricStrength(offsetInBar(bar, at), bar.meter);
  if (strength === 4) return C.changeBar;
  const felt = barTicks(bar.meter) / beatTicks(bar.meter);
  const middle = strength === 3 || (isCompound(bar.meter) && felt % 2 === 0 && strength > 2);
  if (middle) return rhythm === 'half' || rhythm === 'beat' ? C.changeAsked : C.changeHalf;
  return rhythm === 'beat' ? 2 * C.changeAsked : C.changeBeat;
}
