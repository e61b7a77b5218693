import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { manualScales } from '../../testing/manuals.js';
import { ALL_KEYS, anySetting, evenly, HANDS, lowOf, scaleFrom, tuneOver } from '../../testing/tunes.js';
import type { Key } from '../harmony/key.js';
import { isBlackKey, midiOf } from '../pitch/pitch.js';
import { handsOf, type HandProfile } from '../song/decisions.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { fingerLine } from './line.js';
import type { FingeringTask, Grip } from './search.js';

type Hand = 'left' | 'right';

const task = (key: Key, hand: Hand, profile: HandProfile = 'medium', tempo = 100): FingeringTask => ({
  hands: handsOf(profile),
  hand,
  tempo,
  key,
});
const play = (grips: readonly Grip[], how: FingeringTask) => fingerLine(grips, how).map((f) => f.fingers[0]);

/** The finger over a key of five neighbouring ones, counted from 0 at the lowest. */
const over = (step: number, hand: Hand) => (hand === 'right' ? step + 1 : 5 - step);

/** True where every key has one finger, every finger one key, and higher keys lie under outer fingers. */
function isOnePlace(grips: readonly Grip[], fingers: readonly number[], hand: Hand): boolean {
  const pairs = new Map(grips.map((g, i) => [midiOf(g.pitches[0]), fingers[i]]));
  const kept = grips.every((g, i) => pairs.get(midiOf(g.pitches[0])) === fingers[i]);
  const rising = [...pairs].sort(([a], [b]) => a - b).map(([, f]) => (hand === 'right' ? f : -f));
  return kept && rising.every((f, i) => i === 0 || f > rising[i - 1]);
}

/** Every key, both hands, all degrees to begin on, as one list. */
const everywhere = ALL_KEYS.flatMap((key) =>
  HANDS.flatMap((hand) => [0, 1, 2, 3, 4, 5, 6].map((degree) => ({ key, hand, degree }))),
);

const blackAt = (pitch: string) => isBlackKey(midiOf(pitch));

describe('a hand stays in its place', () => {
  it('over five neighbouring keys of any scale, one finger a key, whatever the hand, the key and the rhythm', () => {
    const lengths = fc.array(fc.constantFrom(0.5, 1, 1.5, 4), { minLength: 16, maxLength: 16 });
    fc.assert(
      fc.property(
        anySetting,
        fc.nat({ max: 6 }),
        tuneOver(5, 16),
        lengths,
        ({ key, hand, profile, tempo }, degree, steps, quarters) => {
          const keys = scaleFrom(key, lowOf(hand), degree, 5);
          let at = 0;
          const grips = steps.map((s, i): Grip => {
            const grip = { at, length: quarters[i] * Q, pitches: [keys[s]] };
            at += grip.length;
            return grip;
          });
          expect(play(grips, task(key, hand, profile, tempo))).toEqual(steps.map((s) => over(s, hand)));
        },
      ),
      { numRuns: 600 },
    );
  });

  it('over three or four neighbouring keys, without a move', () => {
    fc.assert(
      fc.property(anySetting, fc.nat({ max: 6 }), fc.constantFrom(3, 4), fc.context(), (setting, degree, keys, context) => {
        const { key, hand, profile, tempo } = setting;
        const [steps] = fc.sample(tuneOver(keys, 12), { numRuns: 1, seed: degree + tempo });
        const grips = evenly(steps.map((s) => scaleFrom(key, lowOf(hand), degree, keys)[s]));
        const fingers = play(grips, task(key, hand, profile, tempo));
        context.log(fingers.join(''));
        expect(isOnePlace(grips, fingers, hand)).toBe(true);
      }),
      { numRuns: 400 },
    );
  });

  it('within the frame of an octave, with three fixed fingers, where the hand spans it', () => {
    const frames = [
      [0, 4, 7, 4, 0, 7, 4, 0],
      [0, 3, 7, 3, 0, 3, 7],
      [0, 2, 7, 2, 0, 7],
    ];
    const wrong = everywhere.flatMap(({ key, hand, degree }) =>
      (['small', 'medium', 'large'] as const).flatMap((profile) =>
        frames.flatMap((frame) => {
          const grips = evenly(frame.map((s) => scaleFrom(key, lowOf(hand), degree, 8)[s]));
          const fingers = play(grips, task(key, hand, profile));
          return isOnePlace(grips, fingers, hand) ? [] : [`${grips.map((g) => g.pitches[0]).join(' ')}: ${fingers.join('')}`];
        }),
      ),
    );
    expect(wrong).toEqual([]);
  });
});

