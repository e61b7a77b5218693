import { THINNED_COSTS } from '../catalogue/schools/thinned.js';

/**
 * What a left-hand voicing costs, in semitones of voice motion: every other term is stated against that one.
 * The figures are starting points; the usual register, the low limits and the distance from the tune follow the
 * practice of arranging manuals.
 */
export const VOICING_COSTS = {
  /** Each semitone that a voice moves from the chord before. */
  motion: 1,
  /** Each key that stays. */
  commonTone: -0.5,
  /** Each semitone that the middle of the hand moves past a third. */
  shift: 0.5,
  /** Each semitone past the comfortable span. */
  stretch: 2,
  /** The thumb on a black key. */
  blackThumb: 0.3,
  /** Each semitone that a close interval lies below its lowest clear position. */
  muddy: 1.2,
  /** Each semitone that the middle of the chord lies outside the home register. */
  drift: 0.35,
  /** The same chord pressed again in another place. */
  moveOnRepeat: 4,
  /** Other keys than its symbol has through the song: a new thing to learn. */
  otherShape: 6,
  /** A first chord, of the song or of a named section, that is not in root position: the hand starts where the name is plain. */
  startInverted: 24,
  /** A last chord that is not in root position. */
  endInverted: 1.5,
  /** Notes left out. */
  ...THINNED_COSTS,
  /** A nearest inversion beside the shapes of another school. */
  outOfSchool: 24,
  /** A chord wider than the hand, struck low then high. */
  spread: 4,
  /** Each semitone that the bass goes against the line asked for, and a flat charge for each such step. */
  againstLine: 0.8,
  wrongWay: 5,
  /** A bass that stands still where a moving one was asked for. */
  standsStill: 1.5,
  /** The top note at or above the tune. */
  crossesTune: 120,
  /** The top note less than a third below the tune. */
  nearTune: 6,
} as const;

/** A chord's top note keeps this many semitones below the tune: a small third. */
export const CLEAR_OF_TUNE = 3;

/** Comfortable spans, in semitones, up to which a hand is small: comfort goes before motion. */
export const COMFORT_FIRST = 10;

/** The hand's place may move this many semitones before it counts as a shift. */
export const FREE_SHIFT = 4;

/** Lowest clear key of the lower note, by the interval above it in semitones. */
const LOWEST_CLEAR: Record<number, number> = {
  1: 52,
  2: 51,
  3: 48,
  4: 46,
  5: 46,
  6: 46,
  7: 34,
  8: 41,
  9: 41,
  10: 41,
  11: 41,
};

/** Semitones by which neighbouring notes lie below their lowest clear position, summed over the chord. */
export function muddiness(midis: readonly number[]): number {
  let below = 0;
  for (let i = 1; i < midis.length; i++) {
    const clear = LOWEST_CLEAR[midis[i] - midis[i - 1]];
    if (clear !== undefined) below += Math.max(0, clear - midis[i - 1]);
  }
  return below;
}

/** Half steps under the lowest clear positions that are played every day: they count, and nobody speaks of them. */
const EVERYDAY = 2;

/** True where a chord is so close and low that it is worth a word: further under the clear positions than what is played every day. */
export function isMuddy(midis: readonly number[]): boolean {
  return midis.some((m, i) => i > 0 && muddiness([midis[i - 1], m]) > EVERYDAY);
}

/** Most voices of a chord: a hand has five fingers, and two hands play no more than this together. */
const MOST_VOICES = 16;

/** One row of the table of pairings, kept from call to call. */
const row = new Int32Array(MOST_VOICES);

/** More than any pairing costs. */
const FAR = 1e6;

/**
 * The semitones that voices move from one chord to the next. Chords of equal size move voice by voice; in others a
 * voice splits in two, or two meet, the nearest way without crossing.
 */
export function motionBetween(from: readonly number[], to: readonly number[]): number {
  if (from.length === to.length) {
    let sum = 0;
    for (let i = 0; i < from.length; i++) sum += Math.abs(from[i] - to[i]);
    return sum;
  }
  if (to.length > MOST_VOICES) throw new RangeError(`A chord of ${to.length} voices; at most ${MOST_VOICES} are compared.`);
  // A table of the cheapest pairings so far, one row at a time, in place: `left` is the entry before in this row,
  // `corner` the one before in the row above.
  for (let i = 0; i < from.length; i++) {
    let corner = FAR;
    let left = FAR;
    for (let j = 0; j < to.length; j++) {
      const above = i === 0 ? FAR : row[j];
      const before = i === 0 && j === 0 ? 0 : Math.min(above, left, corner);
      corner = above;
      left = before + Math.abs(from[i] - to[j]);
      row[j] = left;
    }
  }
  return row[to.length - 1];
}

/** How many keys two chords share; both from the bottom up. */
export function commonKeys(from: readonly number[], to: readonly number[]): number {
  let shared = 0;
  for (let i = 0, j = 0; i < from.length && j < to.length;) {
    const apart = from[i] - to[j];
    if (apart === 0) shared++;
    if (apart <= 0) i++;
    if (apart >= 0) j++;
  }
  return shared;
}
