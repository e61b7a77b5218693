import { midiOf, type Pitch } from '../pitch/pitch.js';
import type { Hands } from '../song/decisions.js';
import { gripCost, type Spans } from './costs.js';
import { keysFor } from './keys.js';
import { spansFor } from './spans.js';
import { inPlace, WAYS_TO_LAY } from './ways.js';

/**
 * Left-hand fingers for a chord of MIDI numbers, bottom-up, as chord books print them: three notes 5-3-1, with the second finger where the
 * lower gap is a fourth or more and the fourth where it is a step; four notes 5-3-2-1, or 5-4-2-1 where the lowest gap is a step, or the
 * highest as in the first inversion of a seventh; a fifth or wider 5-1; two close notes 2-1. Where the book asks two fingers for more than
 * they span, the nearest fingers that reach. Of a `spread` chord the lowest key is let go before the rest is struck.
 */
export function chordFingers(midis: readonly number[], hands: Hands, spread = false): readonly number[] {
  return reached(leftBook(midis), midis, 'left', hands, spread ? 1 : 0);
}

/** Right-hand chord fingers, bottom-up: 1-3-5, with the second finger where the upper gap is a fourth or more; 1-2-3-5 for four notes. */
export function rightFingers(midis: readonly number[], hands: Hands): readonly number[] {
  return reached(rightBook(midis), midis, 'right', hands);
}

function leftBook(midis: readonly number[]): number[] {
  const gap = midis.length > 1 ? midis[1] - midis[0] : 0;
  switch (midis.length) {
    case 1:
      return [5];
    case 2:
      return gap <= 5 ? [2, 1] : [5, 1];
    case 3:
      return [5, gap >= 5 ? 2 : gap <= 2 ? 4 : 3, 1];
    case 4:
      return [5, gap <= 2 || midis[3] - midis[2] <= 2 ? 4 : 3, 2, 1];
    default:
      return [5, 4, 3, 2, 1];
  }
}

function rightBook(midis: readonly number[]): number[] {
  switch (midis.length) {
    case 1:
      return [1];
    case 2:
      return midis[1] - midis[0] <= 5 ? [1, 3] : [1, 5];
    case 3:
      return [1, midis[2] - midis[1] >= 5 ? 2 : 3, 5];
    default:
      return [1, 2, 3, 5];
  }
}

/** Every way to lay some fingers on as many keys, bottom-up. */
const ways = (count: number, hand: 'left' | 'right'): (readonly number[])[] => WAYS_TO_LAY[count].map((w) => inPlace(w, hand));

/** Whether some fingers of a hand reach a chord of MIDI numbers, bottom-up: every two of them within their span. */
export function reachableBy(hands: Hands, hand: 'left' | 'right'): (midis: readonly number[]) => boolean {
  const spans = spansFor(hands, hand);
  return (midis) => midis.length < 2 || ways(midis.length, hand).some((f) => reaches(midis, f, spans));
}

/** True where every two of these fingers span their keys, bottom-up. */
export const reaches = (midis: readonly number[], fingers: readonly number[], spans: Spans): boolean =>
  fingers.every((f, i) =>
    fingers.slice(0, i).every((g, k) => midis[i] - midis[k] <= spans(Math.min(f, g), Math.max(f, g)).practicalMax),
  );

/** The fingers of the book where every two of them from an index on reach, else the nearest to them that do; the book's where none do. */
function reached(book: number[], midis: readonly number[], hand: 'left' | 'right', hands: Hands, from = 0): readonly number[] {
  const spans = spansFor(hands, hand);
  const reach = (fingers: readonly number[]) => reaches(midis.slice(from), fingers.slice(from), spans);
  if (book.length < 2 || book.length > 5 || reach(book)) return book;
  const off = (fingers: readonly number[]) => fingers.reduce((sum, f, i) => sum + Math.abs(f - book[i]), 0);
  const others = ways(book.length, hand).filter(reach);
  return others.reduce<readonly number[] | null>((best, o) => (best === null || off(o) < off(best) ? o : best), null) ?? book;
}

