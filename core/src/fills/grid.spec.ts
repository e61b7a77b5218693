import { ENGLISH } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { midiOf } from '../pitch/pitch.js';
import { handsOf } from '../song/decisions.js';
import { TEXTURES } from '../catalogue/textures/list.js';
import { barsOf, TextureSchema } from '../song/texture-data.js';
import { columnKeys, GRID_ROWS, regrid, toggleRow, withColumn } from './grid.js';
import { readTextures, writeTextures } from './exchange.js';

const valid = (steps: string) =>
  TextureSchema.safeParse({ id: 'own', title: 'Own', energy: 3, patterns: [{ meter: '4/4', steps }] }).success;

describe('the count grid', () => {
  it('sets and clears degrees in a column, the lowest first', () => {
    expect(toggleRow('-', '5')).toBe('5');
    expect(toggleRow('5', '3')).toBe('3+5');
    expect(toggleRow('3+5', '5,')).toBe('5,+3+5');
    expect(toggleRow('5,+3+5', 'p')).toBe('p+3+5');
    expect(toggleRow('3+5', 'w')).toBe('w');
    expect(toggleRow('w', '8')).toBe('8');
    expect(toggleRow('8', '8')).toBe('-');
  });

  it('writes nothing that is no texture, whatever is pressed', () => {
    const presses = fc.array(
      fc.record({
        bar: fc.integer({ min: 0, max: 1 }),
        column: fc.integer({ min: 0, max: 7 }),
        row: fc.constantFrom(...GRID_ROWS),
      }),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(presses, fc.integer({ min: 1, max: 4 }), fc.constantFrom(4, 8, 12, 16), (row, bars, columns) => {
        let steps = regrid('- - - - - - - -', 2, 8);
        for (const press of row)
          steps = withColumn(steps, press.bar, press.column, toggleRow(barsOf(steps)[press.bar][press.column], press.row));
        expect(valid(steps)).toBe(true);
        const other = regrid(steps, bars, columns);
        expect(valid(other)).toBe(true);
        expect(barsOf(other).map((b) => b.length)).toEqual(Array.from({ length: bars }, () => columns));
      }),
    );
  });

  it('keeps a pattern on a finer grid, and repeats it in more bars', () => {
    expect(regrid('1 5 8 5', 2, 8)).toBe('1 - 5 - 8 - 5 - | 1 - 5 - 8 - 5 -');
  });

  it('sounds what a column strikes', () => {
    expect(columnKeys('1+5', 'Dm7', handsOf(), { tonic: 'C', mode: 'major' })).toEqual(['D2', 'A2']);
    expect(columnKeys('c', 'Dm7', handsOf(), { tonic: 'C', mode: 'major' }).map(midiOf).length).toBe(4);
    expect(columnKeys('-', 'Dm7', handsOf(), { tonic: 'C', mode: 'major' })).toEqual([]);
  });
});

describe('a file of patterns', () => {
  it('comes back as it was written', () => {
    const textures = TEXTURES.map((t) => TextureSchema.parse(t));
    expect(readTextures(writeTextures(TEXTURES))).toEqual({ ok: true, textures });
  });

  it.each([
    ['{', 'This is not a file of patterns.'],
    ['{"format":"other"}', 'There are no patterns in this file.'],
    [writeTextures(TEXTURES).replace('"1 w"', '"1 nothing"'), /^Pattern \d+, patterns, steps, cannot be read/],
    [writeTextures(TEXTURES).replace('"energy": 1', '"energy": 9'), /^Pattern 1, energy, cannot be read/],
  ])('is refused with its place otherwise', (text, sentence) => {
    const read = readTextures(text);
    expect(read.ok ? '' : ENGLISH.fact(read.fault)).toMatch(sentence);
  });
});
