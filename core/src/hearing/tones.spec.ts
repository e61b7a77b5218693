import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inQuarters, isUnsure, tonesIn, type HeardTone, type NoteScores } from './tones.js';

const KEYS = 88;

/** Scores as a model without doubt would give them, for notes that are kept apart on their keys. */
function scoresOf(notes: readonly { key: number; from: number; to: number; sure: number }[], frames: number): NoteScores {
  const [sounds, begins] = [new Float32Array(frames * KEYS), new Float32Array(frames * KEYS)];
  for (const { key, from, to, sure } of notes) {
    begins[from * KEYS + key] = 0.95;
    for (let i = from; i < to; i++) {
      sounds[i * KEYS + key] = sure;
      // Some of it spills over.
      if (key > 0) sounds[i * KEYS + key - 1] = Math.max(sounds[i * KEYS + key - 1], 0.2);
    }
  }
  return { sounds, begins, keys: KEYS, lowest: 21, timeOf: (frame) => frame / 100 };
}

describe('notes of a model', () => {
  it('are all found, as long as they are and as sure, also where a key is struck again', () => {
    const note = fc.record({
      key: fc.integer({ min: 0, max: 40 }),
      gap: fc.integer({ min: 14, max: 60 }),
      length: fc.integer({ min: 8, max: 90 }),
      sure: fc.double({ min: 0.42, max: 0.95, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(note, { maxLength: 30 }), (made) => {
        // Each key has a row of its own; every other key, so that none lies beside another.
        const ends = new Map<number, number>();
        const notes = made.map(({ key, gap, length, sure }) => {
          const from = (ends.get(key) ?? 2) + gap;
          ends.set(key, from + length);
          return { key: 2 * key, from, to: from + length, sure };
        });
        const tones = tonesIn(scoresOf(notes, Math.max(40, ...ends.values()) + 20));
        expect(tones.map((t) => `${t.midi} ${Math.round(t.at * 100)} ${Math.round(t.until * 100)}`).sort()).toEqual(
          notes.map((n) => `${n.key + 21} ${n.from} ${n.to}`).sort(),
        );
        for (const t of tones) {
          const { sure = 0 } = notes.find((n) => n.key + 21 === t.midi && n.from === Math.round(t.at * 100)) ?? {};
          expect(t.sure).toBeCloseTo(sure, 4);
          expect(isUnsure(t)).toBe(t.sure < 0.5);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('leaves out what begins and hardly sounds, and what is too short', () => {
    const faint = { key: 40, from: 20, to: 60, sure: 0.35 };
    const short = { key: 50, from: 20, to: 24, sure: 0.9 };
    expect(tonesIn(scoresOf([faint, short], 100))).toEqual([]);
  });

  it('stand in quarter notes from a beat at or before the first of them', () => {
    const tone = (at: number): HeardTone => ({ at, until: at + 0.4, midi: 60, sure: 1 });
    // 120 a minute, beats at 0.2, 0.7, 1.2 …: the first note is early by a hair.
    const placed = inQuarters([tone(1.68), tone(2.2), tone(2.45)], 120, 0.2);
    expect(placed.map((t) => Math.round(t.at * 100) / 100)).toEqual([0, 1, 1.5]);
  });
});
