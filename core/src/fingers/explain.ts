import { BREATH, LONG } from './costs.js';
import type { ChordFingerFact } from './chords.js';
import type { FingerTurn } from './pattern.js';
import {
  fingeringProblem,
  solveFingering,
  type Fingered,
  type FingeringProblem,
  type FingeringTask,
  type FingerStep,
  type FingerTermName,
  type Grip,
} from './search.js';

/** One kind of charge of a fingering. */
export interface FingerTerm {
  readonly term: FingerTermName;
  readonly cost: number;
}

const TERMS: readonly FingerTermName[] = ['keys', 'stretch', 'crossing', 'shift', 'repeat', 'learned'];

/** Another finger for a note: what the whole phrase would cost more, how often the hand would go to another place more, and its terms. */
export interface RivalFinger {
  readonly finger: number;
  readonly more: number;
  readonly moves: number;
  readonly terms: readonly FingerTerm[];
}

/** Why a note has its finger: the cost of its phrase by kind, and the cheapest other finger; null where there is none. */
export interface ExplainedFinger {
  readonly finger: number;
  readonly terms: readonly FingerTerm[];
  readonly rival: RivalFinger | null;
}

/** How the hand came to a note and what it does from there on, or what speaks against another finger. */
export type FingerFact =
  | FingerTurn
  | ChordFingerFact
  /** The fingers of a pattern, attack by attack, bottom-up. */
  | { readonly code: 'finger.pattern'; readonly attacks: readonly (readonly number[])[] }
  /** Alone the melody has another finger here: what is played with it takes this one. */
  | { readonly code: 'finger.yields'; readonly alone: number }
  /** The pianist chose it. */
  | { readonly code: 'finger.chosen' }
  /** The phrase begins, and the hand plays so many notes before it moves; all of it where `whole`. */
  | { readonly code: 'finger.begins'; readonly notes: number; readonly whole: boolean }
  | { readonly code: 'finger.stays'; readonly finger: number }
  /** The thumb passes under or a finger over it, and the hand plays so many notes there. */
  | { readonly code: 'finger.crosses'; readonly move: 'under' | 'over'; readonly finger: number; readonly notes: number }
  /** The hand goes to another place, and what makes that easy. */
  | { readonly code: 'finger.moves'; readonly when: 'breath' | 'long' | 'again' | 'needed'; readonly notes: number }
  /** What decides against another finger: more moves, a crossing, a stretch, a black key, quick repetition; `even` where nothing does. */
  | {
      readonly code: 'finger.instead';
      readonly finger: number;
      readonly because: 'move' | 'crossing' | 'stretch' | 'black' | 'again' | 'learned' | 'even';
      readonly moves: number;
    };

/** What decided for a finger, and what each of the others would cost more, the cheapest first. */
export interface FingerReasons {
  readonly finger: number;
  readonly facts: readonly FingerFact[];
  readonly others: readonly { readonly more: number; readonly fact: FingerFact & { readonly code: 'finger.instead' } }[];
}

const topOf = ({ fingers }: Fingered, hand: 'left' | 'right'): number =>
  hand === 'right' ? fingers[fingers.length - 1] : fingers[0];

interface Priced {
  readonly problem: FingeringProblem;
  readonly cost: number;
  readonly steps: readonly FingerStep[];
}

function priced(grips: readonly Grip[], task: FingeringTask): Priced {
  const problem = fingeringProblem(grips, task);
  return { problem, ...solveFingering(problem) };
}

const termsOf = ({ steps }: Priced): FingerTerm[] =>
  TERMS.map((term) => ({ term, cost: steps.reduce((sum, s) => sum + s.costs[term], 0) })).filter(({ cost }) => cost !== 0);

const movesIn = ({ steps }: Priced): number => steps.filter((s) => s.move !== 'stay').length;

