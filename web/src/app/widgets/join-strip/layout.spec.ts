import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { arrange, type Part } from '@joined-hands/core';
import { demo, documentOf, songs } from '../../../../../core/testing/songs';
import { layoutStrip } from './layout';

const layout = (part: Part, bars: Parameters<typeof layoutStrip>[1], width = 740, height = 0) =>
  layoutStrip(part, bars, width, height);

describe('the join strip', () => {
  const { parts, bars } = arrange(demo('lamps-across-the-sound.letters'));

  it('puts four bars of a slow waltz on one line, a clasp on each chord', () => {
    const lines = layout(parts[1], bars);
    expect(lines).toHaveLength(1);
    expect(lines[0].clasps.map((c) => c.count)).toEqual(['1', '1', '1', '1']);
    expect(lines[0].clasps.every((c) => c.top !== null)).toBe(true);
    expect(lines[0].stones.map((s) => s.word).slice(0, 4)).toEqual(['I', 'lean-', 'ing', 'on']);
  });

  it('draws every note and chord once, inside the width, later ones further right', () => {
    fc.assert(
      fc.property(songs(), fc.integer({ min: 480, max: 1100 }), (song, width) => {
        const arrangement = arrange(documentOf(song));
        for (const part of arrangement.parts) {
          const lines = layout(part, arrangement.bars, width);
          expect(lines.flatMap((l) => l.stones.map((s) => s.note.at))).toEqual(part.melody.map((n) => n.at));
          expect(lines.flatMap((l) => l.stacks.map((s) => s.chord.at))).toEqual(part.chords.map((c) => c.at));
          for (const line of lines) {
            const xs = line.stones.map((s) => s.x);
            expect([...xs].sort((a, b) => a - b)).toEqual(xs);
            if (line.bars.length > 1) expect(line.width).toBeLessThanOrEqual(width + 1);
            for (const s of line.stones) expect(s.y + s.r).toBeLessThan(line.wordsY);
          }
        }
      }),
      { numRuns: 40 },
    );
  });

  it('lifts words that would touch, never two in a row', () => {
    const [part] = parts;
    const long = { ...part, melody: part.melody.map((n) => ({ ...n, lyric: { text: 'lingering', joins: false } })) };
    const lifts = layout(long, bars, 480).flatMap((l) => l.stones.map((s) => s.lift > 0));
    expect(lifts).toContain(true);
    expect(lifts.some((lifted, i) => lifted && lifts[i + 1])).toBe(false);
    expect(layout(part, bars, 1400)[0].stones.every((s) => s.lift === 0)).toBe(true);
  });

  it('places a higher note higher and spreads stones over spare room', () => {
    const [line] = layout(parts[1], bars);
    const high = line.stones.find((s) => s.note.pitch === 'Eb5');
    const low = line.stones.find((s) => s.note.pitch === 'Bb4');
    expect(high && low && high.y < low.y).toBe(true);
    const [tall] = layout(parts[1], bars, 740, line.height + 100);
    expect(tall.height).toBeGreaterThan(line.height + 60);
    expect(tall.height).toBeLessThanOrEqual(line.height + 100);
  });

  it('breaks a long part into even lines', () => {
    const glass = demo('harbour-glass.abc');
    const arrangement = arrange({ ...glass, choices: { ...glass.choices, partSize: 'larger' } });
    expect(layout(arrangement.parts[0], arrangement.bars, 740).map((l) => l.bars.length)).toEqual([4, 4]);
  });

  it('shows the counts of every bar and what is said between where something is struck', () => {
    const [line] = layout(parts[1], bars);
    expect(line.counts.map((c) => c.text).join(' ')).toContain('1 2 3 1 2 3');
    expect(line.counts.filter((c) => c.kind === 'between').map((c) => c.text)).toEqual(['&']);
  });

  it('gives narrow chords their name below', () => {
    const glass = arrange(demo('harbour-glass.abc'));
    const stacks = layout(glass.parts[3], glass.bars).flatMap((l) => l.stacks);
    expect(stacks.some((s) => !s.beside)).toBe(true);
    expect(stacks.some((s) => s.beside)).toBe(true);
  });
});