describe('figures as teachers finger them, in every key', () => {
  /** What comes of a figure given as steps, everywhere; a thumb or fifth finger on a black key may be spared where `spared` says how. */
  const wrongs = (
    steps: Readonly<Partial<Record<Hand, readonly number[]>>>,
    fingers: string,
    spared: { readonly step: number; readonly fingers: string } | null = null,
  ) =>
    everywhere.flatMap(({ key, hand, degree }) => {
      const row = steps[hand];
      if (!row) return [];
      const keys = scaleFrom(key, lowOf(hand), degree, 10);
      const got = play(evenly(row.map((s) => keys[s])), task(key, hand)).join('');
      const spares = spared !== null && blackAt(keys[spared.step]) && got === spared.fingers;
      return got === fingers || spares ? [] : [`${hand} ${row.map((s) => keys[s]).join(' ')}: ${got}`];
    });

  it('a neighbour figure and back with a third on the thumb’s side is 3-2-3-1, never 2-1-2-1', () => {
    expect(wrongs({ right: [2, 1, 2, 0] }, '3231', { step: 0, fingers: '4342' })).toEqual([]);
    expect(wrongs({ left: [2, 3, 2, 4] }, '3231', { step: 4, fingers: '4342' })).toEqual([]);
  });

  it('a triad up and down is 1-3-5-3-1, five keys down are 5-4-3-2-1', () => {
    expect(wrongs({ right: [0, 2, 4, 2, 0] }, '13531')).toEqual([]);
    expect(wrongs({ right: [4, 3, 2, 1, 0] }, '54321')).toEqual([]);
    expect(wrongs({ left: [0, 1, 2, 3, 4] }, '54321')).toEqual([]);
  });

  it('four neighbouring keys of a bass line down from the thumb are 1-2-3-4', () => {
    expect(wrongs({ left: [3, 2, 1, 0] }, '1234', { step: 3, fingers: '2345' })).toEqual([]);
  });

  it('a run of the scale inside a tune has its thumbs where the scale has them', () => {
    const wrong = manualScales()
      .filter((run) => run.name.endsWith('major') || run.name.endsWith('natural'))
      .flatMap((run) => {
        const keys = run.pitches.slice(3, 12);
        const thumbs = run.accepted[0].slice(3, 12);
        const around = [keys[0], keys[1], keys[0]];
        return [
          { name: `${run.name} up`, notes: [...around, ...keys, keys[7], keys[6]], thumbs },
          {
            name: `${run.name} down`,
            notes: [keys[7], keys[8], keys[7], ...keys.toReversed(), keys[1]],
            thumbs: [...thumbs].reverse().join(''),
          },
        ].flatMap(({ name, notes, thumbs: printed }) => {
          const got = play(evenly(notes), task(run.key, run.hand)).slice(3, 12);
          // At either end of the run the hand may stay where it is or be there already.
          const inner = got.slice(3, 6).map((f, k) => (f === 1) === (printed[k + 3] === '1'));
          return inner.every(Boolean) ? [] : [`${run.hand} ${name}: ${got.join('')} for ${printed}`];
        });
      });
    expect(wrong).toEqual([]);
  });
});

describe('phrases that come again', () => {
  it('have exactly the same fingers', () => {
    const notes = fc.array(
      fc.record({ step: fc.nat({ max: 11 }), quarters: fc.constantFrom(0.25, 0.5, 1), rest: fc.constantFrom(0, 0, 1) }),
      { minLength: 3, maxLength: 14 },
    );
    fc.assert(
      fc.property(anySetting, notes, notes, ({ key, hand, profile, tempo }, phrase, other) => {
        const keys = scaleFrom(key, lowOf(hand), 0, 12);
        let at = 0;
        const grips = [phrase, other, phrase, phrase].flatMap((each) =>
          each.map(({ step, quarters, rest }, k): Grip => {
            const grip = { at, length: quarters * Q, pitches: [keys[step]], fresh: k === 0 };
            at += (quarters + rest) * Q;
            return grip;
          }),
        );
        const fingers = play(grips, task(key, hand, profile, tempo));
        const first = fingers.slice(0, phrase.length);
        expect(fingers.slice(-phrase.length)).toEqual(first);
        expect(fingers.slice(-2 * phrase.length, -phrase.length)).toEqual(first);
      }),
      { numRuns: 60 },
    );
  });
});
