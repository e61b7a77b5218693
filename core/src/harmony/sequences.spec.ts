import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scaleFrom } from '../../testing/tunes.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import type { TuneNote } from './fit.js';
import { keysOf, MODES, scaleOf, type Key } from './key.js';
import { pacesOfParts } from './pace.js';
import { movedInScale, sequencesIn } from './sequences.js';
import { suggestChords } from './suggest.js';
import { parseChord } from './symbol.js';

const KEYS: readonly Key[] = MODES.flatMap(keysOf);
const barsOf = (count: number) => layBars({ length: count * 4 * Q, pickup: 0, meters: [{ at: 0, beats: 4, unit: 4 }] });

/** Quarter notes on steps of a scale, counted from its tonic above C4. */
function tuneOn(key: Key, steps: readonly number[], length = Q): TuneNote[] {
  const scale = scaleFrom(key, 60, 0, 24);
  return steps.map((s, i) => ({ at: i * length, length, pitch: scale[s] }));
}

const phrase = (notes: number) => fc.array(fc.integer({ min: 0, max: 8 }), { minLength: notes, maxLength: notes });

describe('a tune that comes again on other steps of its scale', () => {
  it('is known wherever it moves, in every key and mode', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...KEYS),
        fc.constantFrom(1, 2, 4),
        fc.integer({ min: 1, max: 4 }),
        phrase(16),
        (key, bars, by, steps) => {
          const first = steps.slice(0, 4 * bars);
          const tune = tuneOn(key, [...first, ...first.map((s) => s + by)]);
          const found = sequencesIn(tune, barsOf(2 * bars), key);
          expect(found).toContainEqual({ first: 0, again: bars * 4 * Q, length: bars * 4 * Q, steps: by });
        },
      ),
    );
  });

  it('is none where it stays, where one note goes another way, or where its rhythm changes', () => {
    const key: Key = { tonic: 'F', mode: 'major' };
    const known = (tune: readonly TuneNote[]) => sequencesIn(tune, barsOf(2), key).length;
    expect(known(tuneOn(key, [0, 1, 2, 0, 1, 2, 3, 1]))).toBe(1);
    expect(known(tuneOn(key, [0, 1, 2, 0, 0, 1, 2, 0]))).toBe(0);
    expect(known(tuneOn(key, [0, 1, 2, 0, 1, 2, 4, 1]))).toBe(0);
    const dotted = tuneOn(key, [0, 1, 2, 0, 1, 2, 3, 1]).map((n, i) =>
      i === 4 ? { ...n, length: 1.5 * Q } : i === 5 ? { ...n, at: n.at + Q / 2, length: Q / 2 } : n,
    );
    expect(known(dotted)).toBe(0);
  });

  it('takes its chords along', () => {
    for (const key of keysOf('major')) {
      const scale = scaleOf(key);
      // A bar over the second degree, where the chord of the sixth would do as well, and the same a step lower.
      const tune = tuneOn(key, [7, 9, 11, 9, 8, 8, 10, 8, 7, 7, 9, 7, 7, 7, 7, 7]);
      const chords = suggestChords({
        tune,
        bars: barsOf(4),
        key,
        tempo: 100,
        vocabulary: 'triads',
        rhythm: 'bar',
        from: 0,
        to: 16 * Q,
        ends: [16 * Q],
        fixed: new Map(),
      });
      const at = (bar: number) => {
        const chord = parseChord(chords.findLast((c) => c.at <= bar * 4 * Q)?.symbol ?? '');
        return chord.kind === 'chord' ? chord.root : '';
      };
      expect(scale).toContain(at(1));
      expect(at(2)).toBe(movedInScale(at(1), -1, key));
    }
  });

  it('moves round the scale, and only notes that are in it', () => {
    const key: Key = { tonic: 'D', mode: 'dorian' };
    expect(['D', 'A', 'C'].map((n) => movedInScale(n, -1, key))).toEqual(['C', 'G', 'B']);
    expect(movedInScale('F#', 1, key)).toBeNull();
  });
});

describe('the pace of a part', () => {
  const of = (each: number, count: number, tempo = 100) => {
    const bars = barsOf(8);
    const tune = tuneOn(
      { tonic: 'C', mode: 'major' },
      [0, 2, 4, 2, 4, 2, 0, 2].flatMap((s) => [s, s, s, s]),
    );
    const chords = Array.from({ length: count }, (_, i) => ({ at: i * each * Q }));
    return pacesOfParts({ tune, bars, tempo, ends: [32 * Q] }, chords)[0];
  };

  it('is where its chords come: on beats, by half bars, on bar lines; or they stay', () => {
    expect([of(1, 32), of(2, 16), of(4, 8), of(8, 4), of(32, 1)].map((p) => p.pace)).toEqual([
      'beat',
      'half',
      'bar',
      'bar',
      'vamp',
    ]);
    // In a quick song every other bar is a vamp.
    expect(of(16, 2, 200).pace).toBe('vamp');
  });

  it('prices a change where the tune goes on higher than one where a note begins, off the bar line', () => {
    const bars = barsOf(2);
    const long: TuneNote[] = [{ at: 0, length: 8 * Q, pitch: 'C5' }];
    const struck = tuneOn({ tonic: 'C', mode: 'major' }, [0, 4, 0, 4, 0, 4, 0, 4]);
    const price = (tune: readonly TuneNote[]) => {
      const [part] = pacesOfParts({ tune, bars, tempo: 100, ends: [8 * Q] }, [{ at: 0 }]);
      return [part.change(2 * Q), part.change(4 * Q)];
    };
    expect(price(long)[0]).toBeGreaterThan(price(struck)[0]);
    expect(price(long)[1]).toBe(price(struck)[1]);
    // Leaps tell the chord; steps leave it open.
    const stepwise = tuneOn({ tonic: 'C', mode: 'major' }, [0, 1, 2, 3, 4, 3, 2, 1]);
    expect(price(struck)[0]).toBeLessThan(price(stepwise)[0]);
    expect(price(struck)[1]).toBe(price(stepwise)[1]);
  });
});
