import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keysOnPlaces } from './played-in.js';

const places = [0, 100, 200, 300, 400, 500, 600, 700];

describe('keys that are played in', () => {
  it('stand on the places that they were nearest to, together where they were struck together', () => {
    const played = [
      { at: -12, until: 195, midi: 48 },
      { at: 8, until: 190, midi: 43 },
      { at: 212, until: 310, midi: 50 },
      { at: 395, until: null, midi: 52 },
    ];
    expect([...keysOnPlaces(played, places, 800)]).toEqual([
      [0, [43, 48]],
      [200, [50]],
      [300, []],
      [400, [52]],
    ]);
  });

  it('come back as they were written, however unevenly they are played', () => {
    const row = fc.uniqueArray(fc.constantFrom(...places), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(row, fc.array(fc.integer({ min: -30, max: 30 }), { minLength: 16, maxLength: 16 }), (wanted, off) => {
        const struck = [...wanted].sort((a, b) => a - b);
        const played = struck.map((at, i) => ({
          at: at + off[i],
          until: (struck[i + 1] ?? 800) - 5 + Math.min(0, off[i + 8]),
          midi: 40 + i,
        }));
        const found = keysOnPlaces(played, places, 800);
        expect([...found].filter(([, keys]) => keys.length > 0)).toEqual(struck.map((at, i) => [at, [40 + i]]));
        expect([...found.values()].filter((keys) => keys.length === 0)).toEqual([]);
      }),
    );
  });

  it('are not taken where they come after the end, or long before the start', () => {
    expect(keysOnPlaces([{ at: 790, until: 900, midi: 40 }, { at: -300, until: -200, midi: 41 }], places, 800).size).toBe(0); // prettier-ignore
  });
});
