import type { ExactRepeat } from '../divide/repeats.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { remembered } from '../lists/remembered.js';
import { isBlackKey, midiOf, type Pitch } from '../pitch/pitch.js';
import { spanOf, type BassWish, type Hands, type School } from '../song/decisions.js';
import { keysOf, type MelodyNote } from '../song/song.js';
import { lastFrom } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { pinnedVoicing, USUAL_VOICING, voicingsFor, type Voicing, type VoicingWish } from './candidates.js';
import { CLEAR_OF_TUNE, FREE_SHIFT, VOICING_COSTS, commonKeys, motionBetween, muddiness } from './costs.js';
import { SCHOOL_RULES } from '../catalogue/schools/registry.js';
import type { Strike } from './strikes.js';

/** Keys of symbols through a song, by the symbol and what else tells its voicings apart. */
export type Homes = ReadonlyMap<string, readonly Pitch[]>;

/** How a left hand is to be voiced. */
export interface VoicingWishes {
  readonly hands: Hands;
  /** Kept keys by the place where the chord is written. */
  readonly pins: ReadonlyMap<Ticks, readonly Pitch[]>;
  /** Chosen fingers, bottom-up, by the place where the chord is written. */
  readonly fingers?: ReadonlyMap<Ticks, readonly number[]>;
  readonly schoolAt: (at: Ticks) => School;
  readonly bassAt: (at: Ticks) => BassWish;
  /** Notes of dominant sevenths, and octaves by which the hand lies higher; the usual ones where nothing is said. */
  readonly wishAt?: (at: Ticks) => VoicingWish;
  /** Where sections of the song begin, each in root position as the song does. */
  readonly sections?: readonly Ticks[];
  /** Stretches that repeat an earlier one chord for chord, and where that one begins: they lie as it does. */
  readonly repeats?: readonly ExactRepeat[];
  /** The keys that symbols have through the whole song, where only some of it is voiced. */
  readonly homes?: Homes;
}

/** A strike with all it could be played as. */
export interface Layered {
  readonly strike: Strike;
  readonly chord: Chord;
  readonly school: School;
  readonly wish: VoicingWish;
  readonly bass: BassWish;
  readonly voicings: readonly Voicing[];
  readonly costs: Float64Array;
  /** The lowest key of the tune that sounds with it, as a MIDI number; Infinity where the tune rests. */
  readonly lowest: number;
  /** What an inversion costs here because the song starts or ends with it. */
  readonly edge: { readonly term: 'startInverted' | 'endInverted'; readonly cost: number }[];
  /** The keys that this symbol has through the song wherever that costs little; null before they are settled. */
  home: Voicing | null;
  /** The layer whose keys this one repeats: itself, or an earlier one in a part that comes again. */
  readonly as: number;
  /** All layers that have the same keys as this one for that reason, itself among them. */
  readonly times: readonly number[];
  readonly pinned: boolean;
  /** What the chord could be played as, pinned or not, the nearest inversions always among it, with the cost of each. */
  readonly free: { readonly voicings: readonly Voicing[]; readonly costs: Float64Array };
}

/** What a voicing is charged for by itself: "form" is what its school charges for the shape. */
export type OwnTerm =
  | 'form'
  | 'spread'
  | 'stretch'
  | 'muddy'
  | 'drift'
  | 'blackThumb'
  | 'crossesTune'
  | 'nearTune'
  | 'startInverted'
  | 'endInverted'
  | 'otherShape';

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
  /** The same in tables, one for the way into each layer, its own choices varying fastest; equal pairs of chords share theirs. */
  readonly tables: readonly Float64Array[];
  /** What each semitone of motion is weighed with. */
  readonly motionWeight: number;
}

/** Poses the search for all strikes whose symbol is a chord: with the nearest inversions beside what a school has, or without. */
export function voicingProblem(
  strikes: readonly Strike[],
  melody: readonly MelodyNote[],
  wishes: VoicingWishes,
  beside: 'with-nearest' | 'school-alone' = 'with-nearest',
): VoicingProblem {
  const layers = buildLayers(strikes, melody, wishes, beside === 'with-nearest');
  return weighed(layers, VOICING_COSTS.motion);
}

/** A problem with its motion weighed anew. */
export const weighed = (layers: readonly Layered[], motionWeight: number): VoicingProblem => ({
  layers,
  ...stepCosts(layers, motionWeight),
  motionWeight,
});

/** The semitones that all voices move over a row of voicings. */
export const travelOf = (row: readonly Voicing[]): number =>
  row.reduce((sum, v, i) => (i === 0 ? 0 : sum + motionBetween(row[i - 1].midis, v.midis)), 0);

