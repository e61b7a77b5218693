import type { Key } from '../harmony/key.js';
import { midiOf, type Pitch } from '../pitch/pitch.js';
import type { Hands } from '../song/decisions.js';
import { toSeconds, type Ticks } from '../time/ticks.js';
import {
  FAST_REPEAT,
  FINGER_COSTS,
  blackCost,
  crossingCost,
  gripCost,
  leanCost,
  liesWide,
  OCTAVE,
  moveCost,
  spreadCost,
  wideCost,
  type Move,
  type Pace,
  type Reach,
} from './costs.js';
import { keysFor, type PianoKey } from './keys.js';
import { spansFor } from './spans.js';
import { inPlace, WAYS_TO_LAY } from './ways.js';

/** What one hand strikes at a moment: one key or a chord. */
export interface Grip {
  readonly at: Ticks;
  readonly length: Ticks;
  /** Bottom-up. */
  readonly pitches: readonly Pitch[];
  /** Fingers that the player chose, bottom-up, or null. */
  readonly pin?: readonly number[] | null;
  /** The finger that its outermost key was learned with before anything was added to it. */
  readonly learned?: number | null;
  /** True where a phrase begins: the hand is free to go anywhere before it. */
  readonly fresh?: boolean;
  /** Keys that are still held from the grip before, so that their fingers stay. */
  readonly held?: readonly Pitch[];
}

/** A grip with its fingers, bottom-up, and how the hand came to it: 'fresh' where a phrase begins. */
export interface Fingered {
  readonly fingers: readonly number[];
  readonly move: Move | 'fresh';
}

/** Who plays: the hand, its spans, the speed in quarter notes a minute, and the key whose scale the fingers lie over. */
export interface FingeringTask {
  readonly hands: Hands;
  readonly hand: 'left' | 'right';
  readonly tempo: number;
  readonly key: Key;
}

/** A grip as the search sees it. Keys and fingers rise by place: bottom-up for the right hand, top-down for the left. */
interface Stage {
  readonly keys: readonly PianoKey[];
  readonly options: readonly (readonly number[])[];
  /** What each option costs by itself: its reach, and black keys under the outer fingers. */
  readonly own: readonly OwnCost[];
  readonly pace: Pace;
  /** True inside a row of quick repetitions of one key. */
  readonly drummed: boolean;
  readonly fresh: boolean;
  /** Where keys that are held on lie in the grip before and in this one. */
  readonly held: readonly { readonly before: number; readonly here: number }[];
}

/** The stretch inside a grip, and for each of its keys what a black one costs under its finger. */
interface OwnCost {
  readonly reach: number;
  readonly black: readonly number[];
  /** What it costs that the melody's note was learned with another finger. */
  readonly relearned: number;
}

/** The fingering search over a row of grips, ready to be solved or to have a given fingering priced. */
export interface FingeringProblem {
  readonly stages: readonly Stage[];
  readonly reach: Reach;
  readonly hand: 'left' | 'right';
}

/** A pinned grip is never refused, whatever it costs. */
const PINNED_MOST = 50;

