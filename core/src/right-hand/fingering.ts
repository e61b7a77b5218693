import { midiOf, type Pitch } from '../pitch/pitch.js';
import type { Hands } from '../song/decisions.js';
import { toSeconds, type Ticks } from '../time/ticks.js';
import { FINGER_COSTS, gripCost, keyFor, ownCost, stepCost, type PianoKey, type Move, type Pace } from './finger-costs.js';
import { spansFor, type PairSpan } from './spans.js';

/** What one hand strikes at a moment: one key or a chord. */
export interface Grip {
  readonly at: Ticks;
  readonly length: Ticks;
  /** Bottom-up. */
  readonly pitches: readonly Pitch[];
  /** Fingers that the player chose, bottom-up, or null. */
  readonly pin?: readonly number[] | null;
  /** True where a phrase begins: the hand is free to go anywhere before it. */
  readonly fresh?: boolean;
  /** A key that is still held from the grip before, so that its finger stays. */
  readonly held?: Pitch | null;
}

/** A grip with its fingers, bottom-up, and how the hand came to it. */
export interface Fingered {
  readonly fingers: readonly number[];
  readonly move: Move | 'fresh';
}

/** Who plays: the hand, its spans and the speed. */
export interface FingeringTask {
  readonly hands: Hands;
  readonly hand: 'left' | 'right';
  /** Quarter notes a minute. */
  readonly tempo: number;
}

/** A grip as the search sees it. Keys and fingers rise by place: bottom-up for the right hand, top-down for the left. */
interface Stage {
  readonly keys: readonly PianoKey[];
  readonly options: readonly (readonly number[])[];
  readonly own: readonly number[];
  readonly pace: Pace;
  readonly fresh: boolean;
  /** Where a key that is held on lies in the grip before and in this one; null where none is. */
  readonly held: { readonly before: number; readonly here: number } | null;
}

/** The fingering search over a row of grips, ready to be solved or to have a given fingering priced. */
export interface FingeringProblem {
  readonly stages: readonly Stage[];
  readonly spans: (low: number, high: number) => PairSpan;
  readonly hand: 'left' | 'right';
}

const ALL: readonly (readonly (readonly number[])[])[] = [0, 1, 2, 3, 4, 5].map((size) => subsets([1, 2, 3, 4, 5], size));

function subsets(items: readonly number[], size: number): number[][] {
  if (size === 0) return [[]];
  return items.flatMap((item, i) => subsets(items.slice(i + 1), size - 1).map((rest) => [item, ...rest]));
}

/** Poses the search: every way to take each grip, with what it costs by itself. At most five keys a grip. */
export function fingeringProblem(grips: readonly Grip[], { hands, hand, tempo }: FingeringTask): FingeringProblem {
  const spans = spansFor(hands, hand);
  const laid = grips.map((g) => {
    const keys = g.pitches.slice(-5).map((p) => keyFor(midiOf(p), hand));
    return hand === 'left' ? keys.reverse() : keys;
  });
  const outer = (keys: readonly PianoKey[] | undefined) => keys?.[keys.length - 1] ?? null;
  const stages = grips.map((grip, i): Stage => {
    const keys = laid[i];
    const before = grip.fresh || i === 0 ? null : outer(laid[i - 1]);
    const after = grips[i + 1]?.fresh ? null : outer(laid[i + 1]);
    const alone = (fingers: readonly number[]) =>
      keys.reduce(
        (sum, key, k) => {
          const [low, high] = keys.length === 1 ? [before, after] : [keys[k - 1] ?? null, keys[k + 1] ?? null];
          return sum + ownCost(key, fingers[k], low, high) + (keys.length === 1 ? FINGER_COSTS.weak[fingers[k]] : 0);
        },
        gripCost(keys, fingers, spans),
      );
    const pin = grip.pin?.length === grip.pitches.length ? inPlace(grip.pin.slice(-5), hand) : null;
    // A finger chosen for the tune alone holds for the top of the chord that hangs from it.
    const top = pin === null && grip.pin?.length === 1 ? grip.pin[0] : null;
    const ways = ALL[keys.length].filter((fingers) => top === null || outermost(fingers) === top);
    const free = (ways.length > 0 ? ways : ALL[keys.length]).map((fingers) => ({ fingers, cost: alone(fingers) }));
    const reached = free.filter((o) => o.cost < Infinity);
    // What no hand of this size reaches is taken as wide as it goes and reported elsewhere.
    const options = pin
      ? [{ fingers: pin, cost: Math.min(alone(pin), PINNED_MOST) }]
      : reached.length > 0
        ? reached
        : free.map((o) => ({ ...o, cost: 5 - o.fingers[o.fingers.length - 1] + o.fingers[0] - 1 }));
    const last = grips[i - 1];
    const pace = last
      ? { apart: toSeconds(grip.at - last.at, tempo), rest: toSeconds(Math.max(0, grip.at - last.at - last.length), tempo) }
      : { apart: Infinity, rest: Infinity };
    return {
      keys,
      options: options.map((o) => o.fingers),
      own: options.map((o) => o.cost),
      pace,
      fresh: i === 0 || grip.fresh === true,
      held: grip.held && !grip.fresh && i > 0 ? heldIn(laid[i - 1], keys, keyFor(midiOf(grip.held), hand)) : null,
    };
  });
  return { stages, spans, hand };
}

