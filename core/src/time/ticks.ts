/** Ticks in one quarter note: divisible by 2^5, 3^2, 5 and 7, so that tuplets keep exact lengths. */
export const TICKS_PER_QUARTER = 10_080;

/** A length or a position in ticks, always a whole number. */
export type Ticks = number;

/** Quarter notes, as numbers, for reports and exports. */
export function toQuarters(ticks: Ticks): number {
  return ticks / TICKS_PER_QUARTER;
}

/** The nearest tick to a number of quarter notes. */
export function fromQuarters(quarters: number): Ticks {
  return Math.round(quarters * TICKS_PER_QUARTER);
}

/** Seconds that a stretch of ticks lasts at `tempo` quarter notes a minute. */
export function toSeconds(ticks: Ticks, tempo: number): number {
  return (toQuarters(ticks) * 60) / tempo;
}
