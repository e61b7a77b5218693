import { chordName, positionName } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { isBlackKey, midiOf, nameOf, type Pitch } from '../pitch/pitch.js';
import { SPANS, type Hands } from '../song/decisions.js';
import type { ChordSpan, MelodyNote } from '../song/song.js';
import { capital } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { pinnedVoicing, voicingsFor, type Form, type Voicing } from './candidates.js';
import { CLEAR_OF_TUNE, FREE_SHIFT, HOME, VOICING_COSTS, commonKeys, motionBetween, muddiness } from './costs.js';
import { chordFingers } from './fingers.js';
import { cheapestPath } from './path.js';
import { changeInShort, changeSentence, thinningWords, voiceMoves, type VoiceMove } from './reasons.js';

/** A chord that the left hand strikes: a chord symbol at its place, pressed again at every bar line it crosses. */
export interface Strike extends ChordSpan {
  /** True where the chord before is pressed again. */
  readonly again: boolean;
}

/** Another way to play a chord, its neighbours staying as they are. */
export interface Alternative {
  readonly symbol: string;
  readonly position: string;
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  /** Semitones from the chord before. */
  readonly motion: number;
  /** What the whole path would cost more, in semitones of motion and their equals. */
  readonly cost: number;
  readonly why: string;
}

/** A chord in its place: the notes, the fingers, the change from the chord before and the reason. */
export interface VoicedChord {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly symbol: string;
  readonly name: string;
  readonly again: boolean;
  readonly pinned: boolean;
  readonly form: Form;
  readonly inversion: number | null;
  readonly position: string;
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  /** Semitones that the voices move from the chord before; 0 for the first. */
  readonly motion: number;
  readonly common: number;
  readonly moves: readonly VoiceMove[];
  readonly inShort: string;
  readonly why: string;
  readonly alternatives: readonly Alternative[];
}

/** The left hand of a song. */
export interface LeftHand {
  readonly chords: readonly VoicedChord[];
  readonly cost: number;
  readonly travel: number;
  /** The travel of the same chords in root position under the same limits. */
  readonly travelRoot: number;
}

const ALTERNATIVES = 5;

interface Layered {
  readonly strike: Strike;
  readonly chord: Chord;
  readonly voicings: readonly Voicing[];
  readonly costs: Float64Array;
  readonly pinned: boolean;
  /** What the chord could be played as, pinned or not, with the cost of each by itself. */
  readonly free: { readonly voicings: readonly Voicing[]; readonly costs: Float64Array };
}

/**
 * Voices every strike for the left hand by the nearest inversion: the exact minimum of {@link VOICING_COSTS} over
 * the whole song, pinned chords being fixed points. Strikes whose symbol is no chord are passed over.
 */
export function voiceLeftHand(
  strikes: readonly Strike[],
  melody: readonly MelodyNote[],
  hands: Hands,
  pins: ReadonlyMap<Ticks, readonly Pitch[]>,
): LeftHand {
  const { layers, step } = voicingProblem(strikes, melody, hands, pins);
  const { choices, cost } = solve(layers, step);
  const chords = layers.map((layer, i) => describe(layers, choices, step, i, layer));
  return {
    chords,
    cost,
    travel: chords.reduce((sum, c) => sum + c.motion, 0),
    travelRoot: rootTravel(layers),
  };
}

/** The search as it is posed: the candidates of every strike with what each costs, and the cost of every step. */
export function voicingProblem(
  strikes: readonly Strike[],
  melody: readonly MelodyNote[],
  hands: Hands,
  pins: ReadonlyMap<Ticks, readonly Pitch[]>,
): { readonly layers: readonly Layered[]; readonly step: Step } {
  const layers = buildLayers(strikes, melody, hands, pins);
  return { layers, step: stepCosts(layers) };
}

function buildLayers(
  strikes: readonly Strike[],
  melody: readonly MelodyNote[],
  hands: Hands,
  pins: ReadonlyMap<Ticks, readonly Pitch[]>,
): Layered[] {
  const known = new Map<string, readonly Voicing[]>();
  const layers: Layered[] = [];
  let from = 0;
  for (const strike of strikes) {
    const chord = parseChord(strike.symbol);
    if (chord.kind !== 'chord') continue;
    const end = strike.at + strike.length;
    while (from < melody.length && melody[from].at + melody[from].length <= strike.at) from++;
    let lowest = Infinity;
    for (let i = from; i < melody.length && melody[i].at < end; i++) lowest = Math.min(lowest, midiOf(melody[i].pitch));
    const pin = pins.get(strike.at);
    let voicings = known.get(strike.symbol);
    if (!voicings) known.set(strike.symbol, (voicings = voicingsFor(chord, hands)));
    const costed = (all: readonly Voicing[]) => ({
      voicings: all,
      costs: Float64Array.from(all, (v) => ownCost(v, lowest, hands)),
    });
    const free = costed(voicings);
    layers.push({ strike, chord, ...(pin ? costed([pinned(chord, pin, voicings)]) : free), pinned: pin !== undefined, free });
  }
  const charge = (layer: Layered | undefined, cost: number) =>
    layer?.voicings.forEach((v, i) => {
      if (v.inversion !== 0 && layer.chord.bass === null) layer.costs[i] += cost;
    });
  charge(layers[0], VOICING_COSTS.startInverted);
  if (layers.length > 1) charge(layers.at(-1), VOICING_COSTS.endInverted);
  return layers;
}

