import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { remembered } from './remembered.js';

describe('a function that remembers its answers', () => {
  it('answers as the plain one does, makes an answer once while it has room, and never holds more than it may', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(9), fc.nat(9))), fc.integer({ min: 1, max: 200 }), (calls, most) => {
        const made: string[] = [];
        const product = remembered(
          most,
          (a: number, b: number) => `${a} ${b}`,
          (a, b) => (made.push(`${a} ${b}`), { value: a * b }),
        );
        for (const [a, b] of calls) expect(product(a, b).value).toBe(a * b);
        const different = new Set(calls.map((c) => c.join(' '))).size;
        if (different <= most) expect(made).toHaveLength(different);
        expect(new Set(made).size).toBe(different);
      }),
    );
  });
});
