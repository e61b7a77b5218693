import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leastOf } from '../../testing/fingerings.js';
import { fitsManual, manualArpeggios, manualScales } from '../../testing/manuals.js';
import { HANDS, lowOf, scaleFrom } from '../../testing/tunes.js';
import { keyName, keysOf, type Key } from '../harmony/key.js';
import { isBlackKey, midiOf } from '../pitch/pitch.js';
import { handsOf, HAND_PROFILES } from '../song/decisions.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { fingerLine } from './line.js';
import { fingeringProblem, solveFingering, type FingeringTask, type Grip } from './search.js';
import { spansFor } from './spans.js';

const C_MAJOR: Key = { tonic: 'C', mode: 'major' };
const right: FingeringTask = { hands: handsOf(), hand: 'right', tempo: 100, key: C_MAJOR };

/** A line of eighth notes; several keys of one moment stand together, "C4+E4". */
const line = (text: string): Grip[] =>
  text.split(' ').map((word, i) => ({ at: (i * Q) / 2, length: Q / 2, pitches: word.split('+') }));
const digits = (grips: readonly Grip[], task = right) =>
  fingerLine(grips, task)
    .map((f) => f.fingers.join('+'))
    .join(' ');

const PITCHES = ['C4', 'D4', 'Eb4', 'E4', 'F4', 'F#4', 'G4', 'Ab4', 'A4', 'Bb4', 'B4', 'C5', 'D5', 'F5', 'A5', 'C6'];
const anyLine = (most: number, least = 1) =>
  fc
    .array(fc.record({ pitch: fc.constantFrom(...PITCHES), length: fc.constantFrom(0.25, 0.5, 1), rest: fc.boolean() }), {
      minLength: least,
      maxLength: most,
    })
    .map((notes): Grip[] => {
      let at = 0;
      return notes.map(({ pitch, length, rest }) => {
        const grip = { at, length: length * Q, pitches: [pitch] };
        at += (length + (rest ? 0.5 : 0)) * Q;
        return grip;
      });
    });

describe('scales and arpeggios over two octaves', () => {
  const runs = [...manualScales(), ...manualArpeggios()];

  it.each(['right', 'left'] as const)('come out as the manuals print them, up and down, %s hand', (hand) => {
    const wrong = runs
      .filter((run) => run.hand === hand)
      .flatMap((run) => {
        const play = (pitches: readonly string[]) =>
          fingerLine(line(pitches.join(' ')), { ...right, hand, key: run.key })
            .map((f) => f.fingers[0])
            .join('');
        const up = play(run.pitches);
        const down = [...play([...run.pitches].reverse())].reverse().join('');
        return [up, down]
          .filter((got) => !fitsManual(run, got))
          .map((got) => `${run.name}: ${got} for ${run.accepted.join(' or ')}`);
      });
    expect(wrong).toEqual([]);
    expect(runs.filter((run) => run.hand === hand)).toHaveLength(48 + 36);
  });
});

describe('the scales of the old modes over two octaves', () => {
  const modal = (['dorian', 'mixolydian', 'phrygian', 'lydian'] as const).flatMap(keysOf);
  const runs = modal.flatMap((key) => HANDS.map((hand) => ({ key, hand })));

  it('go in threes and fours from one thumb to the next, which are white keys, up and down, in every key and both hands', () => {
    const wrong = runs.flatMap(({ key, hand }) => {
      const keys = scaleFrom(key, lowOf(hand), 0, 15);
      const isWhite = (pitch: string) => !isBlackKey(midiOf(pitch));
      return [keys, keys.toReversed()].flatMap((way) => {
        const fingers = fingerLine(line(way.join(' ')), { ...right, hand, key }).map((f) => f.fingers[0]);
        const thumbs = fingers.flatMap((f, i) => (f === 1 ? [i] : []));
        const apart = thumbs.slice(1).map((at, i) => at - thumbs[i]);
        const holds = thumbs.length >= 4 && thumbs.every((i) => isWhite(way[i])) && apart.every((n) => n === 3 || n === 4);
        return holds ? [] : [`${keyName(key)} ${hand} ${way[0]}: ${fingers.join('')}`];
      });
    });
    expect(wrong).toEqual([]);
    expect(runs).toHaveLength(4 * 12 * 2);
  });
});