/** A pinned chord is the candidate with its keys where there is one, and otherwise what its keys make of it. */
function pinned(chord: Chord, keys: readonly Pitch[], voicings: readonly Voicing[]): Voicing {
  const pin = pinnedVoicing(chord, keys);
  return voicings.find((v) => v.midis.join() === pin.midis.join()) ?? pin;
}

/** What a voicing costs by itself, `lowest` being the lowest melody key that sounds with it. */
function ownCost(voicing: Voicing, lowest: number, hands: Hands): number {
  const { midis, form } = voicing;
  const bottom = midis[0];
  const top = midis[midis.length - 1];
  const middle = (bottom + top) / 2;
  let cost = VOICING_COSTS.stretch * Math.max(0, top - bottom - SPANS[hands.profile].comfortable);
  cost += VOICING_COSTS.muddy * muddiness(midis);
  cost += VOICING_COSTS.drift * Math.max(0, HOME.low - middle, middle - HOME.high);
  if (isBlackKey(top)) cost += VOICING_COSTS.blackThumb;
  if (form === 'no-fifth') cost += VOICING_COSTS.withoutFifth;
  else if (form === 'two-note') cost += VOICING_COSTS.twoNotes;
  else if (form === 'one-note') cost += VOICING_COSTS.oneNote;
  else if (form === 'rootless') cost += VOICING_COSTS.rootless;
  if (top >= lowest) cost += VOICING_COSTS.crossesTune + top - lowest;
  else if (lowest - top < CLEAR_OF_TUNE) cost += VOICING_COSTS.nearTune;
  return cost;
}

type Step = (i: number, from: number, to: number) => number;

/** Transition costs, worked out once for each pair of chord symbols. */
function stepCosts(layers: readonly Layered[]): Step {
  const tables = new Map<readonly Voicing[], Map<readonly Voicing[], Float64Array>>();
  const tableFor = (a: Layered, b: Layered): Float64Array => {
    let row = tables.get(a.voicings);
    if (!row) tables.set(a.voicings, (row = new Map()));
    let table = row.get(b.voicings);
    if (!table) {
      table = new Float64Array(a.voicings.length * b.voicings.length);
      const same = a.strike.symbol === b.strike.symbol;
      a.voicings.forEach((x, i) =>
        b.voicings.forEach((y, j) => ((table as Float64Array)[i * b.voicings.length + j] = transition(x, y, same))),
      );
      row.set(b.voicings, table);
    }
    return table;
  };
  const byIndex = layers.map((layer, i) => (i === 0 ? new Float64Array() : tableFor(layers[i - 1], layer)));
  return (i, from, to) => byIndex[i][from * layers[i].voicings.length + to];
}

/** What it costs to go from one voicing to the next. */
function transition(from: Voicing, to: Voicing, sameChord: boolean): number {
  const motion = motionBetween(from.midis, to.midis);
  const middle = (v: Voicing) => (v.midis[0] + v.midis[v.midis.length - 1]) / 2;
  const shift = Math.abs(middle(to) - middle(from));
  return (
    VOICING_COSTS.motion * motion +
    VOICING_COSTS.commonTone * commonKeys(from.midis, to.midis) +
    VOICING_COSTS.shift * Math.max(0, shift - FREE_SHIFT) +
    (sameChord && motion > 0 ? VOICING_COSTS.moveOnRepeat : 0)
  );
}

function solve(layers: readonly Layered[], step: Step): { choices: number[]; cost: number } {
  return cheapestPath(
    layers.map((l) => ({ size: l.voicings.length, cost: (c) => l.costs[c] })),
    step,
  );
}

/** Travel with every chord in root position (or as its slash bass asks), placed as near as the octaves allow. */
function rootTravel(layers: readonly Layered[]): number {
  const rooted = layers.map((layer): Layered => {
    if (layer.pinned) return layer;
    const root = layer.voicings.filter((v) => v.inversion === 0 && v.form === 'full');
    const kept = root.length > 0 ? root : layer.voicings.filter((v) => v.inversion === 0);
    const voicings = kept.length > 0 ? kept : layer.voicings;
    return { ...layer, voicings, costs: Float64Array.from(voicings, (v) => layer.costs[layer.voicings.indexOf(v)]) };
  });
  const { choices } = solve(rooted, (i, f, t) => transition(rooted[i - 1].voicings[f], rooted[i].voicings[t], false));
  let travel = 0;
  for (let i = 1; i < rooted.length; i++)
    travel += motionBetween(rooted[i - 1].voicings[choices[i - 1]].midis, rooted[i].voicings[choices[i]].midis);
  return travel;
}