/** Every other finger for the outermost key of a grip in a phrase, the cheapest first, beside the phrase as it is fingered. */
function rivalsAt(grips: readonly Grip[], row: readonly Fingered[], index: number, task: FingeringTask) {
  const finger = topOf(row[index], task.hand);
  const now = priced(
    grips.map((g, i) => ({ ...g, pin: row[i].fingers })),
    task,
  );
  // Under a finger on the outermost key there must be one for each of the others.
  const rivals = [1, 2, 3, 4, 5]
    .filter((f) => f !== finger && f >= grips[index].pitches.length)
    .map((other): RivalFinger => {
      const tried = priced(
        grips.map((g, i) => (i === index ? { ...g, pin: [other] } : g)),
        task,
      );
      return { finger: other, more: tried.cost - now.cost, moves: movesIn(tried) - movesIn(now), terms: termsOf(tried) };
    });
  return { finger, now, rivals: rivals.toSorted((a, b) => a.more - b.more) };
}

/** What decided for the finger of the outermost key of a grip in a phrase, term by term. */
export function explainFinger(
  grips: readonly Grip[],
  row: readonly Fingered[],
  index: number,
  task: FingeringTask,
): ExplainedFinger {
  const { finger, now, rivals } = rivalsAt(grips, row, index, task);
  return { finger, terms: termsOf(now), rival: rivals[0] ?? null };
}

/** The same as facts: how the hand came here, and what speaks against each other finger. */
export function fingerReasons(
  grips: readonly Grip[],
  row: readonly Fingered[],
  index: number,
  task: FingeringTask,
): FingerReasons {
  const { finger, now, rivals } = rivalsAt(grips, row, index, task);
  const before = new Map(termsOf(now).map(({ term, cost }) => [term, cost]));
  return {
    finger,
    facts: [...own(grips[index], finger), cameHere(now, index, finger)],
    others: rivals.map((rival) => ({ more: rival.more, fact: againstIt(rival, before) })),
  };
}

/** What a finger owes to the pianist's choice, or to what is struck with the melody. */
function own({ pin, learned }: Grip, finger: number): FingerFact[] {
  if (pin) return [{ code: 'finger.chosen' }];
  return learned && learned !== finger ? [{ code: 'finger.yields', alone: learned }] : [];
}

/** How the hand came to a note. */
function cameHere({ steps, problem }: Priced, index: number, finger: number): FingerFact {
  let end = index + 1;
  while (end < steps.length && steps[end].move === 'stay') end++;
  const notes = end - index;
  const { move } = steps[index];
  if (move === 'fresh') return { code: 'finger.begins', notes, whole: end === steps.length };
  if (move === 'stay') return { code: 'finger.stays', finger };
  if (move !== 'shift') {
    const [passed] = problem.stages[index - 1].options[steps[index - 1].to.option];
    return { code: 'finger.crosses', move, finger: move === 'under' ? passed : finger, notes };
  }
  const { pace, keys } = problem.stages[index];
  const again = problem.stages[index - 1].keys[0].place === keys[0].place;
  const when = pace.rest >= BREATH ? 'breath' : pace.apart >= LONG ? 'long' : again ? 'again' : 'needed';
  return { code: 'finger.moves', when, notes };
}

/** What a finger may cost more and still do as well. */
const EVEN = 0.15;

const BECAUSE = {
  keys: 'black',
  stretch: 'stretch',
  crossing: 'crossing',
  shift: 'move',
  repeat: 'again',
  learned: 'learned',
} as const satisfies Record<FingerTermName, string>;

/** What decides against another finger: the kind of charge by which its phrase costs most more. */
function againstIt(
  { finger, more, moves, terms }: RivalFinger,
  before: ReadonlyMap<FingerTermName, number>,
): FingerFact & { readonly code: 'finger.instead' } {
  const dearer = terms.map(({ term, cost }) => ({ term, by: cost - (before.get(term) ?? 0) })).toSorted((a, b) => b.by - a.by);
  const [most] = dearer;
  const because = more < EVEN || dearer.length === 0 ? 'even' : BECAUSE[most.term];
  return { code: 'finger.instead', finger, because, moves: Math.max(0, moves) };
}