function buildLayers(
  strikes: readonly Strike[],
  melody: readonly MelodyNote[],
  wishes: VoicingWishes,
  withOthers: boolean,
): Layered[] {
  const { hands, pins, repeats = [], sections = [] } = wishes;
  const layers: (Layered & { readonly times: number[] })[] = [];
  const byPlace = new Map<Ticks, number>();
  let from = 0;
  for (const strike of strikes) {
    const chord = parseChord(strike.symbol);
    if (chord.kind !== 'chord') continue;
    const end = strike.at + strike.length;
    while (from < melody.length && melody[from].at + melody[from].length <= strike.at) from++;
    let lowest = Infinity;
    for (let i = from; i < melody.length && melody[i].at < end; i++) lowest = Math.min(lowest, midiOf(keysOf(melody[i])[0]));
    const school = wishes.schoolAt(strike.at);
    const wish = wishes.wishAt?.(strike.at) ?? USUAL_VOICING;
    const under = ({ voicings, costs }: Priced): Priced => ({
      voicings,
      costs: costs.map((cost, c) => cost + tuneCost(voicings[c], lowest)),
    });
    const laid = candidatesOf(chord, hands, school, wish, withOthers);
    const own = under(laid.own);
    const free = laid.all === laid.own ? own : under(laid.all);
    const pin = pins.get(strike.writtenAt);
    const kept = pin ? under(priced([pinnedTo(chord, pin, free.voicings)], hands, school, wish)) : own;
    const repeat = repeatAt(repeats, strike.at);
    const first =
      repeat && !pin && wishes.bassAt(strike.at) === 'free' ? byPlace.get(strike.at - repeat.start + repeat.of) : undefined;
    const tied = first !== undefined && layers[first].voicings === kept.voicings ? first : layers.length;
    byPlace.set(strike.at, layers.length);
    const times = layers[tied]?.times ?? [];
    times.push(layers.length);
    layers.push({
      strike,
      chord,
      school,
      wish,
      bass: wishes.bassAt(strike.at),
      ...kept,
      lowest,
      edge: [],
      home: null,
      as: tied,
      times,
      pinned: pin !== undefined,
      free,
    });
  }
  const charge = (layer: Layered | undefined, term: Layered['edge'][number]['term']) => {
    if (!layer || layer.chord.bass !== null) return;
    const cost = VOICING_COSTS[term];
    layer.edge.push({ term, cost });
    chargeVoicings(layer, (v) => (isTurned(v) ? cost : 0));
  };
  const begins = [0, ...sections.map((at) => layers.findIndex((l) => l.strike.at >= at)).filter((i) => i > 0)];
  for (const i of new Set(begins)) charge(layers[i], 'startInverted');
  if (layers.length > 1) charge(layers.at(-1), 'endInverted');
  return layers;
}

/** The repeated stretch that a place lies in. */
function repeatAt(repeats: readonly ExactRepeat[], at: Ticks): ExactRepeat | undefined {
  const last = lastFrom(repeats, at);
  return last && at < last.end ? last : undefined;
}

/** True for a chord that is not in root position; one without its root is in none. */
const isTurned = ({ inversion, form }: Voicing): boolean => inversion !== 0 && form !== 'rootless';

/** Adds a charge to what the voicings of a layer cost, those it may take and those it might have taken. */
function chargeVoicings(layer: Layered, charge: (v: Voicing) => number): void {
  for (const set of layer.costs === layer.free.costs ? [layer] : [layer, layer.free])
    set.voicings.forEach((v, i) => {
      set.costs[i] += charge(v);
    });
}

/** Voicings with what each costs. */
interface Priced {
  readonly voicings: readonly Voicing[];
  readonly costs: Float64Array;
}

/** Voicings with what each costs by itself, wherever the tune lies. */
const priced = (voicings: readonly Voicing[], hands: Hands, school: School, wish: VoicingWish): Priced => ({
  voicings,
  costs: Float64Array.from(voicings, (v) => {
    let cost = 0;
    shapeTerms(v, hands, school, wish, (_, c) => {
      cost += c;
    });
    return cost;
  }),
});

/** What tells the voicings of a symbol from those of others. */
export const symbolId = ({ chord, school, wish }: Pick<Layered, 'chord' | 'school' | 'wish'>): string =>
  `${school} ${wish.dominants} ${wish.octave} ${chord.text}`;

/** Chords, each in a school and for a hand, whose candidates are kept: those of some songs, so that a song that is edited finds its own again. */
const MOST_CANDIDATES = 400;

