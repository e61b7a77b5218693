import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { arrange, type Part } from '@joined-hands/core/arrange';
import { staffStep } from '@joined-hands/core/pitch';
import { demo, documentOf, songs } from '../../../../../core/testing/songs';
import { fitStrip, layoutStrip } from './fit';

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
            line.stones.slice(1).forEach((s, i) => expect(s.x - s.r).toBeGreaterThan(line.stones[i].x + line.stones[i].r));
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

  it('shows a rise as a rise in however little height, and draws together as far as it must', () => {
    const [usual] = layout(parts[1], bars);
    const [low] = layout(parts[1], bars, 740, usual.height - 30);
    expect(low.height).toBeLessThanOrEqual(usual.height - 30);
    fc.assert(
      fc.property(songs(), fc.integer({ min: 480, max: 1100 }), fc.integer({ min: 200, max: 700 }), (song, width, height) => {
        const { parts: all, bars: along } = arrange(documentOf(song));
        for (const { stones } of all.flatMap((part) => layout(part, along, width, height)))
          for (const s of stones)
            for (const other of stones) {
              const rise = staffStep(other.note.pitch) - staffStep(s.note.pitch);
              if (rise > 0) expect(s.y - other.y).toBeGreaterThan(rise * 3);
            }
      }),
      { numRuns: 30 },
    );
  });

  it('keeps words clear of the stones over them and of what these hold', () => {
    const word = { text: 'lingering', joins: false };
    for (const part of parts) {
      const held = { length: 1, pitches: ['G3', 'E4'], fingers: [null, null] };
      const under = part.melody.map(({ at, pitch }) => ({ ...held, at, tune: pitch }));
      const crowded = { ...part, under, melody: part.melody.map((n) => ({ ...n, lyric: word })) };
      for (const line of layout(crowded, bars, 480, 300))
        for (const s of line.stones) expect(line.wordsY - s.lift - 12).toBeGreaterThanOrEqual(s.y + s.r + 2 * 17);
    }
  });

  it('breaks a long part into even lines', () => {
    const glass = demo('harbour-glass.abc');
    const arrangement = arrange({ ...glass, choices: { ...glass.choices, partSize: 'larger' } });
    expect(layout(arrangement.parts[0], arrangement.bars, 740).map((l) => l.bars.length)).toEqual([4, 4]);
  });

  it('leaves room for long chord names beside or below their stacks, and for every count', () => {
    // Pixels that the names take up in the page, by their wide letters too.
    const names = [
      { long: 'Ab7sus4/Gb', beside: 100, below: 80 },
      { long: 'Gm7', beside: 40, below: 32 },
      { long: 'Dmaj7', beside: 54, below: 43 },
    ];
    for (const { long, ...wide } of names)
      for (const part of parts)
        for (let width = 420; width < 1200; width += 60) {
          const named = { ...part, chords: part.chords.map((c) => ({ ...c, symbol: long })) };
          for (const line of layout(named, bars, width)) {
            line.stacks.forEach((s, i) => {
              const next = line.stacks[i + 1]?.x ?? line.width + 20;
              if (s.stands !== 'below') expect(s.x + 45 + wide.beside).toBeLessThanOrEqual(next - 20);
              else if (i > 0) expect(s.x - line.stacks[i - 1].x).toBeGreaterThanOrEqual(wide.below);
            });
            const clasps = new Set(line.clasps.map((c) => c.at));
            line.counts.slice(1).forEach((count, i) => {
              const before = line.counts[i];
              const clasped = [count, before].filter((c) => clasps.has(c.at)).length;
              expect(count.x - before.x).toBeGreaterThan(16 + clasped * 10);
            });
          }
        }
  });

  it('is drawn as large as its room allows, never past it, and never smaller than it is', () => {
    const { parts: larger, bars: all } = arrange(demo('harbour-glass.abc'));
    for (const part of [...parts, ...larger])
      for (const [width, height] of [
        [640, 330],
        [1000, 500],
        [1400, 700],
      ]) {
        const along = parts.includes(part) ? bars : all;
        const { lines, zoom } = fitStrip(part, along, { width, height }, { most: 1.4 });
        const high = lines.reduce((sum, l) => sum + l.height, 0) * zoom;
        expect(zoom).toBeGreaterThanOrEqual(1);
        expect(zoom).toBeLessThanOrEqual(1.4);
        if (zoom > 1) expect(high).toBeLessThanOrEqual(height);
        for (const line of lines) expect(line.width * zoom).toBeLessThanOrEqual(width + 1);
        const whole = (all: typeof lines) => all.flatMap((l) => l.stacks).filter((s) => s.stands === 'whole').length;
        expect(whole(lines)).toBeGreaterThanOrEqual(whole(fitStrip(part, along, { width, height }).lines));
      }
    expect(fitStrip(parts[0], bars, { width: 1400, height: 700 }, { most: 1.4 }).zoom).toBe(1.4);
  });

  it('is drawn smaller only where not even a line has the height, and no smaller than is allowed', () => {
    for (const part of parts) {
      const own = fitStrip(part, bars, { width: 700, height: 600 }, { least: 0.6 });
      expect(own.zoom).toBe(1);
      const low = fitStrip(part, bars, { width: 700, height: 240 }, { least: 0.6 });
      expect(low.zoom).toBeGreaterThanOrEqual(0.6 - 1e-9);
      expect(low.zoom).toBeLessThan(1);
      for (const line of low.lines) {
        expect(line.width * low.zoom).toBeLessThanOrEqual(701);
        if (low.zoom > 0.65) expect(line.height * low.zoom).toBeLessThanOrEqual(240);
      }
      expect(fitStrip(part, bars, { width: 700, height: 240 }).zoom).toBe(1);
    }
  });

  it('keeps a pick-up as wide as its word', () => {
    const [line] = layout(parts[0], bars, 480);
    expect(line.bars[0].number).toBeLessThan(1);
    expect(line.bars[1].x - line.bars[0].x).toBeGreaterThanOrEqual(60);
  });

  it('shows the counts of every bar and what is said between where something is struck', () => {
    const [line] = layout(parts[1], bars);
    expect(line.counts.map((c) => c.text).join(' ')).toBe('3 1 2 3 1 2 & 3 1 2 3 1 2');
    expect(line.counts.filter((c) => c.kind === 'between').map((c) => c.text)).toEqual(['&']);
  });

  it('gives narrow chords their name below', () => {
    const glass = arrange(demo('harbour-glass.abc'));
    const stacks = layout(glass.parts[3], glass.bars).flatMap((l) => l.stacks);
    expect(new Set(stacks.map((s) => s.stands))).toEqual(new Set(['whole', 'below']));
  });

  it('leaves the position out before the name has to go below', () => {
    const stands = (width: number) => layout(parts[1], bars, width)[0].stacks.map((s) => s.stands);
    expect(stands(1000).at(-1)).toBe('whole');
    expect(stands(690).at(-1)).toBe('alone');
  });
});