describe('the search', () => {
  it('finds the least of all fingerings of up to seven notes, chords among them', () => {
    const check = (grips: readonly Grip[], hand: 'left' | 'right', profile: (typeof HAND_PROFILES)[number] = 'medium') => {
      const problem = fingeringProblem(grips, { ...right, hand, hands: handsOf(profile) });
      expect(solveFingering(problem).cost).toBeCloseTo(leastOf(problem), 6);
    };
    fc.assert(fc.property(anyLine(5), fc.constantFrom('left', 'right'), fc.constantFrom(...HAND_PROFILES), check), {
      numRuns: 60,
    });
    fc.assert(fc.property(anyLine(7, 7), fc.constantFrom('left', 'right'), fc.constantFrom(...HAND_PROFILES), check), {
      numRuns: 4,
    });
    check(line('C4+E4 D4+F4 C4+E4+G4 G4 A4+C5'), 'right');
    check(line('C3+G3 C3+E3+A3 F3 D3+F3'), 'left');
  });

  it('never asks for a stretch that the hand cannot make, in a line or in a chord', () => {
    const chords = fc
      .array(fc.uniqueArray(fc.constantFrom('C4', 'E4', 'F#4', 'A4', 'C5', 'Eb5'), { minLength: 1, maxLength: 3 }), {
        minLength: 1,
        maxLength: 30,
      })
      .map((all) => line(all.map((c) => c.sort((a, b) => midiOf(a) - midiOf(b)).join('+')).join(' ')));
    fc.assert(
      fc.property(
        fc.oneof(anyLine(60), chords),
        fc.constantFrom(...HAND_PROFILES),
        fc.constantFrom('left' as const, 'right' as const),
        (grips, profile, hand) => {
          const hands = handsOf(profile);
          const spans = spansFor(hands, hand);
          const row = fingerLine(grips, { ...right, hands, hand });
          const lies = (pitches: readonly string[], fingers: readonly number[]) => {
            for (let a = 0; a < fingers.length; a++)
              for (let b = a + 1; b < fingers.length; b++) {
                const wide = midiOf(pitches[b]) - midiOf(pitches[a]);
                const [low, high] = hand === 'right' ? [fingers[a], fingers[b]] : [fingers[b], fingers[a]];
                expect(high).toBeGreaterThan(low);
                expect(wide).toBeLessThanOrEqual(spans(low, high).practicalMax);
              }
          };
          const reach = (pitches: readonly string[]) => midiOf(pitches[pitches.length - 1]) - midiOf(pitches[0]);
          row.forEach(({ fingers, move }, i) => {
            if (reach(grips[i].pitches) <= spans(1, 5).practicalMax - 2) lies(grips[i].pitches, fingers);
            const before = grips[i - 1];
            if (move !== 'stay' || !before || before.pitches.length > 1 || grips[i].pitches.length > 1) return;
            const [a, b] = [row[i - 1].fingers[0], fingers[0]];
            if (a === b) return;
            const up = midiOf(grips[i].pitches[0]) - midiOf(before.pitches[0]);
            const span = (hand === 'right' ? up : -up) * Math.sign(b - a);
            expect(span).toBeLessThanOrEqual(spans(Math.min(a, b), Math.max(a, b)).practicalMax);
            expect(span).toBeGreaterThanOrEqual(0);
          });
        },
      ),
    );
  });

  it('keeps every pin, and bends the rest around it', () => {
    fc.assert(
      fc.property(anyLine(20, 4), fc.nat(), fc.integer({ min: 1, max: 5 }), (grips, where, finger) => {
        const at = where % grips.length;
        const pinned = grips.map((g, i) => (i === at ? { ...g, pin: [finger] } : g));
        expect(fingerLine(pinned, right)[at].fingers).toEqual([finger]);
      }),
    );
    const five = line('C4 D4 E4 F4 G4');
    expect(digits(five)).toBe('1 2 3 4 5');
    expect(digits(five.map((g, i) => (i === 2 ? { ...g, pin: [2] } : g)))).toMatch(/^\d 1 2 3 4$/);
  });
});

