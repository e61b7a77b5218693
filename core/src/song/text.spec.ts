import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { oneLine } from './text.js';

describe('text on one line', () => {
  it('is one line of whole characters, however it came in, and stays as it is from then on', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string({ unit: 'binary' }), fc.string({ unit: 'grapheme' })),
        fc.integer({ min: 1, max: 40 }),
        (text, most) => {
          const line = oneLine(text, most);
          expect(line).not.toMatch(/[\u0000-\u001f\u007f-\u009f\u2028\u2029\ufffe\uffff]|^\s|\s$|\s\s/);
          expect(line.length).toBeLessThanOrEqual(most);
          expect(new TextDecoder().decode(new TextEncoder().encode(line))).toBe(line);
          expect(oneLine(line, most)).toBe(line);
        },
      ),
      { numRuns: 1000 },
    );
  });

  it.each([
    ['Harbour Glass', 'Harbour Glass'],
    ['  Harbour\n\tGlass ', 'Harbour Glass'],
    ['Tide\u0000\u200b', 'Tide'],
    ['half \ud83d of it', 'half of it'],
    ['Señora 港 😀', 'Señora 港 😀'],
    ['', ''],
  ])('%j becomes %j', (text, line) => {
    expect(oneLine(text)).toBe(line);
  });
});
