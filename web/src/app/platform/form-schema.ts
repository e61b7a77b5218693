import * as z from 'zod';

/** A line of at most so many letters. */
export const line = (most: number) => z.string().max(most, $localize`At most ${most} letters.`);

/** The same where something must be said. `says` is what is told beside the field where it is empty. */
export const neededLine = (most: number, says: string) => line(most).regex(/\S/, says);

/** A whole number between two ends, as a field holds it: nothing at all is refused like any other. `says` is what is told beside the field. */
export const wholeNumber = (least: number, most: number, says: string) => number(least, most, says).refine(isWhole, says);

/** A number between two ends, as a field holds it. */
export const number = (least: number, most: number, says: string) =>
  z.union([z.number(), z.null()]).refine((n) => n !== null && n >= least && n <= most, says);

const isWhole = (n: number | null): boolean => n === null || Number.isInteger(n);
