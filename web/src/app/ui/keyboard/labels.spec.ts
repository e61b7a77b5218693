import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { labelsOver } from './labels';

const room = { from: 300, to: 1236 };
const over = (x1: number, x2: number, width: number) => ({ x1, x2, width });

describe('words over the keys', () => {
  it('stand over the middle of their own hand', () => {
    expect(labelsOver([over(500, 600, 120), over(800, 900, 200)], room)).toEqual([550, 850]);
    expect(labelsOver([], room)).toEqual([]);
  });

  it('lean away from each other where the hands lie close', () => {
    expect(labelsOver([over(500, 600, 140), over(640, 700, 200)], room)).toEqual([620 - 8 - 70, 620 + 8 + 100]);
  });

  it('keep clear of what stands at the left, of the edge, and of each other', () => {
    const bracket = fc.tuple(
      fc.integer({ min: 0, max: 1200 }),
      fc.integer({ min: 20, max: 300 }),
      fc.integer({ min: 40, max: 380 }),
    );
    fc.assert(
      fc.property(fc.array(bracket, { minLength: 1, maxLength: 2 }), (drawn) => {
        const brackets = drawn.map(([x, span, width]) => over(x, x + span, width)).toSorted((a, b) => a.x1 - b.x1);
        const ends = labelsOver(brackets, room).map((x, i) => ({
          from: x - brackets[i].width / 2,
          to: x + brackets[i].width / 2,
        }));
        expect(ends[0].from).toBeGreaterThanOrEqual(room.from);
        expect(ends[ends.length - 1].to).toBeLessThanOrEqual(room.to);
        if (ends.length > 1) expect(ends[1].from - ends[0].to).toBeGreaterThanOrEqual(16);
      }),
    );
  });
});
