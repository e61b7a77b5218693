import fc from 'fast-check';
import { keysOf, scaleOf, type Key } from '../src/harmony/key.js';
import { pitchAt, pitchClass, type Pitch } from '../src/pitch/pitch.js';
import { HAND_PROFILES } from '../src/song/decisions.js';
import type { Grip } from '../src/fingers/search.js';
import { TICKS_PER_QUARTER } from '../src/time/ticks.js';

/** Every key of both modes. */
export const ALL_KEYS: readonly Key[] = [...keysOf('major'), ...keysOf('minor')];

export const HANDS = ['left', 'right'] as const;

/** The keys of a scale upwards, `count` of them from the first degree-th key (0 for the tonic) at or above a MIDI number. */
export function scaleFrom(key: Key, low: number, degree: number, count: number): Pitch[] {
  const names = scaleOf(key);
  let last = low - 1;
  const up = (name: string) => {
    last += ((pitchClass(name) - last - 1 + 120) % 12) + 1;
    return pitchAt(name, last);
  };
  return Array.from({ length: degree + count }, (_, k) => up(names[k % 7])).slice(degree);
}

/** A line of even notes; several keys of one moment stand together, "C4+E4". */
export const evenly = (words: readonly string[], quarters = 0.5): Grip[] =>
  words.map((word, i) => {
    const length = Math.round(quarters * TICKS_PER_QUARTER);
    return { at: i * length, length, pitches: word.split('+') };
  });

/** Where a hand usually plays, as the MIDI number of its lowest key here. */
export const lowOf = (hand: 'left' | 'right'): number => (hand === 'right' ? 60 : 41);

/** A key, a hand, its size and a speed. */
export const anySetting = fc.record({
  key: fc.constantFrom(...ALL_KEYS),
  hand: fc.constantFrom(...HANDS),
  profile: fc.constantFrom(...HAND_PROFILES),
  tempo: fc.integer({ min: 50, max: 132 }),
});

/** Steps of a tune over some keys, from 0, in which the two outer ones come. */
export const tuneOver = (keys: number, notes: number): fc.Arbitrary<number[]> =>
  fc
    .array(fc.integer({ min: 0, max: keys - 1 }), { minLength: notes, maxLength: notes })
    .map((steps) => steps.map((s, i) => (i === 0 ? 0 : i === notes - 1 ? keys - 1 : s)))
    .chain((steps) => fc.shuffledSubarray(steps, { minLength: notes, maxLength: notes }));
