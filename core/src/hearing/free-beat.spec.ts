import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeTune } from '../../testing/made-tunes.js';
import { noiseFrom } from '../../testing/sounds.js';
import { TICKS_PER_QUARTER as Q } from '../time/index.js';
import { HEARING } from './figures.js';
import { eighthsAlong, eighthsCost, freeBeat } from './free-beat.js';

/** The opening of a made tune as it is sung to no beat: faster and slower by a tenth, each note a little early or late. */
function sungFreely(number: number) {
  const { song } = makeTune(number);
  const tune = song.melody.filter((n) => n.at < 24 * Q);
  const tempo = 60 + ((number * 37) % 70);
  const off = noiseFrom(number + 5);
  const seconds = (ticks: number) => (60 / tempo) * (ticks / Q + 0.6 * Math.sin(ticks / Q / 6));
  const notes = tune.map((n) => ({
    at: 1 + seconds(n.at) + 0.03 * off(),
    until: 1 + seconds(n.at + n.length) - 0.08,
    midi: 60,
    sure: true,
  }));
  return { tune, tempo, notes, bar: (song.meters[0].beats * 4) / song.meters[0].unit };
}

describe('a line that is sung to no beat', () => {
  it('has its lengths found, mostly its tempo, and then its bar lines', () => {
    const sums = { lengths: 0, notes: 0, tempo: 0, bars: 0, lines: 24 };
    for (let i = 0; i < sums.lines; i++) {
      const { tune, tempo, notes, bar } = sungFreely(i);
      const found = freeBeat(notes, bar);
      if (!found) continue;
      const felt = [1, 2, 0.5].find((k) => Math.abs(found.tempo / (tempo * k) - 1) < 0.1) ?? 1;
      if (felt === 1) sums.tempo++;
      sums.notes += tune.length - 1;
      sums.lengths += tune.slice(1).filter((n, k) => {
        const between = found.notes[k + 1].at - found.notes[k].at;
        return Math.abs(between - ((n.at - tune[k].at) / Q) * felt) < 0.01;
      }).length;
      const early = (found.notes[0].at - tune[0].at / Q) / bar;
      if (felt === 1 && Math.abs(early - Math.round(early)) < 0.01) sums.bars++;
    }
    expect(sums.lengths / sums.notes).toBeGreaterThanOrEqual(0.97);
    expect(sums.tempo).toBeGreaterThanOrEqual(0.8 * sums.lines);
    expect(sums.bars).toBeGreaterThanOrEqual(0.8 * sums.lines);
  });

  it('keeps its breaths, and its notes in their order on the grid of eighths', () => {
    const note = fc.record({
      wait: fc.double({ min: 0.12, max: 3, noNaN: true }),
      share: fc.double({ min: 0.1, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(note, { minLength: HEARING.free.fewest, maxLength: 40 }), fc.constantFrom(2, 3, 4), (made, bar) => {
        let at = 0;
        const notes = made.map(({ wait, share }, i) => {
          const note = { at, until: at + wait * share, midi: 60 + i, sure: true };
          at += wait;
          return note;
        });
        const found = freeBeat(notes, bar);
        expect(found?.notes.map((n) => n.midi)).toEqual(notes.map((n) => n.midi));
        for (const [i, n] of (found?.notes ?? []).entries()) {
          expect(Number.isInteger(2 * n.at) && Number.isInteger(2 * n.until)).toBe(true);
          expect(n.until).toBeGreaterThan(n.at);
          const next = found?.notes.at(i + 1);
          if (next) expect(next.at).toBeGreaterThanOrEqual(n.until);
        }
        expect(found?.notes[0].at).toBeGreaterThan(-bar);
      }),
      { numRuns: 60 },
    );
    expect(freeBeat([], 4)).toBeNull();
  });

  it('is counted in the cheapest of all ways, as trying every beat at every note finds it', () => {
    const { slowest, fastest, step, usual, octaves, width, turn, longest } = HEARING.free;
    const beats = Array.from(
      { length: Math.floor(Math.log2(fastest / slowest) / step) + 1 },
      (_, i) => Math.log2(30 / slowest) - i * step,
    );
    const alone = (seconds: number, beat: number) =>
      Math.min(
        ...Array.from(
          { length: longest },
          (_, k) => 0.5 * ((Math.log2(seconds) - beat - Math.log2(k + 1)) / width) ** 2 + eighthsCost(k + 1),
        ),
      );
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.1, max: 2.5, noNaN: true }), { minLength: 1, maxLength: 3 }), (between) => {
        const least = (i: number, before: number | null): number =>
          i === between.length
            ? 0
            : Math.min(
                ...beats.map((beat) => {
                  const come =
                    before === null ? 0.5 * ((beat - Math.log2(30 / usual)) / octaves) ** 2 : turn * (beat - before) ** 2;
                  // A way that costs more than any could is left.
                  return come > 40 ? come : come + alone(between[i], beat) + (i < 2 ? least(i + 1, beat) : 0);
                }),
              );
        expect(eighthsAlong(between).cost).toBeCloseTo(least(0, null), 6);
      }),
      { numRuns: 6 },
    );
  });
});