function heldIn(before: readonly PianoKey[], here: readonly PianoKey[], held: PianoKey): Stage['held'] {
  const [a, b] = [before, here].map((keys) => keys.findIndex((k) => k.place === held.place));
  return a >= 0 && b >= 0 ? { before: a, here: b } : null;
}

/** A pinned grip is never refused, whatever it costs. */
const PINNED_MOST = 50;

const inPlace = (fingers: readonly number[], hand: 'left' | 'right'): readonly number[] =>
  hand === 'left' ? [...fingers].reverse() : fingers;

/** The top key for the right hand; the bottom one for the left, which is its mirror. */
const outermost = <T>(items: readonly T[]): T => items[items.length - 1];

/** What it costs to go from one grip to the next, and how the hand moves: for chords the mean over the outer keys of both. */
function between(
  { stages, spans }: FingeringProblem,
  i: number,
  a: readonly number[],
  b: readonly number[],
): { cost: number; move: Move } {
  const before = stages[i - 1];
  const here = stages[i];
  if (before.keys.length === 1 && here.keys.length === 1)
    return stepCost(before.keys[0], a[0], here.keys[0], b[0], here.pace, spans);
  const top = stepCost(outermost(before.keys), outermost(a), outermost(here.keys), outermost(b), here.pace, spans);
  const low = stepCost(before.keys[0], a[0], here.keys[0], b[0], here.pace, spans);
  const held = here.held && a[here.held.before] !== b[here.held.here] ? FINGER_COSTS.heldChange : 0;
  // A hand that goes to or from a chord goes as a whole: no finger need stay.
  const far = Math.abs(outermost(here.keys).place - outermost(before.keys).place);
  const whole = FINGER_COSTS.chordMove + FINGER_COSTS.chordMoveWide * far;
  return { cost: Math.min((top.cost + low.cost) / 2, whole) + held, move: top.move === 'stay' ? low.move : top.move };
}

/**
 * The keys that the thumb has come to, the last one and the one before it, as pitch classes from 1 with 0 for none yet,
 * packed as last + 13 × before.
 */
const ANCHORS = 13;
const STATES = ANCHORS * ANCHORS;

/** The thumb's key in a grip as a pitch class from 1, or 0. The thumb is always the first finger by place. */
function anchorOf(stage: Stage, fingers: readonly number[]): number {
  return fingers[0] === 1 ? (((stage.keys[0].place % 12) + 12) % 12) + 1 : 0;
}

/** The packed keys after the thumb comes to one; its negative where that is a third one. */
function nextAnchors(anchors: number, key: number): number {
  const last = anchors % ANCHORS;
  if (key === 0 || key === last) return anchors;
  const before = (anchors - last) / ANCHORS;
  const next = key + ANCHORS * last;
  return before !== 0 && key !== before ? -next : next;
}

/** Solves a posed search: the exact minimum of {@link FINGER_COSTS}, in time that grows with the number of grips. */
export function solveFingering(problem: FingeringProblem): { readonly row: Fingered[]; readonly cost: number } {
  const { stages, hand } = problem;
  if (stages.length === 0) return { row: [], cost: 0 };
  const from: Int32Array[] = [];
  let reached: number[] = [];
  let costs = new Float64Array(0);
  stages.forEach((stage, i) => {
    const size = stage.options.length;
    const now = new Float64Array(size * STATES).fill(Infinity);
    const back = new Int32Array(size * STATES);
    const next: number[] = [];
    const keys = stage.options.map((o) => anchorOf(stage, o));
    const own = stage.own;
    const before = i === 0 ? null : stages[i - 1].options;
    const steps = before?.map((a) => stage.options.map((b) => (stage.fresh ? 0 : between(problem, i, a, b).cost)));
    const keep = (o: number, anchors: number, cost: number, previous: number) => {
      const after = nextAnchors(anchors, keys[o]);
      const state = o * STATES + Math.abs(after);
      const whole = after < 0 ? cost + FINGER_COSTS.anchor : cost;
      if (whole >= now[state]) return;
      if (now[state] === Infinity) next.push(state);
      now[state] = whole;
      back[state] = previous;
    };
    if (!steps) for (let o = 0; o < size; o++) keep(o, 0, own[o], -1);
    else
      for (const state of reached) {
        const a = (state / STATES) | 0;
        // A new phrase starts with no memory of the thumb's keys.
        const anchors = stage.fresh ? 0 : state % STATES;
        for (let o = 0; o < size; o++) keep(o, anchors, costs[state] + steps[a][o] + own[o], state);
      }
    from.push(back);
    reached = withinReach(next, now, size);
    costs = now;
  });
  let state = reached.reduce((best, s) => (costs[s] < costs[best] - 1e-9 ? s : best), reached[0]);
  const cost = costs[state];
  const chosen: number[] = new Array<number>(stages.length);
  for (let i = stages.length - 1; i >= 0; i--) {
    chosen[i] = Math.floor(state / STATES);
    state = from[i][state];
  }
  const row = chosen.map((c, i): Fingered => {
    const { options, fresh } = stages[i];
    const fingers = inPlace(options[c], hand);
    if (fresh) return { fingers, move: 'fresh' };
    return { fingers, move: between(problem, i, stages[i - 1].options[chosen[i - 1]], options[c]).move };
  });
  return { row, cost };
}

