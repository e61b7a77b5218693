import { parseChord, type Chord } from '../harmony/symbol.js';
import { isBlackKey, midiOf, type Pitch } from '../pitch/pitch.js';
import { spanOf, type BassWish, type Hands, type School } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';
import { pinnedVoicing, voicingsFor, type Voicing } from './candidates.js';
import { CLEAR_OF_TUNE, FREE_SHIFT, VOICING_COSTS, commonKeys, motionBetween, muddiness } from './costs.js';
import { cheapestPath } from './path.js';
import { SCHOOL_RULES } from '../catalogue/schools/registry.js';
import type { Strike } from './strikes.js';

/** How a left hand is to be voiced. */
export interface VoicingWishes {
  readonly hands: Hands;
  /** Kept keys by the place where the chord is written. */
  readonly pins: ReadonlyMap<Ticks, readonly Pitch[]>;
  /** Chosen fingers, bottom-up, by the place where the chord is written. */
  readonly fingers?: ReadonlyMap<Ticks, readonly number[]>;
  readonly schoolAt: (at: Ticks) => School;
  readonly bassAt: (at: Ticks) => BassWish;
}

/** A strike with all it could be played as. */
export interface Layered {
  readonly strike: Strike;
  readonly chord: Chord;
  readonly school: School;
  readonly bass: BassWish;
  readonly voicings: readonly Voicing[];
  readonly costs: Float64Array;
  /** The lowest key of the tune that sounds with it, as a MIDI number; Infinity where the tune rests. */
  readonly lowest: number;
  /** What an inversion costs here because the song starts or ends with it. */
  readonly edge: { readonly term: 'startInverted' | 'endInverted'; readonly cost: number }[];
  readonly pinned: boolean;
  /** What the chord could be played as, pinned or not, the nearest inversions always among it, with the cost of each. */
  readonly free: { readonly voicings: readonly Voicing[]; readonly costs: Float64Array };
}

/** What a voicing is charged for by itself: "form" is what its school charges for the shape. */
export type OwnTerm =
  'form' | 'spread' | 'stretch' | 'muddy' | 'drift' | 'blackThumb' | 'crossesTune' | 'nearTune' | 'startInverted' | 'endInverted';

/** What the way from one voicing to the next is charged for. */
export type StepTerm = 'motion' | 'commonTone' | 'shift' | 'moveOnRepeat' | 'bassLine';

/** One term of what a voicing costs at its place: by itself, on the way from the chord before, or on the way to the next. */
export interface TermCost {
  readonly term: OwnTerm | StepTerm;
  readonly where: 'here' | 'from' | 'to';
  /** In semitones of motion and their equals. */
  readonly cost: number;
}

export type TransitionCost = (i: number, from: number, to: number) => number;

/** The search as it is posed: the candidates of every strike with what each costs, and the cost of every step. */
export interface VoicingProblem {
  readonly layers: readonly Layered[];
  readonly step: TransitionCost;
  /** What each semitone of motion is weighed with. */
  readonly motionWeight: number;
}

/** Poses the search for all strikes whose symbol is a chord. */
export function voicingProblem(strikes: readonly Strike[], melody: readonly MelodyNote[], wishes: VoicingWishes): VoicingProblem {
  const layers = buildLayers(strikes, melody, wishes);
  return weighed(layers, VOICING_COSTS.motion);
}

const weighed = (layers: readonly Layered[], motionWeight: number): VoicingProblem => ({
  layers,
  step: stepCosts(layers, motionWeight),
  motionWeight,
});

/** The cheapest way through a problem. */
export function solve({ layers, step }: Pick<VoicingProblem, 'layers' | 'step'>): { choices: number[]; cost: number } {
  return cheapestPath(
    layers.map((l) => ({ size: l.voicings.length, cost: (c) => l.costs[c] })),
    step,
  );
}

/** What motion is weighed with, one after another, until the hand travels no more than it may. */
const HEAVIER_MOTION = [2, 4, 16, 1e6] as const;

/** A way through a problem, and the problem it is the cheapest of. */
export interface Solved {
  readonly problem: VoicingProblem;
  readonly choices: readonly number[];
}

/**
 * The cheapest way that travels at most `most` semitones where there is one: first by the table as it is, then with
 * motion weighed heavier. The heaviest weight finds the least travel of all.
 */
export function solveWithin(problem: VoicingProblem, most: number): Solved {
  let solved: Solved = { problem, choices: solve(problem).choices };
  for (const weight of HEAVIER_MOTION) {
    if (travelOf(problem.layers, solved.choices) <= most) break;
    const heavier = weighed(problem.layers, weight);
    solved = { problem: heavier, choices: solve(heavier).choices };
  }
  return solved;
}

