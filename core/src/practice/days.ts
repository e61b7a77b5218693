/** A calendar day, "2031-05-09". */
export type Day = string;

const MS = 86_400_000;
/** Days from the first of 1970; a log asks for the same few thousand days again and again. */
const numbers = new Map<Day, number>();
const names = new Map<number, Day>();
const MOST_KNOWN = 20_000;

function numberOf(day: Day): number {
  let number = numbers.get(day);
  if (number === undefined) {
    if (numbers.size >= MOST_KNOWN) numbers.clear();
    numbers.set(day, (number = Math.round(Date.parse(`${day}T00:00:00Z`) / MS)));
  }
  return number;
}

function nameOf(number: number): Day {
  let day = names.get(number);
  if (day === undefined) {
    if (names.size >= MOST_KNOWN) names.clear();
    names.set(number, (day = new Date(number * MS).toISOString().slice(0, 10)));
  }
  return day;
}

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
