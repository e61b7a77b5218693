import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SYMBOLS } from '../../testing/songs.js';
import { ALL_KEYS } from '../../testing/tunes.js';
import { intervalOf, toneFor } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { midiOf, nameOf, pitchClass, transposePitch } from '../pitch/pitch.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { givenTo, type ChordStretch } from './given.js';

const chord = (symbol: string): Chord => {
  const parsed = parseChord(symbol);
  if (parsed.kind !== 'chord') throw new Error(symbol);
  return parsed;
};
const bar = (symbol: string, at = 0, quarters = 4): ChordStretch => ({ symbol, at: at * Q, length: quarters * Q });
const figure = (...pitches: string[]) => pitches.map((pitch, i) => ({ at: i * Q, length: Q, pitch }));
const keys = (given: ReturnType<typeof givenTo>) => given?.notes.map((n) => n.pitch).join(' ');
const C = { tonic: 'C', mode: 'major' } as const;

describe('a figure of the left hand that is given to another chord', () => {
  it('goes to the same degrees, nearest to where it was', () => {
    expect(keys(givenTo(figure('C3', 'G3', 'C4', 'E4'), bar('C'), bar('F', 4), C))).toBe('F3 C4 F4 A4');
    expect(keys(givenTo(figure('C3', 'G3', 'C4', 'E4'), bar('C'), bar('Am', 4), C))).toBe('A2 E3 A3 C4');
    expect(keys(givenTo(figure('E2', 'B2', 'G2', 'B2'), bar('Em'), bar('C/E', 4), C))).toBe('E2 G2 E2 G2');
  });

  it('takes steps between chord notes along the scale, and half steps as they are', () => {
    expect(keys(givenTo(figure('C3', 'D3', 'E3', 'F#3'), bar('C'), bar('G7', 4), C))).toBe('G2 A2 B2 C#3');
    expect(keys(givenTo(figure('C3', 'B2', 'C3', 'D3'), bar('C'), bar('F', 4), C))).toBe('F3 E3 F3 G3');
  });

  it('tells where a chord has no such note, and which stands in', () => {
    const given = givenTo(figure('C3', 'E3', 'Bb3'), bar('C7'), bar('Gsus4', 4), C);
    expect(keys(given)).toBe('G2 C3 G3');
    expect(given?.bent.map((b) => b.degree)).toEqual([3, 7]);
  });

  it('is heard again in a longer chord, cut in a shorter one, and is nothing without a chord', () => {
    const two = figure('C3', 'G3');
    expect(givenTo(two, bar('C', 0, 2), bar('F', 2, 4), C)?.notes.map((n) => n.at / Q)).toEqual([2, 3, 4, 5]);
    expect(givenTo(figure('C3', 'G3', 'E3'), bar('C'), bar('F', 4, 1.5), C)?.notes.map((n) => n.length / Q)).toEqual([1, 0.5]);
    expect(givenTo(two, bar('C'), bar('N.C.', 4), C)).toBeNull();
    expect(givenTo([], bar('C'), bar('F', 4), C)).toBeNull();
  });

  it('keeps bass, degrees and rhythm from any chord to any other in every key', () => {
    const symbols = SYMBOLS.filter((s) => parseChord(s).kind === 'chord');
    fc.assert(
      fc.property(
        fc.constantFrom(...symbols),
        fc.constantFrom(...symbols),
        fc.constantFrom(...ALL_KEYS),
        fc.array(fc.nat({ max: 20 }), { minLength: 1, maxLength: 6 }),
        (from, to, key, picks) => {
          const [a, b] = [chord(from), chord(to)];
          const bass = `${a.bass ?? a.root}2`;
          const tones = a.tones.map((t) => transposePitch(`${a.root}3`, t.interval));
          const notes = figure(bass, ...picks.map((p) => tones[p % tones.length]));
          const given = givenTo(notes, bar(from, 0, 8), bar(to, 8, 8), key);
          if (!given) throw new Error('not given');
          const bent = new Set(given.bent.map((g) => g.at));
          expect(given.notes.map((n) => n.at)).toEqual(notes.map((n) => n.at + 8 * Q));
          expect(pitchClass(nameOf(given.notes[0].pitch))).toBe(pitchClass(b.bass ?? b.root));
          given.notes.forEach((n, i) => {
            const name = nameOf(n.pitch);
            const tone = toneFor(a, nameOf(notes[i].pitch));
            const isBass = pitchClass(nameOf(notes[i].pitch)) === pitchClass(a.bass ?? a.root);
            expect(isBass || tone !== null).toBe(true);
            if (isBass) expect(pitchClass(name)).toBe(pitchClass(b.bass ?? b.root));
            else {
              expect(toneFor(b, name)).not.toBeNull();
              expect(bent.has(n.at)).toBe(intervalOf(b, tone?.degree ?? 0) === null);
              if (!bent.has(n.at)) expect(toneFor(b, name)?.degree).toBe(tone?.degree);
            }
            expect(midiOf(n.pitch)).toBeGreaterThanOrEqual(midiOf(given.notes[0].pitch));
          });
          expect(Math.abs(midiOf(given.notes[0].pitch) - midiOf(bass))).toBeLessThanOrEqual(6);
        },
      ),
    );
  });

  it('is itself on its own chord', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('C', 'Gm7', 'F#dim7', 'Ebmaj7'),
        fc.array(fc.nat({ max: 24 }), { minLength: 1, maxLength: 8 }),
        (symbol, picks) => {
          const { root, tones } = chord(symbol);
          const notes = figure(
            `${root}2`,
            ...picks.map((p) => transposePitch(`${root}${2 + (p % 2)}`, tones[p % tones.length].interval)),
          );
          const given = givenTo(notes, bar(symbol, 0, 9), bar(symbol, 9, 9), C);
          expect(given?.notes.map((n) => n.pitch)).toEqual(notes.map((n) => n.pitch));
        },
      ),
    );
  });
});