describe('what a teacher would write', () => {
  it.each([
    ['five neighbouring keys take five fingers', 'C4 D4 E4 F4 G4 F4 E4 D4 C4', '1 2 3 4 5 4 3 2 1'],
    ['the hand stays for a broken triad', 'C4 E4 G4 E4 C4', '1 3 5 3 1'],
    ['it begins where the phrase can finish', 'G4 F4 E4 D4 C4', '5 4 3 2 1'],
    ['a sixth lies under the outer fingers', 'C4+A4 C4+A4', '1+5 1+5'],
    ['a triad and its first inversion', 'C4+E4+G4 E4+G4+C5', '1+3+5 1+2+5'],
  ])('%s', (_, notes, fingers) => {
    expect(digits(line(notes))).toBe(fingers);
  });

  it('the left hand is the mirror', () => {
    expect(digits(line('C3 D3 E3 F3 G3'), { ...right, hand: 'left' })).toBe('5 4 3 2 1');
    expect(digits(line('C3+E3+G3'), { ...right, hand: 'left' })).toBe('5+3+1');
  });

  it('slow repeats keep their finger, quick ones change it', () => {
    const repeats = (seconds: number): Grip[] =>
      Array.from({ length: 4 }, (_, i) => ({ at: Math.round((i * seconds * Q * 100) / 60), length: 1000, pitches: ['G4'] }));
    expect(new Set(fingerLine(repeats(0.6), right).map((f) => f.fingers[0])).size).toBe(1);
    const quick = fingerLine(repeats(0.12), right).map((f) => f.fingers[0]);
    quick.slice(1).forEach((finger, i) => expect(finger).not.toBe(quick[i]));
  });

  it('a figure that comes again takes the same fingers where that takes no move more', () => {
    const shifted = (text: string, quarters: number) => line(text).map((g) => ({ ...g, at: g.at + quarters * Q }));
    const row = digits([...shifted('G4 A4 B4 G4', 0), ...shifted('E4 F4 A4 D5', 2), ...shifted('C5 D5 E5 C5', 4)]).split(' ');
    expect(row.slice(0, 4)).toEqual(row.slice(8));
    // The second time the hand is on its way down: to imitate would be to move once more.
    const down = fingerLine(line('E4 F4 G4 E4 C5 B4 A4 G4 F4 E4 F4 G4 E4 C4'), right);
    expect(down.filter((f) => f.move !== 'stay')).toHaveLength(2);
  });

  it('a phrase break lets the hand go anywhere', () => {
    const grips = line('C4 D4 E4 C6 D6 E6').map((g, i) => ({ ...g, fresh: i === 3 }));
    const row = fingerLine(grips, right);
    expect(row.map((f) => f.move)).toEqual(['fresh', 'stay', 'stay', 'fresh', 'stay', 'stay']);
    expect(row.slice(3).map((f) => f.fingers[0])).toEqual(row.slice(0, 3).map((f) => f.fingers[0]));
  });
});

describe('fingers that are kept', () => {
  it('are those of the hand, its spans, the speed and the key that ask for them, whoever asked before', () => {
    const spans = [null, [8, 9], [8, 12], [9, 9]].map((s) => s && { comfortable: s[0], limit: s[1] });
    const tasks = (keys: readonly Key[]): FingeringTask[] =>
      spans.flatMap((span) =>
        (['left', 'right'] as const).flatMap((hand) =>
          [30, 260].flatMap((tempo) =>
            keys.map((key) => ({ hands: { ...handsOf(), left: span, right: span }, hand, tempo, key })),
          ),
        ),
      );
    // Quick repetitions of one key, on which a fast player changes fingers.
    const drummed = fc
      .tuple(fc.constantFrom(...PITCHES), fc.integer({ min: 3, max: 6 }))
      .map(([pitch, times]) => line(new Array(times).fill(pitch).join(' ')));
    fc.assert(
      // Too short for a figure that comes again: the search alone decides.
      fc.property(fc.oneof(anyLine(7), drummed), (grips) => {
        for (const task of tasks([C_MAJOR, { tonic: 'Db', mode: 'major' }]))
          expect(fingerLine(grips, task)).toEqual(solveFingering(fingeringProblem(grips, task)).row);
      }),
    );
  });
});
