import { countTicks, type Meter } from './meter.js';
import type { Ticks } from './ticks.js';

/** What is said between two counts, by the fraction of a count: halves, quarters, thirds. */
const BETWEEN: readonly (readonly [numerator: number, denominator: number, word: string])[] = [
  [1, 2, '&'],
  [1, 4, 'e'],
  [3, 4, 'a'],
  [1, 3, 'la'],
  [2, 3, 'li'],
];

/** One place on the count grid: the count it belongs to and what is said there. */
export interface Count {
  /** The count in the bar, from 1. */
  readonly beat: number;
  /** "" on the count itself, "&", "e", "a", "la" or "li" between counts, "·" where nothing is said. */
  readonly between: string;
}

/** The count at an offset from the start of a full bar, in ticks. A count is the unit of the meter, so 6/8 counts to six. */
export function countAt(offset: Ticks, meter: Meter): Count {
  const unit = countTicks(meter);
  const beat = Math.floor(offset / unit);
  const rest = offset - beat * unit;
  if (rest === 0) return { beat: beat + 1, between: '' };
  const said = BETWEEN.find(([n, d]) => rest * d === n * unit);
  return { beat: beat + 1, between: said ? said[2] : '·' };
}

/** A count as it is written: "2", "2 &", "3 e". */
export function countText(count: Count): string {
  return count.between ? `${count.beat} ${count.between}` : `${count.beat}`;
}
