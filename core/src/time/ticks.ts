/** Ticks in one quarter note: divisible by 2^5, 3^2, 5 and 7, so that tuplets keep exact lengths. */
export const TICKS_PER_QUARTER = 10_080;

/** A length or a position in ticks, always a whole number. */
export type Ticks = number;

/** Quarter notes, as numbers, for reports and exports. */
export function toQuarters(ticks: Ticks): number {
  return ticks / TICKS_PER_QUARTER;
}

/** The greatest length that divides two lengths; the other one when one is 0. */
export function commonDivisor(a: Ticks, b: Ticks): Ticks {
  return b === 0 ? a : commonDivisor(b, a % b);
}

/** Seconds that a stretch of ticks lasts at `tempo` quarter notes a minute. */
export function toSeconds(ticks: Ticks, tempo: number): number {
  return (toQuarters(ticks) * 60) / tempo;
}
