import { stepsTo, type FingeringProblem, type Situation } from '../src/fingers/search.js';

/** The least that any fingering costs, found by trying every one with every way for the hand to go, one after another. */
export function leastOf(problem: FingeringProblem, i = 0, from: Situation | null = null): number {
  if (i === problem.stages.length) return 0;
  const rest = problem.stages[i].options.flatMap((_, o) =>
    stepsTo(problem, i, from, o).map((step) => step.cost + leastOf(problem, i + 1, step.to)),
  );
  return Math.min(...rest);
}