/** Fingers of a left hand that lies over five keys, by half steps from the key under the fifth finger. */
const FIVE_KEYS = [5, 4, 4, 3, 3, 2, 2, 1];

/**
 * Left-hand fingers for the two-note chords of a song, in order, MIDI numbers bottom-up. The hand has a place, the five keys that hold most
 * of them; what lies there takes the fingers over it, as C–E with 5-3; the rest is fingered by itself.
 */
export function pairFingers(pairs: readonly (readonly number[])[], hands: Hands): (readonly number[])[] {
  const inside = (low: number, pair: readonly number[]) => pair.every((m) => m >= low && m - low < FIVE_KEYS.length);
  let home = { low: 0, holds: 0 };
  for (const [low] of pairs) {
    const holds = pairs.filter((pair) => inside(low, pair)).length;
    if (holds > home.holds) home = { low, holds };
  }
  return pairs.map((pair) => {
    const fingers = inside(home.low, pair) ? pair.map((m) => FIVE_KEYS[m - home.low]) : [];
    // Two keys a half step apart lie under one finger of the five: they are fingered by themselves.
    return new Set(fingers).size === 2 ? fingers : chordFingers(pair, hands);
  });
}

/** Why a left-hand chord has its fingers, or what others that are tried would cost. */
export type ChordFingerFact =
  /** Chosen by the pianist, as chord books have it, from the place of the hand, or the nearest to the book that this hand reaches. */
  | { readonly code: 'finger.of-chord'; readonly how: 'chosen' | 'book' | 'place' | 'nearest'; readonly book: readonly number[] }
  /** How much more the hand would stretch (less than 0 for less); null where it does not reach. */
  | { readonly code: 'finger.tried'; readonly fingers: readonly number[]; readonly more: number | null };

/** What decided for the fingers of a left-hand chord, bottom-up. */
export function chordFingerFact(
  { pitches, fingers, spread }: ChordUnderHand,
  chosen: boolean,
  hands: Hands,
): ChordFingerFact & { readonly code: 'finger.of-chord' } {
  const midis = pitches.map(midiOf);
  const book = leftBook(midis);
  const same = (row: readonly number[]) => row.join() === fingers.join();
  const reached = same(chordFingers(midis, hands, spread !== 'together'));
  const how = chosen ? 'chosen' : same(book) ? 'book' : reached ? 'nearest' : 'place';
  return { code: 'finger.of-chord', how, book };
}

/** What fingers that do not reach are taken to cost beside others, where a chord has them by the pianist's choice. */
const OUT_OF_REACH = 50;

/** What other fingers for a left-hand chord would cost beside those it has, before they are chosen; of a spread one its lowest key is let go. */
export function triedFingersFact(
  { pitches, fingers, spread }: ChordUnderHand,
  tried: readonly number[],
  hands: Hands,
): ChordFingerFact & { readonly code: 'finger.tried' } {
  const meet = keysFor('left', C_MAJOR, []);
  const from = spread === 'together' ? 0 : 1;
  const keys = pitches
    .slice(from)
    .map((p) => meet(midiOf(p)))
    .reverse();
  const reach = { spans: spansFor(hands, 'left'), wide: true };
  const cost = (row: readonly number[]) => gripCost(keys, inPlace(row.slice(from), 'left'), reach);
  const [now, then] = [cost(fingers), cost(tried)];
  return { code: 'finger.tried', fingers: tried, more: then === Infinity ? null : then - Math.min(now, OUT_OF_REACH) };
}

const C_MAJOR = { tonic: 'C', mode: 'major' } as const;

/** A chord with the fingers that it has. */
interface ChordUnderHand {
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  readonly spread: 'together' | 'broken' | 'rolled';
}