/** Poses the search: every way to take each grip, with what it costs by itself. At most five keys a grip. */
export function fingeringProblem(grips: readonly Grip[], { hands, hand, tempo, key }: FingeringTask): FingeringProblem {
  const midis = grips.flatMap((g) => g.pitches.map(midiOf));
  const reach: Reach = { spans: spansFor(hands, hand), wide: liesWide(midis) };
  const meet = keysFor(hand, key, midis);
  const laid = grips.map((g) => {
    const keys = g.pitches.slice(-5).map((p) => meet(midiOf(p)));
    return hand === 'left' ? keys.reverse() : keys;
  });
  const stages = grips.map((grip, i): Stage => {
    const keys = laid[i];
    const options = optionsOf(grip, keys, hand, reach);
    const before = grip.fresh || i === 0 ? null : outermost(laid[i - 1]);
    const after = i + 1 === grips.length || grips[i + 1].fresh ? null : outermost(laid[i + 1]);
    const own = options.map((fingers): OwnCost => {
      const inside = keys.length === 1 ? FINGER_COSTS.weak[fingers[0]] : gripCost(keys, fingers, reach);
      const black = keys.map((k, j) =>
        keys.length === 1
          ? blackCost(k, fingers[j], before, after)
          : blackCost(k, fingers[j], keys[j - 1] ?? null, keys[j + 1] ?? null),
      );
      const relearned = grip.learned && grip.learned !== outermost(fingers) ? FINGER_COSTS.relearn : 0;
      // What no hand of this size reaches is taken as wide as it goes and reported elsewhere.
      const wide = PINNED_MOST + 5 - outermost(fingers) + fingers[0] - 1;
      return { reach: inside < Infinity ? inside : wide, black, relearned };
    });
    const last = grips[i - 1];
    const pace = last
      ? { apart: toSeconds(grip.at - last.at, tempo), rest: toSeconds(Math.max(0, grip.at - last.at - last.length), tempo) }
      : { apart: Infinity, rest: Infinity };
    const drummed = quick(grips, i, tempo) && (quick(grips, i - 1, tempo) || quick(grips, i + 1, tempo));
    const held = (i > 0 && !grip.fresh ? (grip.held ?? []) : []).flatMap((p) => heldIn(laid[i - 1], keys, meet(midiOf(p))));
    return { keys, options, own, pace, drummed, fresh: i === 0 || grip.fresh === true, held };
  });
  return { stages, reach, hand };
}

/** True where a single key is struck again at once. */
function quick(grips: readonly Grip[], i: number, tempo: number): boolean {
  const [before, here] = [grips[i - 1] as Grip | undefined, grips[i] as Grip | undefined];
  if (!before || !here || here.fresh || here.pitches.length > 1 || here.pitches[0] !== before.pitches[0]) return false;
  return toSeconds(here.at - before.at, tempo) < FAST_REPEAT;
}

function optionsOf(
  { pin, pitches }: Grip,
  keys: readonly PianoKey[],
  hand: 'left' | 'right',
  reach: Reach,
): readonly (readonly number[])[] {
  if (pin?.length === pitches.length) return [inPlace(pin.slice(-5), hand)];
  // A finger chosen for the tune alone holds for the top of the chord that hangs from it.
  const top = pin?.length === 1 ? pin[0] : null;
  const all = WAYS_TO_LAY[keys.length];
  const wished = all.filter((fingers) => top === null || outermost(fingers) === top);
  const free = wished.length > 0 ? wished : all;
  const reached = free.filter((fingers) => gripCost(keys, fingers, reach) < Infinity);
  return reached.length > 0 ? reached : free;
}

function heldIn(before: readonly PianoKey[], here: readonly PianoKey[], held: PianoKey): Stage['held'] {
  const [a, b] = [before, here].map((keys) => keys.findIndex((k) => k.place === held.place));
  return a >= 0 && b >= 0 ? [{ before: a, here: b }] : [];
}

/** The top key for the right hand; the bottom one for the left, which is its mirror. */
const outermost = <T>(items: readonly T[]): T => items[items.length - 1];

/** Where the hand lies: the key under each finger that has played there, by finger from 1 to 5; null for one that has not. */
type Lie = readonly (PianoKey | null)[];

const NOWHERE: Lie = [null, null, null, null, null, null];

/** How a hand goes over a wide broken chord: the note on which its thumb has fallen, 1 to 12 by name or 0, and the finger of the first note. */
interface Habit {
  readonly thumb: number;
  readonly first: number;
}

const NO_HABIT: Habit = { thumb: 0, first: 0 };

/** Where the hand is after a grip, as far as what follows depends on it. */
export interface Situation {
  readonly lie: Lie;
  /** The lie as a number. */
  readonly print: number;
  /** The fingers that have just played, by their place among the options. */
  readonly option: number;
  /** True where the hand came here by a crossing: it is on its way, not settled. */
  readonly crossed: boolean;
  /** Over a wide broken chord what the hand has done there before; {@link NO_HABIT} everywhere else. */
  readonly habit: Habit;
}

