import { describe, expect, it } from 'vitest';
import { leastOf } from '../../testing/fingerings.js';
import { ALL_KEYS, scaleFrom } from '../../testing/tunes.js';
import { isBlackKey, midiOf, type Pitch } from '../pitch/pitch.js';
import { handsOf, HAND_PROFILES, type HandProfile } from '../song/decisions.js';
import { TICKS_PER_QUARTER } from '../time/ticks.js';
import { fingeringProblem, solveFingering } from './search.js';
import { fingerPattern, knownFingers, leadingFingers, type Attack } from './pattern.js';

const half = TICKS_PER_QUARTER / 2;

/** Attacks on every half count: "0", "4", "2+4" as steps above the lowest key; the first is the bass. */
function attacksOf(words: string, keys: readonly Pitch[]): Attack[] {
  return words.split(' ').map((word, i) => ({
    at: i * half,
    length: half,
    pitches: word.split('+').map((step) => keys[Number(step)]),
    bass: i === 0,
    leads: false,
  }));
}

function fingersFor(attacks: readonly Attack[], key: (typeof ALL_KEYS)[number], profile: HandProfile): string {
  const hands = handsOf(profile);
  const known = knownFingers(attacks, null, hands);
  const rows = fingerPattern(attacks, known, attacks.length * half, { hands, hand: 'left', tempo: 100, key });
  return rows.map((row) => row.fingers.join('+')).join(' ');
}

const DIMINISHED = 6;

/** What comes of a pattern over every triad with a perfect fifth of every key, where it is not as it should be. */
function wrong(
  words: string,
  fingers: string,
  profiles: readonly HandProfile[],
  spared: (keys: readonly Pitch[]) => boolean = () => false,
) {
  return ALL_KEYS.flatMap((key) =>
    [0, 1, 2, 3, 4, 5, 6].flatMap((degree) => {
      const keys = scaleFrom(key, 36, degree, 12);
      if (midiOf(keys[4]) - midiOf(keys[0]) === DIMINISHED || spared(keys)) return [];
      return profiles.flatMap((profile) => {
        const got = fingersFor(attacksOf(words, keys), key, profile);
        return got === fingers ? [] : [`${profile} ${keys[0]} in ${key.tonic} ${key.mode}: ${got}`];
      });
    }),
  );
}

const SPAN_AN_OCTAVE = HAND_PROFILES.filter((p) => p !== 'child');

describe('patterns of the left hand, in every key', () => {
  it('have the fingers that teachers give them', () => {
    expect(wrong('0 4 2 4', '5 1 3 1', HAND_PROFILES)).toEqual([]);
    expect(wrong('0 4 7 4', '5 2 1 2', SPAN_AN_OCTAVE)).toEqual([]);
    expect(wrong('0 4 7 9 7 4', '5 2 1 2 1 2', SPAN_AN_OCTAVE)).toEqual([]);
    expect(wrong('0 7 0 7', '5 1 5 1', SPAN_AN_OCTAVE)).toEqual([]);
    expect(wrong('0+7 0+7', '5+1 5+1', SPAN_AN_OCTAVE)).toEqual([]);
    expect(wrong('0 4 0 4', '5 1 5 1', HAND_PROFILES)).toEqual([]);
  });

  it('a roll turns at the ninth on the thumb, over and over the same way', () => {
    // Where the ninth is a black key the thumb would lie under long fingers on white ones: there the second finger turns.
    const black = (keys: readonly Pitch[]) => keys.slice(0, 10).some((k) => isBlackKey(midiOf(k)));
    expect(wrong('0 4 8 9 8 4', '5 2 1 3 1 2', ['medium'], black)).toEqual([]);
  });

  it('a hand that spans no octave crosses instead, and moves where its thumb would have to lie on a black key', () => {
    const thumbOnBlack = (keys: readonly Pitch[]) => isBlackKey(midiOf(keys[4])) && !isBlackKey(midiOf(keys[0]));
    expect(wrong('0 4 7 4', '5 1 3 1', ['child'], thumbOnBlack)).toEqual([]);
    expect(wrong('0 4 7 4', '5 4 1 4', ['child'], (keys) => !thumbOnBlack(keys))).toEqual([]);
  });

  it('keep the fingers of the chord as it was learned, whole or without its bass; a bass apart from it is 5', () => {
    const shape = { pitches: ['E3', 'G3', 'C4'], fingers: [5, 3, 1] };
    const play = (words: string) =>
      knownFingers(
        attacksOf('0 1 2', words.split(' ')).map((a, i) => ({ ...a, bass: i === 0, pitches: words.split(' ')[i].split('+') })),
        shape,
        handsOf(),
      );
    expect(play('E3 G3+C4 G3+C4')).toEqual([[5], [3, 1], [3, 1]]);
    expect(play('C2 E3+G3+C4 G3+C4')).toEqual([[5], [5, 3, 1], [3, 1]]);
    expect(play('E3 G3 C4')).toEqual([[5], [3], [1]]);
  });

  it('single notes that lead down by step to the next bass are its neighbours', () => {
    const line = (words: string, next: Pitch | null) => {
      const attacks = words.split(' ').map((word, i) => ({
        at: i * half,
        length: half,
        pitches: [word.replace('>', '')],
        bass: i === 0,
        leads: word.endsWith('>'),
      }));
      return leadingFingers(attacks, next).map((pin) => pin?.[0] ?? 0);
    };
    expect(line('C3 G3 D3>', 'C3')).toEqual([0, 0, 4]);
    expect(line('C3 F3> E3> D3>', 'C3')).toEqual([0, 2, 3, 4]);
    expect(line('C3 G3 B2>', 'C3')).toEqual([0, 0, 0]);
    expect(line('C3 G3 A3>', 'C3')).toEqual([0, 0, 0]);
    expect(line('C3 G3 D3>', null)).toEqual([0, 0, 0]);
  });

  it('cost no more than anything else that could be tried over one bar', () => {
    for (const profile of HAND_PROFILES)
      for (const words of ['0 4 2 4', '0 2+4 7 2+4', '0 4 7 9 7 4', '0 4 2+4 7', '0 4 8 9'])
        for (const key of ALL_KEYS.filter((_, i) => i % 5 === 0)) {
          const attacks = attacksOf(words, scaleFrom(key, 36, 0, 12));
          const hands = handsOf(profile);
          const grips = attacks.map((a, i) => ({ ...a, pin: knownFingers(attacks, null, hands)[i] }));
          const problem = fingeringProblem(grips, { hands, hand: 'left', tempo: 100, key });
          expect(solveFingering(problem).cost).toBeCloseTo(leastOf(problem), 6);
        }
  });
});
