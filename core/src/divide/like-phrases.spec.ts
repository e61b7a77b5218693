import fc from 'fast-check';
import { expect, it } from 'vitest';
import { songOf } from '../../testing/songs.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { divide } from './divide.js';

/** Rhythms of phrases of two bars in 4/4, each with a breath at its end. */
const RHYTHMS = [
  [1, 1, 1, 1, 3],
  [0.5, 0.5, 1, 1, 1, 3],
  [1.5, 0.5, 1, 1, 1, 1],
  [0.5, 0.5, 0.5, 0.5, 1, 1, 1, 1],
  [0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 1, 1, 1],
];
const NOTES = ['C5', 'D5', 'E5', 'F5', 'G5', 'A5'];

it('cuts like phrases alike: parts of one to four bars, at most sixteen notes, each of as many whole phrases', () => {
  const phrases = fc.record({
    rhythm: fc.constantFrom(...RHYTHMS),
    count: fc.constantFrom(3, 4, 6, 8),
    pitches: fc.array(fc.constantFrom(...NOTES), { minLength: 88, maxLength: 88 }),
  });
  fc.assert(
    fc.property(phrases, ({ rhythm, count, pitches }) => {
      let k = 0;
      const length = rhythm.reduce((a, b) => a + b, 0);
      const phrase = () => [...rhythm.map((l) => [pitches[k++ % pitches.length], l] as const), [null, 8 - length] as const];
      const song = songOf(Array.from({ length: count }, phrase).flat(), [[0, 'C']]);
      const parts = divide(song, layBars(song), { partSize: 'usual', parts: [] });
      for (const { start, end } of parts) {
        expect((start / Q) % 8).toBe(0);
        expect((end - start) / (4 * Q)).toBeLessThanOrEqual(4);
        expect(song.melody.filter((n) => n.at >= start && n.at < end).length).toBeLessThanOrEqual(16);
      }
      const sizes = new Set(parts.slice(0, -1).map((p) => p.end - p.start));
      expect(sizes.size).toBeLessThanOrEqual(1);
    }),
    { numRuns: 200 },
  );
});