/** What a fingering is charged for: black keys under outer fingers, an opened hand, crossings, moves, keys struck again, a finger that was learned otherwise. */
export type FingerTermName = 'keys' | 'stretch' | 'crossing' | 'shift' | 'repeat' | 'learned';

/** A step from grip to grip: how the hand goes, what each kind of it costs, and where the hand is then. */
export interface FingerStep {
  readonly move: Fingered['move'];
  readonly costs: Readonly<Record<FingerTermName, number>>;
  readonly cost: number;
  readonly to: Situation;
}

function step(
  move: Fingered['move'],
  to: Situation,
  { keys = 0, stretch = 0, crossing = 0, shift = 0, repeat = 0, learned = 0 }: Partial<Record<FingerTermName, number>>,
): FingerStep {
  const cost = keys + stretch + crossing + shift + repeat + learned;
  return { move, to, costs: { keys, stretch, crossing, shift, repeat, learned }, cost };
}

/** The grip before and this one both hold a single key. */
const isLine = (before: Stage, here: Stage): boolean => before.keys.length === 1 && here.keys.length === 1;

/** The name of a key as a number from 1 to 12. */
const nameOf = ({ place }: PianoKey): number => (((place % OCTAVE) + OCTAVE) % OCTAVE) + 1;

/**
 * What the hand does over a wide broken chord when a grip is taken, and what it costs to do otherwise than an octave before: the thumb
 * falls on another note, or the note on which the phrase began has another finger, neither of them the thumb. `thumb` is its key where it comes to one.
 */
function habitAfter(
  { reach, stages }: FingeringProblem,
  i: number,
  option: number,
  before: Habit,
  thumb: PianoKey | null,
): { readonly habit: Habit; readonly cost: number } {
  if (!reach.wide) return { habit: NO_HABIT, cost: 0 };
  const finger = stages[i].options[option][0];
  if (before.first === 0) return { habit: { thumb: thumb === null ? 0 : nameOf(thumb), first: finger }, cost: 0 };
  const again = nameOf(stages[i].keys[0]) === nameOf(stages[0].keys[0]);
  const long = finger > 1 && before.first > 1;
  const other = again && finger !== before.first && long ? FINGER_COSTS.otherFinger : 0;
  if (thumb === null) return { habit: before, cost: other };
  const moved = before.thumb !== 0 && before.thumb !== nameOf(thumb) ? FINGER_COSTS.otherThumb : 0;
  return { habit: { ...before, thumb: nameOf(thumb) }, cost: moved + other };
}

/** The first grip of a phrase, wherever the hand was. */
function beginning(problem: FingeringProblem, i: number, option: number): FingerStep {
  const stage = problem.stages[i];
  const { black, reach, relearned: learned } = stage.own[option];
  const { to } = newPlace(problem, i, option, false, NO_HABIT);
  const keys = settledCost(stage, black);
  return step('fresh', to, stage.keys.length === 1 ? { keys: keys + reach, learned } : { keys, stretch: reach, learned });
}

/** The share of a black key's cost that stays where the hand has come to lie over the scale; a key beside the scale is not part of its place. */
const settledShare = (key: PianoKey): number => (key.chromatic ? FINGER_COSTS.settledChromatic : FINGER_COSTS.settled);

/** What the black keys of a grip cost in a place to which the hand has come as a whole. */
const settledCost = ({ keys }: Stage, black: readonly number[]): number =>
  black.reduce((sum, cost, k) => sum + cost * settledShare(keys[k]), 0);

const total = (costs: readonly number[]): number => costs.reduce((a, b) => a + b, 0);

