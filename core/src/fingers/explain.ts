import {
  fingeringProblem,
  solveFingering,
  type Fingered,
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

/** What a fingering is charged for, by kind; the sum is its cost. */
export function termsOfSteps(steps: readonly FingerStep[]): FingerTerm[] {
  const costs = new Map<FingerTermName, number>();
  for (const [term, cost] of steps.flatMap((s) => s.costs)) if (cost !== 0) costs.set(term, (costs.get(term) ?? 0) + cost);
  return [...costs].map(([term, cost]) => ({ term, cost }));
}

/** Another finger for a note: what the whole phrase would cost more, how often the hand would go to another place more, and its terms. */
export interface RivalFinger {
  readonly finger: number;
  readonly more: number;
  readonly moves: number;
  readonly terms: readonly FingerTerm[];
}

/** Why a note has its finger. */
export interface ExplainedFinger {
  readonly finger: number;
  readonly terms: readonly FingerTerm[];
  /** The cheapest other finger, or the one that was asked about; null where there is none. */
  readonly rival: RivalFinger | null;
}

const topOf = ({ fingers }: Fingered, hand: 'left' | 'right'): number =>
  hand === 'right' ? fingers[fingers.length - 1] : fingers[0];

/** Every other finger for the outermost key of a grip in a phrase, the cheapest first, with the price of the phrase as it stands. */
export function rivalFingers(
  grips: readonly Grip[],
  row: readonly Fingered[],
  index: number,
  task: FingeringTask,
): { readonly finger: number; readonly terms: readonly FingerTerm[]; readonly rivals: readonly RivalFinger[] } {
  const priced = (pinned: readonly Grip[]) => solveFingering(fingeringProblem(pinned, task));
  const moves = (steps: readonly FingerStep[]) => steps.filter((s) => s.move !== 'stay').length;
  const finger = topOf(row[index], task.hand);
  const now = priced(grips.map((g, i) => ({ ...g, pin: row[i].fingers })));
  const rivals = [1, 2, 3, 4, 5]
    .filter((f) => f !== finger)
    .map((other): RivalFinger => {
      const tried = priced(grips.map((g, i) => (i === index ? { ...g, pin: [other] } : g)));
      return {
        finger: other,
        more: tried.cost - now.cost,
        moves: moves(tried.steps) - moves(now.steps),
        terms: termsOfSteps(tried.steps),
      };
    });
  return { finger, terms: termsOfSteps(now.steps), rivals: rivals.toSorted((a, b) => a.more - b.more) };
}

/**
 * What decided for the finger of the outermost key of a grip in a phrase: the cost of the phrase as it is fingered, and of the best
 * way to finger it with another finger there (the cheapest one, or one that is asked about).
 */
export function explainFinger(
  grips: readonly Grip[],
  row: readonly Fingered[],
  index: number,
  task: FingeringTask,
  against?: number,
): ExplainedFinger {
  const { finger, terms, rivals } = rivalFingers(grips, row, index, task);
  return { finger, terms, rival: rivals.find((r) => against === undefined || r.finger === against) ?? null };
}
