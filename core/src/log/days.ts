import { remembered } from '../lists/remembered.js';
/** A calendar day, "2031-05-09". */
export type Day = string;

const MS = 86_400_000;
/** Days from the first of 1970; a log asks for the same few thousand days again and again. */
const MOST_KNOWN = 20_000;

const numberOf = remembered(
  MOST_KNOWN,
  (day: Day) => day,
  (day) => Math.round(Date.parse(`${day}T00:00:00Z`) / MS),
);
const nameOf = remembered(
  MOST_KNOWN,
  (number: number) => number,
  (number): Day => new Date(number * MS).toISOString().slice(0, 10),
);

/** The day some days later, or earlier for a negative number. */
export function dayAfter(day: Day, days: number): Day {
  return nameOf(numberOf(day) + days);
}

/** Days from one day to another; negative where it lies before. */
export function daysBetween(from: Day, to: Day): number {
  return numberOf(to) - numberOf(from);
}

/** The calendar day of a moment where the pianist is. */
export function dayOf(moment: Date): Day {
  const two = (n: number) => `${n}`.padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}
