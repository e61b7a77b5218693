import { midiOf } from '../pitch/pitch.js';
import { barAt, cutAt, type Bar } from '../time/bars.js';
import { barTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import { misfitOf, offScaleOf, weigh, weighSlots, type Slot, type TuneNote } from './fit.js';
import { keyFromSignature, signatureOf, type Key } from './key.js';
import { barCost, changeCost, pacesOf, PACE_TERMS, placesIn, tuneThere, type Pace } from './pace.js';
import { PROGRESSION_COSTS, asKeyChord, endingCost, isHome, progressionCost } from './progression.js';
import { movedInScale, sequencesIn } from './sequences.js';
import { keyChords, type KeyChord } from './vocabulary.js';
import type { HarmonicRhythm, Vocabulary } from './wishes.js';

/** What chords are to be suggested for, and how. */
export interface SuggestionTask {
  readonly tune: readonly TuneNote[];
  readonly bars: readonly Bar[];
  readonly key: Key;
  /** Quarter notes a minute. */
  readonly tempo: number;
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

/** A chord in the key it is heard in, at the pace of its part: one state of the search. A place without a chord has a null chord. */
interface State {
  readonly key: number;
  readonly symbol: string;
  readonly chord: KeyChord | null;
  readonly pace: Pace;
}

interface Place extends Slot {
  /** What a change of chord costs here, at each pace. */
  readonly change: Readonly<Partial<Record<Pace, number>>>;
  /** What it costs to be at each pace for as long as it lasts. */
  readonly pace: Readonly<Partial<Record<Pace, number>>>;
  /** True for the first place of a part, where the pace may turn. */
  readonly opens: boolean;
  /** The pitch class of a part's last note in its last place; null in all others. */
  readonly ends: number | null;
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
  readonly paces: readonly Pace[];
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
  const once = cheapestRow(problem);
  const wishes = wishesOf(task, problem.places, once);
  const found = wishes.size === 0 ? once : cheapestRow({ ...problem, own: asWished(problem, wishes) });
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
  task: Pick<SuggestionTask, 'tune' | 'bars' | 'key' | 'tempo'>,
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

/**
 * The chords that a part should have because an earlier one has the same tune: the earlier part's, place by place, but for the last bar,
 * where endings differ.
 */
function chordsBefore(
  { tune, bars, ends, from, to }: SuggestionTask,
  places: readonly Place[],
  row: readonly State[],
): Map<number, string> {
  const before = new Map<number, string>();
  const known = new Map<string, Ticks>();
  const placeAt = new Map(places.map((p, i) => [p.from, i]));
  const tunes = cutAt(tune, ends);
  let start: Ticks = 0;
  ends.forEach((end, part) => {
    const notes = tunes[part];
    const print = `${end - start} ${notes.map((n) => `${n.at - start} ${n.pitch} ${n.length}`).join()}`;
    const earlier = known.get(print);
    if (earlier === undefined || notes.length === 0) known.set(print, start);
    else {
      const close = end - barTicks(barAt(bars, end - 1).meter);
      places.forEach((place, i) => {
        if (place.from < Math.max(start, from) || place.from >= Math.min(close, to)) return;
        const there = placeAt.get(earlier + place.from - start);
        if (there !== undefined) before.set(i, row[there].symbol);
      });
    }
    start = end;
  });
  return before;
}

/** The roots that chords should have because the tune moves by steps of the scale and the chords with it, in the bars that it moves to. */
function rootsMoved(
  { tune, bars, key, from, to }: SuggestionTask,
  places: readonly Place[],
  row: readonly State[],
): Map<number, string> {
  const moved = new Map<number, string>();
  const placeAt = new Map(places.map((p, i) => [p.from, i]));
  const stretches = sequencesIn(tune, bars, key);
  places.forEach((place, i) => {
    if (place.from < from || place.from >= to) return;
    const stretch = stretches.find((s) => place.from >= s.again && place.from < s.again + s.length);
    const there = stretch && placeAt.get(place.from - stretch.again + stretch.first);
    const root = there === undefined ? undefined : row[there].chord?.chord.root;
    const name = root && stretch ? movedInScale(root, stretch.steps, key) : null;
    if (name !== null) moved.set(i, name);
  });
  return moved;
}

/** A chord that a place should have: one by its symbol, or any on a root. */
type Wish = { readonly symbol: string } | { readonly root: string };

/** What the chords of a first search ask of a second: the same where the tune is the same, moved where it has moved. */
function wishesOf(task: SuggestionTask, places: readonly Place[], row: readonly State[]): Map<number, Wish> {
  const wishes = new Map<number, Wish>();
  for (const [i, root] of rootsMoved(task, places, row)) wishes.set(i, { root });
  for (const [i, symbol] of chordsBefore(task, places, row)) wishes.set(i, { symbol });
  return wishes;
}

/** What states cost by themselves where some places should have a certain chord. */
const asWished =
  ({ own }: SuggestionProblem, wishes: ReadonlyMap<number, Wish>): SuggestionProblem['own'] =>
  (i, state) =>
    own(i, state) + unlike(wishes.get(i), state);

function unlike(wish: Wish | undefined, { symbol, chord }: State): number {
  if (!wish || chord === null) return 0;
  if ('symbol' in wish) return wish.symbol === symbol ? 0 : PROGRESSION_COSTS.unlikeBefore;
  return wish.root === chord.chord.root ? 0 : PROGRESSION_COSTS.unlikeMoved;
}

/** The places, the states of each, and the costs. */
export function poseSuggestion(task: SuggestionTask): SuggestionProblem {
  const C = PROGRESSION_COSTS;
  const keys = nearKeys(task.key);
  const places = layPlaces(task);
  const paces = pacesOf(task.rhythm);
  const free = keys.flatMap((key, k) =>
    keyChords(key, task.vocabulary).map((chord) => ({ key: k, symbol: chord.symbol, chord })),
  );
  // States of one pace stand together, in the order of the paces.
  const atAll = (states: readonly Omit<State, 'pace'>[]) => paces.flatMap((pace) => states.map((s): State => ({ ...s, pace })));
  const freely = atAll(free);
  const states = places.map(({ fixed }) =>
    typeof fixed === 'string' ? atAll(keys.map((key, k) => ({ key: k, symbol: fixed, chord: asKeyChord(fixed, key) }))) : freely,
  );
  const offScale = keys.map(offScaleOf);
  const whole = places.length > 0 && barAt(task.bars, places[0].from).number <= 1;
  const toEnd = task.to >= task.bars[task.bars.length - 1].end;
  const own = (i: number, { key, chord, pace }: State): number => {
    const { weights, ends, fixed } = places[i];
    const paced = places[i].pace[pace] ?? 0;
    if (chord === null) return paced;
    let cost = paced + weigh(weights, misfitOf(chord.chord)) + weigh(weights, offScale[key]);
    if (typeof fixed !== 'string') cost += chord.price;
    const home = isHome(chord);
    if (i === 0 && whole && (!home || key !== 0)) cost += C.firstElsewhere;
    if (i === places.length - 1 && toEnd && (!home || key !== 0)) cost += C.lastElsewhere;
    if (key !== 0) cost += C.barAway * places[i].bars;
    if (ends !== null) cost += endingCost(chord, ends, keys[key]);
    return cost;
  };
  const step = (i: number, from: State, to: State): number => {
    const { change, fixed, opens } = places[i];
    const changes = from.symbol !== to.symbol;
    if (fixed === null && changes) return Infinity;
    if (from.pace !== to.pace && !opens) return Infinity;
    const turns = from.pace === to.pace ? 0 : PACE_TERMS.turns;
    return turns + (changes ? (change[to.pace] ?? 0) : 0) + move(places[i].closes, from, to);
  };
  return { places, states, keys, paces, own, step };
}

/** What one chord after another costs wherever it comes; in a part's close a dominant that goes home is a cadence. */
function move(closes: boolean, from: State, to: State): number {
  const C = PROGRESSION_COSTS;
  const cadence = closes && from.chord?.role === 'dominant' && to.chord !== null && isHome(to.chord);
  const turn = from.key === to.key ? 0 : to.key === 0 ? C.comesBack : C.leavesKey;
  const progression = from.chord === null || to.chord === null ? 0 : progressionCost(from.chord, to.chord);
  return (cadence ? C.cadence : 0) + turn + progression;
}

/** Moves between all states of one pace, by the state that is moved to and the one it comes from: what they cost by themselves. */
interface Moves {
  readonly cost: Float64Array;
  /** For each state that is moved to, those that have its chord already, in whatever key. */
  readonly same: readonly (readonly number[])[];
  /** The least that any move to it costs with another chord before. */
  readonly least: Float64Array;
}

/** Costs that differ by less are in any order. */
const GRAIN = 1e-4;
/** More than the states of a pace. */
const STATES = 2048;

/** Indices of costs from the least on, by numbers that hold both: such are sorted many times as fast as by a comparison. */
function cheapestFirst(costs: Float64Array): Uint16Array {
  const both = costs.map((cost, i) => Math.round(Math.min(cost, 1e8) / GRAIN) * STATES + i);
  const order = new Uint16Array(costs.length);
  both.sort().forEach((n, k) => (order[k] = ((n % STATES) + STATES) % STATES));
  return order;
}

/**
 * Where the cheapest way to a state comes from, and into `best` what it costs: from the states with the same chord first, then from the
 * others from the cheapest on, until none can be cheaper.
 */
function cheapestWay(
  { cost, same, least }: Moves,
  to: number,
  entry: Float64Array,
  order: Uint16Array,
  changing: number,
  best: Float64Array,
): number {
  const row = to * entry.length;
  let from = order[0];
  let lowest = Infinity;
  for (const f of same[to]) {
    const way = entry[f] + cost[row + f];
    if (way < lowest - 1e-9) {
      lowest = way;
      from = f;
    }
  }
  const bound = least[to] + changing;
  for (let k = 0; k < order.length; k++) {
    const f = order[k];
    if (entry[f] + bound - GRAIN >= lowest) break;
    const way = entry[f] + cost[row + f] + changing;
    // Those with the same chord were tried already, and would pay here for a change that they do not make.
    if (way < lowest - 1e-9) {
      lowest = way;
      from = f;
    }
  }
  best[0] = lowest;
  return from;
}

/**
 * The exact search: one table of moves between the states of a pace, one row of best costs a place. The pace turns only where a part
 * begins, so that within a part the states of each pace are searched by themselves; at a beginning every pace may follow the cheapest.
 */
function cheapestRow({ places, states, paces, own }: SuggestionProblem): State[] {
  if (places.length === 0) return [];
  const tables = new Map<string, Moves>();
  const back: Int32Array[] = [];
  const best = new Float64Array(1);
  let costs = Float64Array.from(states[0], (s) => own(0, s));
  for (let i = 1; i < places.length; i++) {
    const [before, now] = [states[i - 1], states[i]];
    const [width, count] = [before.length / paces.length, now.length / paces.length];
    const { change, fixed, closes, opens } = places[i];
    const kind = `${closes} ${places[i - 1].fixed ?? ''} ${fixed ?? ''}`;
    const table = tables.get(kind) ?? movesBetween(closes, before.slice(0, width), now.slice(0, count));
    tables.set(kind, table);
    // What a chord costs by itself is the same at all paces but for what they cost.
    const slowest = places[i].pace[paces[0]] ?? 0;
    const owns = Float64Array.from({ length: count }, (_, t) => own(i, now[t]));
    const next = new Float64Array(now.length);
    const chosen = new Int32Array(now.length);
    paces.forEach((pace, p) => {
      const changing = fixed === null ? Infinity : (change[pace] ?? 0);
      // The cheapest way to stand on each chord just before, whatever the pace was.
      const entry = costs.slice(p * width, (p + 1) * width);
      const came = new Int32Array(width);
      for (let f = 0; f < width; f++) came[f] = p * width + f;
      if (opens)
        for (let q = 0; q < paces.length; q++)
          for (let f = 0; f < width; f++)
            if (costs[q * width + f] + PACE_TERMS.turns < entry[f] - 1e-9) {
              entry[f] = costs[q * width + f] + PACE_TERMS.turns;
              came[f] = q * width + f;
            }
      const order = cheapestFirst(entry);
      for (let t = 0; t < count; t++) {
        chosen[p * count + t] = came[cheapestWay(table, t, entry, order, changing, best)];
        next[p * count + t] = best[0] + owns[t] + (places[i].pace[pace] ?? 0) - slowest;
      }
    });
    back.push(chosen);
    costs = next;
  }
  let at = 0;
  for (let s = 1; s < costs.length; s++) if (costs[s] < costs[at] - 1e-9) at = s;
  const row = [states[places.length - 1][at]];
  for (let i = places.length - 1; i > 0; i--) row.unshift(states[i - 1][(at = back[i - 1][at])]);
  return row;
}

function movesBetween(closes: boolean, before: readonly State[], now: readonly State[]): Moves {
  const cost = new Float64Array(before.length * now.length);
  const least = new Float64Array(now.length).fill(Infinity);
  const same = now.map((): number[] => []);
  now.forEach((to, t) => {
    before.forEach((from, f) => {
      const way = move(closes, from, to);
      cost[t * before.length + f] = way;
      if (from.symbol === to.symbol) same[t].push(f);
      else least[t] = Math.min(least[t], way);
    });
  });
  return { cost, same, least };
}

/** Where chords may change: whole bars, half bars or beats, and wherever a chord stands already. */
function layPlaces(task: SuggestionTask): Place[] {
  const { bars, from, to, fixed, rhythm } = task;
  const starts = new Set<Ticks>();
  for (const bar of bars) {
    if (bar.number === 0 || bar.end <= from || bar.start >= to) continue;
    const each = placesIn(bar, rhythm);
    for (let at = bar.start; at < bar.end; at += each) if (at >= from && at < to) starts.add(at);
  }
  for (const at of fixed.keys()) starts.add(at);
  const ordered = [...starts].sort((a, b) => a - b);
  const stretches = ordered.map((at, i) => ({ from: at, to: ordered[i + 1] ?? Math.max(to, barAt(bars, at).end) }));
  const slots = weighSlots(task.tune, bars, stretches);
  const last = lastPlaces(task, ordered);
  const barAround = (i: number) => barTicks(barAt(bars, slots[i].from).meter);
  const closing = new Set<number>();
  for (const i of last.keys()) for (let k = i; k >= 0 && slots[k].from > slots[i].from - barAround(i); k--) closing.add(k);
  const opening = firstPlaces(task, ordered);
  const paces = pacesOf(rhythm);
  return slots.map((slot, i) => {
    const bar = barAt(bars, slot.from);
    const lasts = (slot.to - slot.from) / barTicks(bar.meter);
    const closes = closing.has(i);
    const there = tuneThere(task.tune, slot.from, bars);
    return {
      ...slot,
      change: byPace(paces, (pace) => changeCost(pace, slot.from, bars, closes, there)),
      pace: byPace(paces, (pace) => lasts * barCost(pace, bar, task.tempo)),
      opens: opening.has(i),
      ends: last.get(i) ?? null,
      closes,
      bars: lasts,
      fixed: fixed.get(slot.from),
    };
  });
}

const byPace = (paces: readonly Pace[], cost: (pace: Pace) => number): Partial<Record<Pace, number>> =>
  Object.fromEntries(paces.map((pace) => [pace, cost(pace)]));

/** The first place of each part: the one at which its first note sounds. */
function firstPlaces({ ends }: SuggestionTask, starts: readonly Ticks[]): Set<number> {
  const first = new Set<number>([0]);
  for (const end of ends) {
    const i = starts.findIndex((at) => at >= end);
    if (i > 0) first.add(i);
  }
  return first;
}

/** The place of the last note of each part, with the pitch class of the note. */
function lastPlaces({ tune, ends }: SuggestionTask, starts: readonly Ticks[]): Map<number, number> {
  const last = new Map<number, number>();
  let n = 0;
  let s = 0;
  for (const end of ends) {
    while (n < tune.length && tune[n].at < end) n++;
    if (n === 0) continue;
    const at = tune[n - 1].at;
    while (s + 1 < starts.length && starts[s + 1] <= at) s++;
    if (starts[s] <= at) last.set(s, midiOf(tune[n - 1].pitch) % 12);
  }
  return last;
}
