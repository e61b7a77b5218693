import { remembered } from '../lists/remembered.js';
import { spanOf, type Hands } from '../song/decisions.js';

/** Six spans of a pair of fingers in semitones, from the least to the most that a hand can do. */
export interface PairSpan {
  readonly practicalMin: number;
  readonly comfortableMin: number;
  readonly relaxedMin: number;
  readonly relaxedMax: number;
  readonly comfortableMax: number;
  readonly practicalMax: number;
}

/**
 * Semitone spans for rising right-hand pairs, mirrored for the left hand. Negative spans are those where the thumb
 * passes under. Source: Parncutt, Sloboda, Clarke, Raekallio and Desain (1997), with the refinements of Jacobs (2001).
 */
const PAIR_SPANS: Readonly<Record<string, readonly [number, number, number, number, number, number]>> = {
  '1-2': [-5, -3, 1, 5, 8, 10],
  '1-3': [-4, -2, 3, 7, 10, 12],
  '1-4': [-3, -1, 5, 9, 12, 14],
  '1-5': [-1, 1, 7, 10, 13, 15],
  '2-3': [1, 1, 1, 2, 3, 5],
  '2-4': [1, 1, 3, 4, 5, 7],
  '2-5': [2, 2, 5, 6, 8, 10],
  '3-4': [1, 1, 1, 2, 2, 4],
  '3-5': [1, 1, 3, 4, 5, 7],
  '4-5': [1, 1, 1, 2, 3, 5],
};

/** The hand that the table was measured on: comfortable and greatest span in semitones. */
const TABLE_HAND = { comfortable: 12, limit: 14 };

/** Half steps between two fingers, by how many fingers they are apart, over five neighbouring keys of a scale: every hand lies so. */
const FIVE_KEYS = [0, 2, 4, 5, 7];

/** The table for one hand: wide spans grow and shrink with it, and none is wider than the hand. */
export function spansFor(hands: Hands, hand: 'left' | 'right'): (low: number, high: number) => PairSpan {
  const { comfortable, limit } = spanOf(hands, hand);
  return tableFor(comfortable, limit);
}

const tableFor = remembered(20, (comfortable: number, limit: number) => `${comfortable} ${limit}`, layTable);

function layTable(comfortable: number, limit: number): (low: number, high: number) => PairSpan {
  const scaled = (span: number, by: number) => Math.max(1, Math.min(limit, Math.round(span * by)));
  const table: PairSpan[] = [];
  for (const [pair, [practicalMin, comfortableMin, relaxedMin, relaxed, easy, most]] of Object.entries(PAIR_SPANS)) {
    const [low, high] = pair.split('-').map(Number);
    const practicalMax = scaled(most, limit / TABLE_HAND.limit);
    const lies = Math.min(practicalMax, FIVE_KEYS[high - low]);
    const comfortableMax = Math.max(lies, Math.min(practicalMax, scaled(easy, comfortable / TABLE_HAND.comfortable)));
    const relaxedMax = Math.max(lies, Math.min(comfortableMax, scaled(relaxed, comfortable / TABLE_HAND.comfortable)));
    const least = Math.min(relaxedMin, relaxedMax);
    table[low * 6 + high] = { practicalMin, comfortableMin, relaxedMin: least, relaxedMax, comfortableMax, practicalMax };
  }
  return (low, high) => table[low * 6 + high];
}
