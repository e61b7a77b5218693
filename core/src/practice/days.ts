/** A calendar day, "2031-05-09". */
export type Day = string;

const MS = 86_400_000;
const numberOf = (day: Day): number => Math.round(Date.parse(`${day}T00:00:00Z`) / MS);

/** The day some days later, or earlier for a negative number. */
export function dayAfter(day: Day, days: number): Day {
  return new Date((numberOf(day) + days) * MS).toISOString().slice(0, 10);
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