/**
 * Drops states that cannot win: two states with the same fingers differ in the thumb's memory only, which is the same again after
 * two of its moves, so that the one ahead by more than two charges stays ahead.
 */
function withinReach(states: readonly number[], costs: Float64Array, size: number): number[] {
  const best = new Float64Array(size).fill(Infinity);
  for (const s of states) {
    const o = (s / STATES) | 0;
    if (costs[s] < best[o]) best[o] = costs[s];
  }
  return states.filter((s) => costs[s] <= best[(s / STATES) | 0] + 2 * FINGER_COSTS.anchor + 1e-9);
}

/** What a given fingering costs, option by option: the measure that {@link solveFingering} minimises. */
export function costOfFingering(problem: FingeringProblem, chosen: readonly number[]): number {
  let anchors = 0;
  return problem.stages.reduce((sum, stage, i) => {
    const fingers = stage.options[chosen[i]];
    const after = nextAnchors(stage.fresh ? 0 : anchors, anchorOf(stage, fingers));
    anchors = Math.abs(after);
    const step = stage.fresh ? 0 : between(problem, i, problem.stages[i - 1].options[chosen[i - 1]], fingers).cost;
    return sum + stage.own[chosen[i]] + step + (after < 0 ? FINGER_COSTS.anchor : 0);
  }, 0);
}

/** What a fingering is charged for: fingers on their keys, stretches, the thumb passing, moves of the hand, keys struck again, a third key for the thumb. */
export interface FingerTerm {
  readonly term: 'keys' | 'stretch' | 'crossing' | 'shift' | 'repeat' | 'anchor';
  readonly cost: number;
}

/** What a given fingering costs, term by term: the sum is that of {@link costOfFingering}. */
function termsOfFingering(problem: FingeringProblem, chosen: readonly number[]): FingerTerm[] {
  const costs = new Map<FingerTerm['term'], number>();
  const add = (term: FingerTerm['term'], cost: number) => cost !== 0 && costs.set(term, (costs.get(term) ?? 0) + cost);
  let anchors = 0;
  problem.stages.forEach((stage, i) => {
    const fingers = stage.options[chosen[i]];
    const after = nextAnchors(stage.fresh ? 0 : anchors, anchorOf(stage, fingers));
    anchors = Math.abs(after);
    add('keys', stage.own[chosen[i]]);
    if (after < 0) add('anchor', FINGER_COSTS.anchor);
    if (stage.fresh) return;
    const before = problem.stages[i - 1];
    const { cost, move } = between(problem, i, before.options[chosen[i - 1]], fingers);
    const same = outermost(before.keys).place === outermost(stage.keys).place;
    add(move === 'shift' ? 'shift' : move !== 'stay' ? 'crossing' : same ? 'repeat' : 'stretch', cost);
  });
  return [...costs].map(([term, cost]) => ({ term, cost }));
}

/** Another finger for a note, with what the whole phrase would cost more, and its terms. */
export interface ExplainedFinger {
  readonly finger: number;
  readonly terms: readonly FingerTerm[];
  readonly rival: { readonly finger: number; readonly more: number; readonly terms: readonly FingerTerm[] } | null;
}

/**
 * What decided for the finger of the top key of a grip in a phrase: the cost of the phrase as it is fingered, and of the best way to
 * finger it with another finger there (the cheapest one, or one that is asked about).
 */
export function explainFinger(
  grips: readonly Grip[],
  row: readonly Fingered[],
  index: number,
  task: FingeringTask,
  against?: number,
): ExplainedFinger {
  const priced = (pinned: readonly Grip[]) => {
    const problem = fingeringProblem(pinned, task);
    const solved = solveFingering(problem);
    const fingers = solved.row.map((f) => inPlace(f.fingers, task.hand).join());
    const chosen = problem.stages.map((stage, i) => stage.options.findIndex((o) => o.join() === fingers[i]));
    return { cost: costOfFingering(problem, chosen), terms: termsOfFingering(problem, chosen) };
  };
  const top = (f: Fingered) => outermost(f.fingers);
  const finger = top(row[index]);
  const now = priced(grips.map((g, i) => ({ ...g, pin: row[i].fingers })));
  const others = (against ? [against] : [1, 2, 3, 4, 5]).filter((f) => f !== finger);
  const rivals = others.map((other) => {
    const tried = priced(grips.map((g, i) => (i === index ? { ...g, pin: [other] } : g)));
    return { finger: other, more: tried.cost - now.cost, terms: tried.terms };
  });
  const [rival] = rivals.toSorted((a, b) => a.more - b.more);
  return { finger, terms: now.terms, rival: rival ?? null };
}
