import type { Pass } from '../log/log.js';
import type { PracticeStep } from '../log/step.js';

/** Clean passes in a row that lead up a rung, rough ones in a row that lead down, and about how far apart rungs are. */
export const LADDER = { clean: 3, rough: 3, rung: 0.1 } as const;

/** Where a step stands on its ladder. */
export interface LadderPlace {
  /** Tempi in quarter notes a minute, from the slow start in even steps to the goal. */
  readonly rungs: readonly number[];
  /** Index of the rung to play now. */
  readonly rung: number;
  /** Clean passes on it so far. */
  readonly clean: number;
  /** True once the goal was played clean often enough. */
  readonly learned: boolean;
}

/** The rungs of a step: even steps of about a tenth of the goal. */
export function rungsOf({ slow, goal }: Pick<PracticeStep, 'slow' | 'goal'>): number[] {
  const steps = Math.max(1, Math.round((goal - slow) / (goal * LADDER.rung)));
  return Array.from({ length: steps + 1 }, (_, i) => Math.round(slow + (i * (goal - slow)) / steps));
}

/**
 * The rung that the passes of a step have led to. A clean pass above the rung counts for the highest rung it reaches; one below it
 * counts for nothing; rough passes in a row lead one rung down, never below the start.
 */
export function ladderOf(
  step: Pick<PracticeStep, 'slow' | 'goal'>,
  passes: readonly Pick<Pass, 'tempo' | 'clean'>[],
): LadderPlace {
  const rungs = rungsOf(step);
  let [rung, clean, rough, learned] = [0, 0, 0, false];
  for (const pass of passes) {
    const reached = rungs.findLastIndex((tempo) => pass.tempo >= tempo - 0.5);
    if (reached < rung) continue;
    if (!pass.clean) {
      clean = 0;
      rough++;
      if (rough >= LADDER.rough) [rung, rough] = [Math.max(0, rung - 1), 0];
      continue;
    }
    clean = reached > rung ? 1 : clean + 1;
    [rung, rough] = [reached, 0];
    if (clean < LADDER.clean) continue;
    if (rung === rungs.length - 1) learned = true;
    else [rung, clean] = [rung + 1, 0];
  }
  return { rungs, rung, clean: Math.min(clean, LADDER.clean), learned };
}
