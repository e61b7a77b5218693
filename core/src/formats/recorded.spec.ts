import { ENGLISH, refusalWords } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { readRecording, type Reading } from './index.js';

const four = { beats: 4, unit: 4 };
const played = (notes: readonly (readonly [at: number, length: number, midi: number])[], meter = four) =>
  readRecording({
    title: 'Played in',
    tempo: 90,
    meter,
    notes: notes.map(([at, length, midi]) => ({ at, until: at + length, midi })),
  });
const songOf = (reading: Reading) => {
  if (!reading.ok) throw new Error(refusalWords(reading.refusal, ENGLISH));
  return reading.song;
};
const heard = (reading: Reading) => songOf(reading).melody.map((n) => [n.at / Q, n.length / Q, n.pitch]);

describe('a tune that is played in', () => {
  it('comes onto the counts, each note held to the next where it nearly reaches it', () => {
    const reading = played([
      [0.03, 0.9, 60],
      [1.02, 0.4, 62],
      [1.47, 0.45, 64],
      [1.98, 1.8, 65],
    ]);
    expect(heard(reading)).toEqual([
      [0, 1, 'C4'],
      [1, 0.5, 'D4'],
      [1.5, 0.5, 'E4'],
      [2, 2, 'F4'],
    ]);
    expect(reading.ok && reading.questions[0].value).toBe('eighths');
  });

  it('has a pick-up where keys were pressed before the first beat', () => {
    const song = songOf(
      played([
        [-1.02, 0.9, 67],
        [0.01, 3.9, 72],
      ]),
    );
    expect([song.pickup / Q, song.length / Q]).toEqual([1, 5]);
    expect(song.melody.map((n) => n.at / Q)).toEqual([0, 1]);
  });

  it('keeps the top note of keys that are pressed together', () => {
    expect(
      heard(
        played([
          [0, 2, 60],
          [0.01, 2, 67],
          [2, 2, 69],
        ]),
      ).map(([, , pitch]) => pitch),
    ).toEqual(['G4', 'A4']);
  });

  it('says that nothing was played', () => {
    const reading = played([]);
    expect(reading.ok ? '' : refusalWords(reading.refusal, ENGLISH)).toBe('Nothing was played yet. Press a key to begin.');
  });

  it('finds every note again, however unevenly it was played', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            eighths: fc.constantFrom(1, 2, 3, 4),
            midi: fc.integer({ min: 60, max: 80 }),
            off: fc.double({ min: -0.06, max: 0.06, noNaN: true }),
          }),
          {
            minLength: 2,
            maxLength: 30,
          },
        ),
        (row) => {
          let at = 0;
          const notes = row.map(({ eighths, midi, off }) => {
            const note = [Math.max(0, at / 2 + off), eighths / 2 - 0.1, midi] as const;
            at += eighths;
            return note;
          });
          let place = 0;
          const expected = row.map(({ eighths, midi }) => {
            const here = [place / 2, midi];
            place += eighths;
            return here;
          });
          const song = songOf(
            readRecording(
              { title: 'Played', tempo: 80, meter: four, notes: notes.map(([a, l, midi]) => ({ at: a, until: a + l, midi })) },
              { grid: 'eighths' },
            ),
          );
          expect(song.melody.length).toBe(expected.length);
          expect(song.melody.map((n) => n.at / Q)).toEqual(expected.map(([a]) => a));
        },
      ),
    );
  });
});