/** A place of which nothing is known but the grip itself, and what it costs where the thumb falls there. */
function newPlace(
  problem: FingeringProblem,
  i: number,
  option: number,
  crossed: boolean,
  before: Habit,
): { readonly to: Situation; readonly cost: number } {
  const stage = problem.stages[i];
  const lie = [...NOWHERE];
  const fingers = stage.options[option];
  // Of a chord that no hand spans only the outermost key tells where the hand is.
  const from = stage.own[option].reach < PINNED_MOST ? 0 : fingers.length - 1;
  for (let k = from; k < fingers.length; k++) lie[fingers[k]] = stage.keys[k];
  const { habit, cost } = habitAfter(problem, i, option, before, lie[1]);
  return { to: { lie, print: printOf(lie), option, crossed, habit }, cost };
}

/** No MIDI number of a piano's key. */
const NO_KEY = 127;

/** A lie as a number, without the sign that all keys of a hand share. */
function printOf(lie: Lie): number {
  let print = 0;
  for (let f = 1; f <= 5; f++) print = print * 128 + Math.abs(lie[f]?.place ?? NO_KEY);
  return print;
}

/** A situation as a number: those with the same one are the same for all that follows. */
const whole = ({ print, option, crossed, habit }: Situation): number =>
  (((option * 2 + (crossed ? 1 : 0)) * (OCTAVE + 1) + habit.thumb) * 6 + habit.first) * 128 ** 5 + print;

/** The hand stays; null where the keys of the grip do not lie under these fingers. */
function staying(problem: FingeringProblem, i: number, from: Situation, option: number): FingerStep | null {
  const { stages, reach } = problem;
  const stage = stages[i];
  const before = stages[i - 1];
  const fingers = stage.options[option];
  const last = before.options[from.option];
  const single = isLine(before, stage);
  if (single && last[0] === fingers[0] && before.keys[0].place !== stage.keys[0].place) return null;
  const opened = opening(from, stage, option, reach);
  if (opened === null) return null;
  // A chord is a shape of its own, wherever the hand lies.
  let stretch = stage.keys.length === 1 ? opened.stretch : stage.own[option].reach;
  let again = 0;
  if (single) {
    const apart = Math.abs(stage.keys[0].place - before.keys[0].place);
    if (apart === 0) again = stage.drummed && last[0] === fingers[0] ? FINGER_COSTS.repeatFast : 0;
    else {
      const pair = reach.spans(Math.min(last[0], fingers[0]), Math.max(last[0], fingers[0]));
      // A finger that leans over may be farther from the next one than its own key is.
      if (apart > pair.practicalMax) return null;
      stretch += wideCost(apart, pair);
    }
  }
  const comes = from.lie[1] === null ? opened.lie[1] : null;
  const { habit, cost } = habitAfter(problem, i, option, from.habit, comes);
  const print = opened.lie === from.lie ? from.print : printOf(opened.lie);
  return step(
    'stay',
    { lie: opened.lie, print, option, crossed: from.crossed, habit },
    {
      keys: opened.black,
      stretch: stretch + heldChange(stage, last, fingers),
      crossing: cost,
      repeat: again,
      learned: stage.own[option].relearned,
    },
  );
}

const heldChange = ({ held }: Stage, last: readonly number[], fingers: readonly number[]): number => {
  let cost = 0;
  for (const { before, here } of held) if (last[before] !== fingers[here]) cost += FINGER_COSTS.heldChange;
  return cost;
};

/** The thumb passes under, or a finger over it; null where these fingers do not cross. */
function crossing(problem: FingeringProblem, i: number, from: Situation, option: number): FingerStep | null {
  const { stages } = problem;
  const [before, stage] = [stages[i - 1], stages[i]];
  if (!isLine(before, stage)) return null;
  const finger = stage.options[option][0];
  if (finger !== 1 && before.options[from.option][0] !== 1) return null;
  const [a, b] = [before.keys[0], stage.keys[0]];
  const cost = crossingCost(a, before.options[from.option][0], b, finger);
  if (cost === Infinity) return null;
  const { black, reach } = stage.own[option];
  const place = newPlace(problem, i, option, true, from.habit);
  return step(finger === 1 ? 'under' : 'over', place.to, {
    keys: total(black) + reach,
    learned: stage.own[option].relearned,
    crossing: cost + place.cost + (from.crossed ? 0 : deepCost(from.lie)),
  });
}

