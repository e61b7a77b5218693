import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HEARING } from './figures.js';
import { latenessOf } from './claps.js';

const ASKED = Array.from({ length: 8 }, (_, i) => 3 + 0.6 * i);

describe('claps that tell how late a microphone hears', () => {
  it('tell it within the unsteadiness of a hand, whatever else began and whichever claps were not heard', () => {
    const clap = fc.record({ off: fc.double({ min: -0.025, max: 0.025, noNaN: true }), heard: fc.boolean() });
    const others = fc.array(fc.double({ min: -1, max: 2.7, noNaN: true }), { maxLength: 4 });
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.25, noNaN: true }),
        fc.array(clap, { minLength: 8, maxLength: 8 }),
        others,
        (late, claps, noise) => {
          const heard = claps.flatMap(({ off, heard }, i) => (heard ? [ASKED[i] + late + off] : []));
          const told = latenessOf(
            [...noise, ...heard].sort((a, b) => a - b),
            ASKED,
          );
          if (heard.length < HEARING.claps.fewest) expect(told).toBeNull();
          else expect(Math.abs((told ?? 9) - late)).toBeLessThanOrEqual(0.0251);
        },
      ),
    );
  });

  it('tell nothing where nobody clapped, or to another beat', () => {
    expect(latenessOf([], ASKED)).toBeNull();
    expect(
      latenessOf(
        ASKED.map((t) => t + 0.4),
        ASKED,
      ),
    ).toBeNull();
  });
});
