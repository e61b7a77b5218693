import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { songOf } from '../../testing/songs.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import type { Song } from '../song/song.js';
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
    fc.assert(
      fc.property(tunes, ({ bars, upbeat, count, steps }) => {
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
        // A long one may be cut in two, but no part runs over its end.
        const phrases = Array.from({ length: count }, (_, i) => i * bars * 3);
        expect(startsOf(song)).toEqual(expect.arrayContaining(phrases));
        expect(startsOf(song).length).toBeLessThanOrEqual(2 * count);
      }),
      { numRuns: 60 },
    );
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
});
