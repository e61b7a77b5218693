import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { scaleToFill, spaceOut, widthAt, type Apart } from './spacing';

/** Moments of a line of 100 ticks, each a stretch from its neighbour, with what it must be apart. */
const lines = fc.uniqueArray(fc.integer({ min: 0, max: 100 }), { minLength: 2, maxLength: 9 }).chain((moments) =>
  fc
    .array(
      fc.record({ from: fc.constantFrom(...moments), to: fc.constantFrom(...moments), least: fc.integer({ min: 1, max: 60 }) }),
      {
        maxLength: 8,
      },
    )
    .map((all) => all.map((a): Apart => ({ ...a, from: Math.min(a.from, a.to), to: Math.max(a.from, a.to) }))),
);
const moments = [...Array(101).keys()];

describe('the spacing of a line', () => {
  it('is even time where nothing is too near', () => {
    const { x, width } = spaceOut(0, 100, [{ from: 20, to: 30, least: 15 }], 2);
    expect([x(0), x(20), x(30), x(100), width]).toEqual([0, 40, 60, 200, 200]);
  });

  it('leans where eighths swing: the second of two stands where it is heard', () => {
    const swung = (at: number) => (at % 20 === 10 ? at + 3 : at);
    const { x, at } = spaceOut(0, 40, [{ from: 10, to: 20, least: 1 }, { from: 30, to: 40, least: 1 }], 2, swung); // prettier-ignore
    expect([0, 10, 20, 30, 40].map(x)).toEqual([0, 26, 40, 66, 80]);
    expect(at(26)).toBe(10);
  });

  it('draws time wider between two that would touch, and the rest in even time', () => {
    const { x } = spaceOut(0, 100, [{ from: 20, to: 30, least: 50 }], 2);
    expect([x(20), x(30) - x(20), x(50) - x(30)]).toEqual([40, 50, 40]);
  });

  it('keeps everything apart, in order, and leads back from a pixel to its moment', () => {
    fc.assert(
      fc.property(lines, fc.double({ min: 0.1, max: 5, noNaN: true }), (aparts, scale) => {
        const { x, at, width } = spaceOut(0, 100, aparts, scale);
        expect(width).toBeCloseTo(x(100), 6);
        for (const { from, to, least } of aparts) if (from < to) expect(x(to) - x(from)).toBeGreaterThan(least - 1e-6);
        for (const m of moments.slice(1)) expect(x(m)).toBeGreaterThan(x(m - 1));
        for (const m of moments) expect(at(x(m))).toBeCloseTo(m, 6);
      }),
    );
  });

  it('fills a width exactly, or needs more than it has', () => {
    fc.assert(
      fc.property(lines, fc.integer({ min: 10, max: 900 }), (aparts, width) => {
        const scale = scaleToFill(0, 100, aparts, width);
        if (scale > 0) expect(widthAt(0, 100, aparts, scale)).toBeCloseTo(width, 6);
        else expect(widthAt(0, 100, aparts, 0)).toBeGreaterThanOrEqual(width - 1e-6);
      }),
    );
  });
});