/** What is taken back where a hand that had settled with its thumb or fifth finger on a black key leaves by a crossing. */
function deepCost(lie: Lie): number {
  const between = lie.slice(2, 5).filter((k) => k !== null);
  const beside = between.find((k) => !k.black) ?? between[0] ?? null;
  let cost = 0;
  for (const finger of [1, 5]) {
    const key = lie[finger];
    if (key !== null) cost += (1 - settledShare(key)) * blackCost(key, finger, beside, null);
  }
  return cost;
}

/** What it costs to take the hand from a grip to another place. */
function leaving({ stages }: FingeringProblem, i: number, lastOption: number, option: number): number {
  const [before, stage] = [stages[i - 1], stages[i]];
  const [last, fingers] = [before.options[lastOption], stage.options[option]];
  const outer = moveCost(outermost(before.keys), outermost(last), outermost(stage.keys), outermost(fingers), stage.pace);
  if (isLine(before, stage)) return outer;
  const far = Math.abs(outermost(stage.keys).place - outermost(before.keys).place);
  const chords = before.keys.length > 1 && stage.keys.length > 1;
  const hand = FINGER_COSTS.chordMove + FINGER_COSTS.chordMoveWide * far;
  return chords ? Math.min(hand, outer) : FINGER_COSTS.chordShare * outer;
}

/** The hand goes to another place. */
function moving(problem: FingeringProblem, i: number, lastOption: number, option: number): FingerStep {
  const [before, stage] = [problem.stages[i - 1], problem.stages[i]];
  const { black, reach, relearned: learned } = stage.own[option];
  const keys = settledCost(stage, black);
  const { to } = newPlace(problem, i, option, false, NO_HABIT);
  const shift = leaving(problem, i, lastOption, option);
  if (stage.keys.length === 1) return step('shift', to, { keys: keys + reach, shift, learned });
  const held = heldChange(stage, before.options[lastOption], stage.options[option]);
  return step('shift', to, { keys, stretch: reach + held, shift, learned });
}

/** Every way to go on from a situation to an option of a grip: to stay, to cross, to move. */
export function stepsTo(problem: FingeringProblem, i: number, from: Situation | null, option: number): FingerStep[] {
  if (from === null || problem.stages[i].fresh) return [beginning(problem, i, option)];
  const ways = [staying(problem, i, from, option), crossing(problem, i, from, option), moving(problem, i, from.option, option)];
  return ways.filter((way) => way !== null);
}

interface Opened {
  readonly lie: Lie;
  readonly stretch: number;
  readonly black: number;
}

/** What it costs to open the hand where it lies until a grip is under these fingers; null where it is not to be reached so. */
function opening(from: Situation, stage: Stage, option: number, reach: Reach): Opened | null {
  const fingers = stage.options[option];
  let lie = from.lie;
  let stretch = 0;
  let black = 0;
  for (let k = 0; k < fingers.length; k++) {
    const key = stage.keys[k];
    const finger = fingers[k];
    const own = lie[finger];
    if (own?.place === key.place) continue;
    const beside = besides(lie, key, finger, reach);
    if (beside === Infinity) return null;
    if (own !== null) {
      const lean = leanCost(own, key);
      if (lean === Infinity) return null;
      stretch += lean;
      continue;
    }
    stretch += beside;
    black += (from.crossed ? 1 : settledShare(key)) * stage.own[option].black[k];
    if (stage.keys.length === 1) black += stage.own[option].reach;
    const next = [...lie];
    next[finger] = key;
    lie = next;
  }
  return { lie, stretch, black };
}