function describe(layers: readonly Layered[], choices: readonly number[], step: Step, i: number, layer: Layered): VoicedChord {
  const { strike, chord, pinned } = layer;
  const voicing = layer.voicings[choices[i]];
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  const moves = before ? voiceMoves(before.pitches, voicing.pitches) : [];
  const position = positionName(chord, nameOf(voicing.pitches[0]));
  return {
    at: strike.at,
    length: strike.length,
    symbol: chord.text,
    name: chordName(chord),
    again: strike.again,
    pinned,
    form: voicing.form,
    inversion: voicing.inversion,
    position,
    pitches: voicing.pitches,
    fingers: chordFingers(voicing.midis, voicing.inversion),
    motion: before ? motionBetween(before.midis, voicing.midis) : 0,
    common: before ? commonKeys(before.midis, voicing.midis) : 0,
    moves,
    inShort: changeInShort(moves),
    why: reason(layers, choices, i, moves, position),
    alternatives: alternatives(layers, choices, step, i),
  };
}

function reason(
  layers: readonly Layered[],
  choices: readonly number[],
  i: number,
  moves: readonly VoiceMove[],
  position: string,
): string {
  const { voicings, pinned, strike } = layers[i];
  const voicing = voicings[choices[i]];
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  const said: string[] = [];
  if (pinned) said.push('You chose this place.');
  if (i === 0) said.push(`The hand starts here, in ${position}.`);
  else if (strike.again && layers[i - 1].strike.symbol === strike.symbol && moves.every((m) => m.semitones === 0))
    said.push('The same chord again: every key stays.');
  else said.push(changeSentence(moves));
  if (before && !pinned) said.push(...comparison(layers[i], voicing, before));
  const thinned = thinningWords(voicing.form, position);
  if (thinned && !pinned) said.push(thinned);
  return said.join(' ');
}

/** What speaks for a voicing against the others: less motion than root position, or a nearer way for what follows. */
function comparison(layer: Layered, voicing: Voicing, before: Voicing): string[] {
  const now = motionBetween(before.midis, voicing.midis);
  const others = layer.voicings
    .filter((v) => v.form === voicing.form && v.inversion !== voicing.inversion)
    .map((v) => ({ v, motion: motionBetween(before.midis, v.midis) }));
  const nearer = others.filter((o) => o.motion < now).sort((a, b) => a.motion - b.motion)[0];
  const bottom = (v: Voicing) => positionName(layer.chord, nameOf(v.pitches[0]));
  if (nearer)
    return [
      `${capital(bottom(nearer.v))} would move ${nearer.motion} here instead of ${now}, but cost more on the way to the next chords or under the tune.`,
    ];
  if (voicing.inversion === 0) return [];
  const root = Math.min(...others.filter((o) => o.v.inversion === 0).map((o) => o.motion));
  return Number.isFinite(root) && root > now ? [`Root position would move ${root} half steps, this moves ${now}.`] : [];
}

function alternatives(layers: readonly Layered[], choices: readonly number[], step: Step, i: number): Alternative[] {
  const { chord, strike } = layers[i];
  const current = layers[i].voicings[choices[i]];
  // A pinned chord is compared with what could be there instead.
  const { voicings, costs } = layers[i].free;
  const around = (v: Voicing, own: number, index: number | null) => {
    const cost = (j: number, a: number | null, b: number | null, x: Voicing, y: Voicing) =>
      a !== null && b !== null ? step(j, a, b) : transition(x, y, layers[j - 1].strike.symbol === layers[j].strike.symbol);
    let sum = own;
    if (i > 0) sum += cost(i, choices[i - 1], index, layers[i - 1].voicings[choices[i - 1]], v);
    if (i + 1 < layers.length) sum += cost(i + 1, index, choices[i + 1], v, layers[i + 1].voicings[choices[i + 1]]);
    return sum;
  };
  const here = around(current, layers[i].costs[choices[i]], choices[i]);
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  const ranked = voicings
    .map((v, c) => ({ v, cost: around(v, costs[c], layers[i].pinned ? null : c) - here }))
    .filter(({ v }) => v.midis.join() !== current.midis.join())
    .sort((a, b) => a.cost - b.cost);
  const seen = new Set<string>();
  const kept = ranked.filter(({ v }) => {
    const shape = `${v.form}${v.inversion}`;
    if (v.form === 'one-note' || (seen.has(shape) && v.form !== 'full')) return false;
    seen.add(shape);
    return true;
  });
  return kept.slice(0, ALTERNATIVES).map(({ v, cost }): Alternative => {
    const bottom = nameOf(v.pitches[0]);
    const moves = before ? voiceMoves(before.pitches, v.pitches) : [];
    return {
      symbol: v.inversion === 0 || chord.bass !== null ? chord.text : `${chord.text}/${bottom}`,
      position: v.form === 'two-note' ? 'two notes' : positionName(chord, bottom),
      pitches: v.pitches,
      fingers: chordFingers(v.midis, v.inversion),
      motion: before ? motionBetween(before.midis, v.midis) : 0,
      cost: Math.round(cost * 100) / 100,
      why: before && strike.at > 0 ? changeSentence(moves) : `${positionName(chord, bottom)}, ${v.pitches.length} notes.`,
    };
  });
}
