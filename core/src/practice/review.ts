import { grouped } from '../lists/grouped.js';
import { dayAfter, daysBetween, type Day } from '../log/days.js';
import { ladderOf } from './ladder.js';
import { isDrill, type Pass } from '../log/log.js';

/** Days after which something clean comes back, growing each time it is clean again. */
export const REVIEW_GAPS = [1, 2, 4, 7, 14, 30, 60] as const;

/** When something practised comes back. */
export interface Review {
  readonly due: Day;
  /** How many times in a row it came back clean. */
  readonly stage: number;
  readonly last: Day;
}

/**
 * When the passes of one step bring it back: a day whose last pass was clean leads to the next longer gap, if it was due by then;
 * any other day leads to tomorrow. Null for what was never played. The passes are in order of time.
 */
export function reviewOf(passes: readonly Pick<Pass, 'day' | 'clean'>[]): Review | null {
  let review: Review | null = null;
  for (let i = 0; i < passes.length; i++) {
    const { day, clean } = passes[i];
    if (passes[i + 1]?.day === day) continue;
    const early: boolean = review !== null && daysBetween(review.due, day) < 0;
    const stage: number = !clean ? 0 : review === null ? 1 : early ? review.stage : review.stage + 1;
    // Clean before it was due: the day that was set stays, unless it would have come sooner.
    const gap = clean ? REVIEW_GAPS[Math.min(Math.max(stage, 1), REVIEW_GAPS.length) - 1] : 1;
    const due: Day = early && clean && review ? later(review.due, dayAfter(day, 1)) : dayAfter(day, gap);
    review = { due, stage, last: day };
  }
  return review;
}

const later = (a: Day, b: Day): Day => (a > b ? a : b);

/** True where something is due on a day or was before. */
export const isDue = (review: Review | null, today: Day): boolean => review !== null && review.due <= today;

/** True once the passes of one step have brought it to its goal; drills and warm-ups have none and count from the first pass on. */
function isLearned(passes: readonly Pass[]): boolean {
  const { kind, goal } = passes[0];
  return isDrill(kind) || ladderOf({ slow: goal, goal }, passes).learned;
}

/** How many learned things come back on each of the next days; what is overdue counts for today. */
export function dueAhead(passes: readonly Pass[], today: Day, days: number): { day: Day; count: number }[] {
  const steps = grouped(passes, (p) => `${p.song ?? ''} ${p.step}`);
  const counts = new Map<Day, number>();
  for (const own of steps.values()) {
    const review = isLearned(own) ? reviewOf(own) : null;
    if (!review) continue;
    const day = review.due < today ? today : review.due;
    counts.set(day, (counts.get(day) ?? 0) + 1);
  }
  return Array.from({ length: days }, (_, i) => {
    const day = dayAfter(today, i);
    return { day, count: counts.get(day) ?? 0 };
  });
}
