import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { songOf } from '../../testing/songs.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import type { Song } from '../song/song.js';
import { findBoundaries } from './boundaries.js';
import { divide } from './divide.js';

const NOTES = ['C5', 'D5', 'E5', 'F5', 'G5', 'A5'];
const startsOf = (song: Song) => divide(song, layBars(song), { partSize: 'usual', parts: [] }).map((p) => p.start / Q);

describe('phrases that are not four bars long', () => {
  const tunes = fc.record({
    bars: fc.constantFrom(3, 5),
    upbeat: fc.constantFrom(0, 1),
    count: fc.constantFrom(3, 4),
    steps: fc.array(fc.constantFrom(-2, -1, 1, 2), { minLength: 70, maxLength: 70 }),
  });

  it('are parts as they are sung: three or five bars in 3/4, each closed by a long note, with an upbeat or without', () => {
    let kept = 0;
    let all = 0;
    // Tunes by chance: now and then one repeats itself in the middle of a phrase, and is cut there with reason.
    for (const { bars, upbeat, count, steps } of fc.sample(tunes, { numRuns: 200, seed: 1127 })) {
      let k = 0;
      let at = 2;
      const note = (quarters: number) => {
        at = (at + steps[k++] + NOTES.length) % NOTES.length;
        return [NOTES[at], quarters] as const;
      };
      const phrase = () => [
        ...(upbeat ? [note(1)] : []),
        ...Array.from({ length: bars - 1 }, () => [note(1), note(1), note(1)]).flat(),
        note(3 - upbeat),
      ];
      const notes = Array.from({ length: count }, phrase).flat();
      const song = songOf(notes, [[0, 'C']], { pickup: upbeat * Q, meters: [{ at: 0, beats: 3, unit: 4 }] });
      const starts = startsOf(song);
      // A long one may be cut in two, but no part runs over its end.
      kept += Array.from({ length: count }, (_, i) => i * bars * 3).filter((start) => starts.includes(start)).length;
      all += count;
      expect(starts.length).toBeLessThanOrEqual(2 * count);
    }
    expect(kept / all).toBeGreaterThanOrEqual(0.98);
  });

  it('keep their own upbeats: one line leads in after a rest, the next does not', () => {
    // Lines of four bars in 4/4; the second and the fourth begin a beat early.
    const line = (early: boolean, next: boolean): [string | null, number][] => [
      ...(early ? [['G4', 1] as [string, number]] : []),
      ...['C5 D5 E5 C5', 'D5 E5 F5 D5', 'E5 F5 G5 E5'].flatMap((bar) => bar.split(' ').map((p): [string, number] => [p, 1])),
      ['C5', next ? 2 : 4],
      ...(next ? [[null, 1] as [null, number]] : []),
    ];
    const song = songOf([...line(false, true), ...line(true, false), ...line(false, true), ...line(true, false)], [[0, 'C']]);
    expect(startsOf(song)).toEqual([0, 15, 32, 47]);
  });

  describe('with upbeats that differ from line to line, and nothing but one sign where a line ends', () => {
    const STEPS = ['G4', 'A4', 'B4', ...NOTES];
    const tunes = fc.record({
      upbeats: fc.array(fc.constantFrom([], [0.5], [1], [1, 0.5]), { minLength: 4, maxLength: 4 }),
      steps: fc.array(fc.constantFrom(-2, -1, 1, 2), { minLength: 90, maxLength: 90 }),
      beats: fc.constantFrom(3, 4),
      halved: fc.array(fc.nat(8), { minLength: 90, maxLength: 90 }),
    });
    const sum = (row: readonly number[]) => row.reduce((a, b) => a + b, 0);

    /** The share of lines that are parts, and how many parts begin elsewhere: lines of four bars whose last note is long or like the rest. */
    const found = (sign: 'long' | 'verse' | 'line-end') => {
      let [kept, lines, elsewhere] = [0, 0, 0];
      for (const { upbeats, steps, beats, halved } of fc.sample(tunes, { numRuns: 150, seed: 1201 })) {
        let step = 3;
        let k = 0;
        const note = (quarters: number): [string, number] => {
          step = Math.max(0, Math.min(STEPS.length - 1, step + steps[k++ % steps.length]));
          return [STEPS[step], quarters];
        };
        const rows = upbeats.map((upbeat, i) => {
          const left = beats - sum(upbeats[i + 1] ?? upbeats[0]);
          const even = [...Array.from({ length: Math.ceil(left) - 1 }, () => 1), left - Math.ceil(left) + 1];
          const inner = Array.from({ length: 3 * beats }, () => (halved[k++ % halved.length] === 0 ? [0.5, 0.5] : [1])).flat();
          return [...upbeat, ...inner, ...(sign === 'long' ? [left] : even)];
        });
        const starts = rows.map((_, i) => sum(rows.slice(0, i).flat()));
        const plain = songOf(rows.flat().map(note), [[0, 'C']], {
          pickup: sum(upbeats[0]) * Q,
          meters: [{ at: 0, beats, unit: 4 }],
        });
        const word = (at: number) => {
          const opens = starts.some((s) => s * Q === at);
          return { text: opens ? 'Row' : 'on', joins: false };
        };
        const lineEnds = starts.slice(1).map((s, i) => (s + sum(upbeats[i + 1])) * Q);
        const song: Song = {
          ...plain,
          melody: plain.melody.map((n) => (sign === 'long' ? n : { ...n, lyric: word(n.at) })),
          // Lines of writing end on bar lines, wherever the next one is sung from.
          marks: sign === 'line-end' ? lineEnds.map((at) => ({ at, kind: 'line-end' as const, text: null })) : [],
        };
        const got = startsOf(song);
        kept += starts.filter((s) => got.includes(s)).length;
        lines += starts.length;
        elsewhere += got.filter((s) => !starts.includes(s)).length;
      }
      return { kept: kept / lines, elsewhere: elsewhere / lines };
    };

    it.each([
      ['a longer note', 'long', 0.97],
      ['a capital at the head of a line of verse', 'verse', 0.9],
      ['a line of writing that ends on the bar line', 'line-end', 0.99],
    ] as const)('%s is enough', (_, sign, share) => {
      const { kept, elsewhere } = found(sign);
      expect(kept).toBeGreaterThanOrEqual(share);
      expect(elsewhere).toBeLessThanOrEqual(2 * (1 - share));
    });
  });

  it('are not run over to reach four bars: two short lines and a long one', () => {
    const song = songOf(
      [
        ...['C5', 'D5', 'E5', 'F5', 'G5', 'E5'].map((p): [string, number] => [p, 1]),
        ['C5', 6],
        ...['D5', 'E5', 'F5', 'G5', 'A5', 'F5'].map((p): [string, number] => [p, 1]),
        ['D5', 6],
        ...['E5', 'G5', 'E5', 'G5', 'F5', 'D5', 'F5', 'D5', 'E5', 'C5', 'D5', 'B4'].map((p): [string, number] => [p, 1]),
        ['C5', 8],
      ],
      [[0, 'C']],
    );
    for (const at of startsOf(song)) expect([0, 12, 24, 36]).toContain(at);
    expect(startsOf(song)).toContain(24);
  });

  it('end where the chords that stand come home', () => {
    // Even quarters that tell nothing: home is reached in the sixth bar of twelve.
    const bars = 'C5 E5 D5 F5 | E5 G5 F5 D5 | F5 D5 E5 G5 | D5 F5 G5 E5 | G5 E5 F5 D5 | E5 F5 D5 C5 |';
    const notes = `${bars} ${bars.replaceAll('E5', 'A5')}`
      .split(/[ |]+/)
      .filter(Boolean)
      .map((p): [string, number] => [p, 1]);
    const chords = ['F', 'Am', 'F', 'Dm', 'G7', 'C', 'F', 'Am', 'F', 'Dm', 'G7', 'C'].map((c, i): [number, string] => [4 * i, c]);
    const at = 24 * Q;
    const signs = (song: Song) =>
      findBoundaries(song, layBars(song))
        .find((b) => b.at === at)
        ?.terms.map((t) => t.term);
    expect(signs(songOf(notes, chords))).toContain('cadence');
    expect(signs(songOf(notes, [[0, 'F']]))).not.toContain('cadence');
  });

  it('have an instrument’s tail that is not taken for a sung syllable', () => {
    const sung = ['Row', 'the', 'boat', 'out'].map((text) => ({ text, joins: false }));
    const notes = ['C5', 'D5', 'E5', 'C5', 'G5', 'A5', 'G5', 'E5', 'F5', 'D5', 'E5', 'C5'].map((p): [string, number] => [p, 1]);
    const song = songOf(notes, [[0, 'C']]);
    const melody = song.melody.map((n, i) => ({ ...n, lyric: sung[i] ?? null }));
    const torn = (lyrics: typeof melody) =>
      findBoundaries({ ...song, melody: lyrics }, layBars(song))
        .find((b) => b.at === 4 * Q)
        ?.terms.some((t) => t.term === 'insideWord');
    expect(torn(melody)).toBe(false);
    // With words to come the same notes are one long syllable.
    const sungOn = melody.map((n, i) => (i === 8 ? { ...n, lyric: { text: 'home', joins: false } } : n));
    expect(torn(sungOn)).toBe(true);
    // What ends the syllable ends the phrase behind its last note.
    const stopped = sungOn.map((n, i) => (i === 3 ? { ...n, lyric: { text: 'out.', joins: false } } : n));
    const signs = findBoundaries({ ...song, melody: stopped }, layBars(song)).find((b) => b.at === 8 * Q)?.terms;
    expect(signs?.map((t) => t.term)).toContain('sentenceEnd');
  });
});
