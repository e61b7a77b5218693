import { countingWords, heldCounts } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { countNotes } from '../join/counting.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { setSetting } from './edits.js';
import type { Song } from './song.js';
import { isSyncopated, straighten } from './rhythm.js';

const plain = (song: Song) => straighten(song.melody, { start: 0, end: song.length }, layBars(song));
const told = (song: Song) => plain(song).map((n) => [n.pitch, n.at / Q, n.length / Q]);

describe('a straightened tune', () => {
  it('keeps every note, its order and its place in the song, none moved by a whole count', () => {
    fc.assert(
      fc.property(songs(), (song) => {
        const even = plain(song);
        expect(even.map((n) => [n.pitch, n.lyric])).toEqual(song.melody.map((n) => [n.pitch, n.lyric]));
        even.forEach((n, i) => {
          expect(n.length).toBeGreaterThan(0);
          expect(Math.abs(n.at - song.melody[i].at)).toBeLessThan(song.meters[0].unit === 8 ? 1.5 * Q : Q);
          if (i > 0) expect(even[i - 1].at + even[i - 1].length).toBeLessThanOrEqual(n.at);
          expect(n.at + n.length).toBeLessThanOrEqual(song.length);
        });
      }),
    );
  });

  it('evens dots', () => {
    expect(
      told(
        songOf([
          ['C5', 1.5],
          ['D5', 0.5],
          ['E5', 0.75],
          ['F5', 0.25],
          ['G5', 1],
        ]),
      ),
    ).toEqual([
      ['C5', 0, 1],
      ['D5', 1, 1],
      ['E5', 2, 0.5],
      ['F5', 2.5, 0.5],
      ['G5', 3, 1],
    ]);
  });

  it('moves what is sung ahead of the beat onto it', () => {
    const song = songOf([
      ['C5', 1],
      ['D5', 0.5],
      ['E5', 1],
      ['F5', 0.5],
      ['G5', 0.5],
      ['A5', 1.5],
    ]);
    const bars = layBars(song);
    expect(song.melody.map((n) => isSyncopated(n, bars))).toEqual([false, false, true, false, false, true]);
    expect(told(song)).toEqual([
      ['C5', 0, 1],
      ['D5', 1, 1],
      ['E5', 2, 0.5],
      ['F5', 2.5, 0.5],
      ['G5', 3, 1],
      ['A5', 4, 1],
    ]);
  });

  it('holds for a part or the whole song, and leaves the rest as sung', () => {
    const line: [string, number][] = [
      ['C5', 1.5],
      ['D5', 0.5],
      ['E5', 2],
    ];
    const doc = { ...documentOf(songOf([...line, ...line], [[0, 'C']])) };
    const parts = [
      { start: 0, end: 4 * Q },
      { start: 4 * Q, end: 8 * Q },
    ];
    const cut = { ...doc, choices: { ...doc.choices, parts } };
    const lengths = (d: typeof doc) => arrange(d).parts.map((p) => p.melody[0].length / Q);
    expect(lengths(setSetting(cut, parts[1], 'rhythm', 'plain'))).toEqual([1.5, 1]);
    expect(lengths(setSetting(cut, null, 'rhythm', 'plain'))).toEqual([1, 1]);
    expect(lengths(setSetting(setSetting(cut, null, 'rhythm', 'plain'), parts[0], 'rhythm', 'sung'))).toEqual([1.5, 1]);
  });
});

describe('counting aloud', () => {
  const counted = (song: Song) => countNotes(song.melody, layBars(song));

  it('counts through what is held, over bar lines too, and names long holds', () => {
    const song = songOf([
      ['C5', 1],
      ['D5', 0.5],
      ['E5', 2.5],
      ['F5', 2],
      ['G5', 6],
      ['A5', 2],
    ]);
    expect(counted(song).map((c) => [c.count, heldCounts(c), c.tied])).toEqual([
      ['1', '', false],
      ['2', '', false],
      ['2 &', '3 4', false],
      ['1', '2', false],
      ['3', 'hold 6', true],
      ['1', '2', false],
    ]);
    expect(countingWords(counted(song)[2])).toBe('Played on 2 &, held over 3, 4. It comes ahead of the beat.');
    expect(countingWords(counted(song)[4])).toBe('Played on 3, held for 6, across the bar line.');
  });

  it.each([
    ['3/4 after a pick-up', { pickup: Q, meters: [{ at: 0, beats: 3, unit: 4 as const }] }, [1, 1, 1, 1], ['3', '1', '2', '3']],
    ['6/8 counts to six', { meters: [{ at: 0, beats: 6, unit: 8 as const }] }, [0.5, 1, 1.5], ['1', '2', '4']],
    ['sixteenths', {}, [0.25, 0.25, 0.25, 0.25, 3], ['1', '1 e', '1 &', '1 a', '2']],
    ['triplets', {}, [1 / 3, 1 / 3, 1 / 3, 3], ['1', '1 la', '1 li', '2']],
    ['2/2', { meters: [{ at: 0, beats: 2, unit: 2 as const }] }, [2, 1, 1], ['1', '2', '2 &']],
  ])('%s', (_, more, lengths, counts) => {
    const song = songOf(
      lengths.map((l) => ['C5', l] as const),
      [],
      more,
    );
    expect(counted(song).map((c) => c.count)).toEqual(counts);
  });
});