/** What it costs to lay a finger on a key beside those that lie; Infinity where they are in the way or too far. */
function besides(lie: Lie, key: PianoKey, finger: number, reach: Reach): number {
  let below = 0;
  let above = 0;
  for (let f = 1; f <= 5; f++) {
    const other = lie[f];
    if (f === finger || other === null) continue;
    const up = key.place - other.place;
    if (f < finger) {
      if (up <= 0 || up > reach.spans(f, finger).practicalMax) return Infinity;
      below = f;
    } else {
      if (up >= 0 || -up > reach.spans(finger, f).practicalMax) return Infinity;
      if (above === 0) above = f;
    }
  }
  const low = lie[below];
  const high = lie[above];
  const cost =
    (low === null ? 0 : spreadCost(low, below, key, finger, reach)) +
    (high === null ? 0 : spreadCost(key, finger, high, above, reach));
  return low !== null && high !== null ? cost / 2 : cost;
}

interface Reached {
  readonly step: FingerStep;
  readonly cost: number;
  readonly from: Reached | null;
}

/** Solves a posed search: the exact minimum of {@link FINGER_COSTS}, in time that grows with the number of grips. */
export function solveFingering(problem: FingeringProblem): {
  readonly row: Fingered[];
  readonly cost: number;
  readonly steps: readonly FingerStep[];
} {
  const { stages, hand } = problem;
  let reached: readonly Reached[] = [];
  stages.forEach((stage, i) => {
    const now = new Map<number, Reached>();
    const keep = (next: FingerStep | null, from: Reached | null) => {
      if (next === null) return;
      const cost = (from?.cost ?? 0) + next.cost;
      const print = whole(next.to);
      const known = now.get(print);
      if (known === undefined || cost < known.cost - 1e-9) now.set(print, { step: next, cost, from });
    };
    if (stage.fresh) {
      const from = cheapest(reached);
      stage.options.forEach((_, o) => {
        keep(beginning(problem, i, o), from);
      });
    } else {
      const best = cheapestByOption(reached, stages[i - 1].options.length);
      stage.options.forEach((_, o) => {
        for (const from of reached) {
          keep(staying(problem, i, from.step.to, o), from);
          keep(crossing(problem, i, from.step.to, o), from);
        }
        const from = bestToLeave(problem, i, best, o);
        if (from !== null) keep(moving(problem, i, from.step.to.option, o), from);
      });
    }
    reached = [...now.values()];
  });
  const steps: FingerStep[] = [];
  const end = cheapest(reached);
  for (let at = end; at !== null; at = at.from) steps.push(at.step);
  steps.reverse();
  const row = steps.map(({ move, to }, i): Fingered => ({ fingers: inPlace(stages[i].options[to.option], hand), move }));
  return { row, cost: end?.cost ?? 0, steps };
}

/** The cheapest situation for each way to take the grip before. */
function cheapestByOption(reached: readonly Reached[], options: number): (Reached | null)[] {
  const best = new Array<Reached | null>(options).fill(null);
  for (const r of reached) {
    const known = best[r.step.to.option];
    if (known === null || r.cost < known.cost - 1e-9) best[r.step.to.option] = r;
  }
  return best;
}

/** From where it is cheapest to take the hand to another place: there nothing counts of where it was but its fingers. */
function bestToLeave(problem: FingeringProblem, i: number, best: readonly (Reached | null)[], option: number): Reached | null {
  let found: Reached | null = null;
  let least = Infinity;
  const { options } = problem.stages[i];
  for (const r of best) {
    if (r === null) continue;
    const { option: last } = r.step.to;
    const change = heldChange(problem.stages[i], problem.stages[i - 1].options[last], options[option]);
    const cost = r.cost + leaving(problem, i, last, option) + change;
    if (cost < least - 1e-9) [found, least] = [r, cost];
  }
  return found;
}

const cheapest = (reached: readonly Reached[]): Reached | null =>
  reached.reduce<Reached | null>((best, r) => (best === null || r.cost < best.cost - 1e-9 ? r : best), null);