/** What a chord may be played as: in its school, and with the nearest inversions beside them where asked. */
const candidatesOf = remembered(
  MOST_CANDIDATES,
  (chord: Chord, hands: Hands, school: School, wish: VoicingWish, withOthers: boolean) => {
    const { comfortable, limit } = spanOf(hands, 'left');
    return `${comfortable} ${limit} ${hands.keys} ${withOthers} ${symbolId({ chord, school, wish })}`;
  },
  (chord, hands, school, wish, withOthers): { readonly own: Priced; readonly all: Priced } => {
    const voicings = voicingsFor(chord, hands, school, wish);
    const own = priced(voicings, hands, school, wish);
    const all =
      school === 'close' || !withOthers
        ? own
        : priced(withNearest(voicings, voicingsFor(chord, hands, 'close', wish)), hands, school, wish);
    return { own, all };
  },
);

/** Settles the keys that a layer's symbol has through the song, in place of others: every other voicing is charged from now on. */
export function settleHome(layer: Layered, home: Voicing): void {
  const { home: before } = layer;
  const charged = (of: Voicing | null, v: Voicing) => (of !== null && v !== of ? VOICING_COSTS.otherShape : 0);
  chargeVoicings(layer, (v) => charged(home, v) - charged(before, v));
  layer.home = home;
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

/** What a voicing costs by itself, term by term, wherever the tune lies. */
function shapeTerms(
  voicing: Voicing,
  hands: Hands,
  school: School,
  wish: VoicingWish,
  add: (term: OwnTerm, cost: number) => void,
): void {
  const { midis } = voicing;
  const [homeLow, homeHigh] = homeOf(school, wish);
  const { comfortable } = spanOf(hands, 'left');
  const bottom = midis[0];
  const top = midis[midis.length - 1];
  const middle = (bottom + top) / 2;
  const width = voicing.spread ? top - midis[1] : top - bottom;
  add('form', voicing.price);
  add('spread', voicing.spread ? VOICING_COSTS.spread : 0);
  add('stretch', VOICING_COSTS.stretch * Math.max(0, width - comfortable));
  add('muddy', VOICING_COSTS.muddy * muddiness(midis));
  add('drift', VOICING_COSTS.drift * Math.max(0, homeLow - middle, middle - homeHigh));
  if (isBlackKey(top)) add('blackThumb', VOICING_COSTS.blackThumb);
}

/** What a voicing costs for how its top lies to the lowest key of the tune that sounds with it. */
function tuneTerm({ midis }: Voicing, lowest: number): { readonly term: 'crossesTune' | 'nearTune'; readonly cost: number } {
  const top = midis[midis.length - 1];
  if (top >= lowest) return { term: 'crossesTune', cost: VOICING_COSTS.crossesTune + top - lowest };
  return { term: 'nearTune', cost: lowest - top < CLEAR_OF_TUNE ? VOICING_COSTS.nearTune : 0 };
}

const tuneCost = (voicing: Voicing, lowest: number): number => tuneTerm(voicing, lowest).cost;

/** Where the middle of a chord lies at no cost, lowest and highest key. */
function homeOf(school: School, { octave }: VoicingWish): readonly [low: number, high: number] {
  const { home } = SCHOOL_RULES[school];
  return [home.low + 12 * octave, home.high + 12 * octave];
}

/** What a voicing costs at its place between its neighbours, term by term. The sum is what the search weighed. */
export function termsAt(
  { layers, motionWeight }: Pick<VoicingProblem, 'layers' | 'motionWeight'>,
  i: number,
  around: { readonly before: Voicing | null; readonly here: Voicing; readonly after: Voicing | null },
  hands: Hands,
): TermCost[] {
  const { lowest, school, wish, strike, bass, edge, home } = layers[i];
  const { before, here, after } = around;
  const terms: TermCost[] = [];
  shapeTerms(here, hands, school, wish, (term, cost) => terms.push({ term, where: 'here', cost }));
  terms.push({ ...tuneTerm(here, lowest), where: 'here' });
  if (isTurned(here)) for (const e of edge) terms.push({ ...e, where: 'here' });
  if (home !== null && here !== home) terms.push({ term: 'otherShape', cost: VOICING_COSTS.otherShape, where: 'here' });
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
function stepCosts(layers: readonly Layered[], weight: number): Pick<VoicingProblem, 'step' | 'tables'> {
  const known = new Map<readonly Voicing[], Map<string, Map<readonly Voicing[], Float64Array>>>();
  const tableFor = (a: Layered, b: Layered): Float64Array => {
    const same = a.strike.symbol === b.strike.symbol;
    const kind = `${same} ${b.bass}`;
    let kinds = known.get(a.voicings);
    if (!kinds) known.set(a.voicings, (kinds = new Map<string, Map<readonly Voicing[], Float64Array>>()));
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
  const tables = layers.map((layer, i) => (i === 0 ? new Float64Array() : tableFor(layers[i - 1], layer)));
  return { tables, step: (i, from, to) => tables[i][from * layers[i].voicings.length + to] };
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