/** The semitones that all voices move over a path. */
export function travelOf(layers: readonly Layered[], choices: readonly number[]): number {
  let travel = 0;
  for (let i = 1; i < layers.length; i++)
    travel += motionBetween(layers[i - 1].voicings[choices[i - 1]].midis, layers[i].voicings[choices[i]].midis);
  return travel;
}

/** What a path costs by the table. */
export function costOf({ layers, step }: VoicingProblem, choices: readonly number[]): number {
  return choices.reduce((sum, c, i) => sum + layers[i].costs[c] + (i > 0 ? step(i, choices[i - 1], c) : 0), 0);
}

function buildLayers(strikes: readonly Strike[], melody: readonly MelodyNote[], wishes: VoicingWishes): Layered[] {
  const { hands, pins } = wishes;
  const known = new Map<string, readonly Voicing[]>();
  const candidates = (chord: Chord, school: School): readonly Voicing[] => {
    const id = `${school} ${chord.text}`;
    let voicings = known.get(id);
    if (!voicings) known.set(id, (voicings = voicingsFor(chord, hands, school)));
    return voicings;
  };
  const all = (chord: Chord, school: School): readonly Voicing[] => {
    if (school === 'close') return candidates(chord, 'close');
    const id = `all ${school} ${chord.text}`;
    let voicings = known.get(id);
    if (!voicings) known.set(id, (voicings = withNearest(candidates(chord, school), candidates(chord, 'close'))));
    return voicings;
  };
  const layers: Layered[] = [];
  let from = 0;
  for (const strike of strikes) {
    const chord = parseChord(strike.symbol);
    if (chord.kind !== 'chord') continue;
    const end = strike.at + strike.length;
    while (from < melody.length && melody[from].at + melody[from].length <= strike.at) from++;
    let lowest = Infinity;
    for (let i = from; i < melody.length && melody[i].at < end; i++) lowest = Math.min(lowest, midiOf(melody[i].pitch));
    const school = wishes.schoolAt(strike.at);
    const costed = (voicings: readonly Voicing[]) => ({
      voicings,
      costs: Float64Array.from(voicings, (v) => ownCost(v, lowest, hands, school)),
    });
    const own = costed(candidates(chord, school));
    const free = school === 'close' ? own : costed(all(chord, school));
    const pin = pins.get(strike.writtenAt);
    const kept = pin ? costed([pinnedTo(chord, pin, free.voicings)]) : own;
    layers.push({
      strike,
      chord,
      school,
      bass: wishes.bassAt(strike.at),
      ...kept,
      lowest,
      edge: [],
      pinned: pin !== undefined,
      free,
    });
  }
  const charge = (layer: Layered | undefined, term: 'startInverted' | 'endInverted') => {
    if (!layer || layer.chord.bass !== null) return;
    const cost = VOICING_COSTS[term];
    layer.edge.push({ term, cost });
    for (const set of layer.costs === layer.free.costs ? [layer] : [layer, layer.free])
      set.voicings.forEach((v, i) => {
        if (v.inversion !== 0) set.costs[i] += cost;
      });
  };
  charge(layers[0], 'startInverted');
  if (layers.length > 1) charge(layers.at(-1), 'endInverted');
  return layers;
}

/** A school's own voicings, then those of the nearest inversions that it does not have. */
function withNearest(own: readonly Voicing[], nearest: readonly Voicing[]): Voicing[] {
  const had = new Set(own.map((v) => v.midis.join()));
  const others = nearest.filter((v) => !had.has(v.midis.join()));
  return [...own, ...others.map((v) => ({ ...v, price: v.price + VOICING_COSTS.outOfSchool }))];
}

/** A pinned chord is the candidate with its keys where there is one, and otherwise what its keys make of it. */
function pinnedTo(chord: Chord, keys: readonly Pitch[], voicings: readonly Voicing[]): Voicing {
  const pin = pinnedVoicing(chord, keys);
  return voicings.find((v) => v.midis.join() === pin.midis.join()) ?? pin;
}

/** What a voicing costs by itself, term by term, `lowest` being the lowest melody key that sounds with it. */
function ownTerms(
  voicing: Voicing,
  lowest: number,
  hands: Hands,
  school: School,
  add: (term: OwnTerm, cost: number) => void,
): void {
  const { midis } = voicing;
  const { home } = SCHOOL_RULES[school];
  const bottom = midis[0];
  const top = midis[midis.length - 1];
  const middle = (bottom + top) / 2;
  const width = voicing.spread ? top - midis[1] : top - bottom;
  add('form', voicing.price);
  add('spread', voicing.spread ? VOICING_COSTS.spread : 0);
  add('stretch', VOICING_COSTS.stretch * Math.max(0, width - spanOf(hands, 'left').comfortable));
  add('muddy', VOICING_COSTS.muddy * muddiness(midis));
  add('drift', VOICING_COSTS.drift * Math.max(0, home.low - middle, middle - home.high));
  if (isBlackKey(top)) add('blackThumb', VOICING_COSTS.blackThumb);
  if (top >= lowest) add('crossesTune', VOICING_COSTS.crossesTune + top - lowest);
  else if (lowest - top < CLEAR_OF_TUNE) add('nearTune', VOICING_COSTS.nearTune);
}

function ownCost(voicing: Voicing, lowest: number, hands: Hands, school: School): number {
  let cost = 0;
  ownTerms(voicing, lowest, hands, school, (_, c) => {
    cost += c;
  });
  return cost;
}

/** What a voicing costs at its place between its neighbours, term by term. The sum is what the search weighed. */
export function termsAt(
  { layers, motionWeight }: Pick<VoicingProblem, 'layers' | 'motionWeight'>,
  i: number,
  around: { readonly before: Voicing | null; readonly here: Voicing; readonly after: Voicing | null },
  hands: Hands,
): TermCost[] {
  const { lowest, school, strike, bass, edge } = layers[i];
  const { before, here, after } = around;
  const terms: TermCost[] = [];
  ownTerms(here, lowest, hands, school, (term, cost) => terms.push({ term, where: 'here', cost }));
  if (here.inversion !== 0) for (const e of edge) terms.push({ ...e, where: 'here' });
  if (before)
    stepTerms(before, here, layers[i - 1].strike.symbol === strike.symbol, bass, motionWeight, (term, cost) =>
      terms.push({ term, where: 'from', cost }),
    );
  if (after)
    stepTerms(here, after, strike.symbol === layers[i + 1].strike.symbol, layers[i + 1].bass, motionWeight, (term, cost) =>
      terms.push({ term, where: 'to', cost }),
    );
  return terms.filter((t) => t.cost !== 0);
}

/** Transition costs, worked out once for each pair of chords. */
function stepCosts(layers: readonly Layered[], weight: number): TransitionCost {
  const tables = new Map<readonly Voicing[], Map<string, Map<readonly Voicing[], Float64Array>>>();
  const tableFor = (a: Layered, b: Layered): Float64Array => {
    const same = a.strike.symbol === b.strike.symbol;
    const kind = `${same} ${b.bass}`;
    let kinds = tables.get(a.voicings);
    if (!kinds) tables.set(a.voicings, (kinds = new Map<string, Map<readonly Voicing[], Float64Array>>()));
    let row = kinds.get(kind);
    if (!row) kinds.set(kind, (row = new Map<readonly Voicing[], Float64Array>()));
    let table = row.get(b.voicings);
    if (!table) {
      table = new Float64Array(a.voicings.length * b.voicings.length);
      let at = 0;
      for (const x of a.voicings) for (const y of b.voicings) table[at++] = transition(x, y, same, b.bass, weight);
      row.set(b.voicings, table);
    }
    return table;
  };
  const byIndex = layers.map((layer, i) => (i === 0 ? new Float64Array() : tableFor(layers[i - 1], layer)));
  return (i, from, to) => byIndex[i][from * layers[i].voicings.length + to];
}

/** The middle of a chord, between its lowest and its highest key. */
const middleOf = ({ midis }: Voicing): number => (midis[0] + midis[midis.length - 1]) / 2;

/** What it costs to go from one voicing to the next, term by term. */
function stepTerms(
  from: Voicing,
  to: Voicing,
  sameChord: boolean,
  bass: BassWish,
  weight: number,
  add: (term: StepTerm, cost: number) => void,
): void {
  const motion = motionBetween(from.midis, to.midis);
  const shift = Math.abs(middleOf(to) - middleOf(from));
  add('motion', weight * motion);
  add('commonTone', VOICING_COSTS.commonTone * commonKeys(from.midis, to.midis));
  add('shift', VOICING_COSTS.shift * Math.max(0, shift - FREE_SHIFT));
  if (sameChord && motion > 0) add('moveOnRepeat', VOICING_COSTS.moveOnRepeat);
  if (bass !== 'free') add('bassLine', bassLine(to.midis[0] - from.midis[0], bass, sameChord));
}

/** What it costs to go from one voicing to the next. */
export function transition(
  from: Voicing,
  to: Voicing,
  sameChord: boolean,
  bass: BassWish,
  weight: number = VOICING_COSTS.motion,
): number {
  let cost = 0;
  stepTerms(from, to, sameChord, bass, weight, (_, c) => {
    cost += c;
  });
  return cost;
}

/** What a step of the bass, in semitones, costs against the line asked for. */
function bassLine(step: number, wish: BassWish, sameChord: boolean): number {
  const { againstLine, wrongWay, standsStill } = VOICING_COSTS;
  if (wish === 'held') return step === 0 ? 0 : wrongWay + againstLine * Math.abs(step);
  const along = wish === 'falling' ? -step : step;
  if (along < 0) return wrongWay - againstLine * along;
  return along === 0 && !sameChord ? standsStill : 0;
}
