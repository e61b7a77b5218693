import { isBlackKey, midiOf, type Pitch } from '../pitch/pitch.js';
import type { Hands } from '../song/decisions.js';
import type { Ticks } from '../time/ticks.js';
import { reaches } from './chords.js';
import { FIFTH, OCTAVE } from './costs.js';
import { fingeringProblem, solveFingering, type Fingered, type FingeringTask, type Grip } from './search.js';
import { spansFor } from './spans.js';

/** A chord as it was learned: its keys bottom-up and their fingers. */
export interface LearnedShape {
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
}

/** One attack of a pattern over a chord, its keys bottom-up. */
export interface Attack {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitches: readonly Pitch[];
  /** True for a single note that is the chord's bass. */
  readonly bass: boolean;
  /** True for a single note that is none of the chord but leads to the next one. */
  readonly leads: boolean;
}

/** The finger of a bass. */
const BASS_FINGER = 5;

/**
 * Fingers of the left hand for a pattern over a chord that need no search, attack by attack, null where it decides: keys of the chord as it
 * was learned keep the fingers of its shape (`shape` is null where the pattern does not take it); an octave is 5-1, note after note too;
 * a bass below its chord is 5, and so is the lowest key of a pattern that goes up a fifth or more.
 */
export function knownFingers(attacks: readonly Attack[], shape: LearnedShape | null, hands: Hands): (readonly number[] | null)[] {
  const spans = spansFor(hands, 'left');
  const octave = spans(1, BASS_FINGER).practicalMax >= OCTAVE;
  const chords = attacks.filter((a) => a.pitches.length > 1 && !isOctave(a));
  const lowest = Math.min(...chords.map((a) => midiOf(a.pitches[0])));
  const keys = attacks.filter((a) => !a.leads).flatMap((a) => a.pitches.map(midiOf));
  // A pattern that goes up a fifth or more has its bass at the bottom.
  const bass = Math.max(...keys) - Math.min(...keys) >= FIFTH ? Math.min(...keys) : null;
  return attacks.map((attack) => {
    const { pitches } = attack;
    if (attack.leads) return null;
    const known = shape ? fingersIn(shape, pitches) : null;
    if (known && reaches(pitches.map(midiOf), known, spans)) return known;
    if (isOctave(attack)) return [BASS_FINGER, 1];
    if (pitches.length === 1 && midiOf(pitches[0]) === bass) return [BASS_FINGER];
    if (octave && bass !== null && pitches.length === 1 && midiOf(pitches[0]) === bass + OCTAVE) return [1];
    if (chords.length > 0 && attack.bass && lowest > midiOf(pitches[0])) return [BASS_FINGER];
    return null;
  });
}

/** The fingers that a shape has on some of its keys; null where one is not of them. */
function fingersIn(shape: LearnedShape, pitches: readonly Pitch[]): number[] | null {
  const at = pitches.map((p) => shape.pitches.indexOf(p));
  return at.includes(-1) ? null : at.map((i) => shape.fingers[i]);
}

const isOctave = ({ pitches }: Attack): boolean => pitches.length === 2 && midiOf(pitches[1]) - midiOf(pitches[0]) === OCTAVE;

/** Widest step of a line in semitones: that of a harmonic minor scale. */
const STEP = 3;

/**
 * Fingers for the single notes at the end of a pattern that lead down by step to the bass of the next chord, which is 5: its neighbours 4, 3
 * and 2 before it. Null for every other attack.
 */
export function leadingFingers(attacks: readonly Attack[], next: Pitch | null): (readonly number[] | null)[] {
  const pins: (readonly number[] | null)[] = attacks.map(() => null);
  let to = next === null ? -Infinity : midiOf(next);
  for (let k = attacks.length - 1, finger = BASS_FINGER - 1; k > 0 && finger > 1; k--, finger--) {
    const { pitches, leads } = attacks[k];
    const [midi] = pitches.map(midiOf);
    if (!leads || pitches.length > 1 || midi <= to || midi - to > STEP) break;
    pins[k] = [finger];
    to = midi;
  }
  return pins;
}

/** A pattern as text: over a shape of the same distances and colours it is the same to play, wherever it stands. */
export function patternPrint(attacks: readonly Attack[], known: readonly (readonly number[] | null)[]): string {
  const [{ at, pitches }] = attacks;
  const lowest = midiOf(pitches[0]);
  return attacks
    .map((a, i) => {
      const keys = a.pitches.map((p) => `${midiOf(p) - lowest}${isBlackKey(midiOf(p)) ? 'b' : 'w'}`);
      return `${a.at - at} ${keys.join('+')} ${known[i]?.join('') ?? ''}`;
    })
    .join('; ');
}

/**
 * Fingers a pattern over one chord as it goes round and round, the same way each time: of the ways to play it twice that the search
 * finds best, the one that costs least when both times are alike. `length` is that of the chord in ticks.
 */
export function fingerPattern(
  attacks: readonly Attack[],
  known: readonly (readonly number[] | null)[],
  length: Ticks,
  task: FingeringTask,
): Fingered[] {
  const twice = (pins: readonly (readonly number[] | null)[]) => {
    const grips = attacks.map((a, i): Grip => ({ ...a, pin: pins[i] }));
    const again = grips.map((g): Grip => ({ ...g, at: g.at + length }));
    return solveFingering(fingeringProblem([...grips, ...again], task));
  };
  const { row } = twice(known);
  const fingers = row.map((f) => f.fingers);
  const [first, second] = [fingers.slice(0, attacks.length), fingers.slice(attacks.length)];
  if (first.join(' ') === second.join(' ')) return row.slice(0, attacks.length);
  const [once, again] = [twice(first), twice(second)];
  return (again.cost < once.cost ? again : once).row.slice(0, attacks.length);
}

/** Where the thumb passes under a finger in a pattern, or a finger over the thumb, each turn once. */
export function turnsIn(attacks: readonly Attack[], row: readonly Fingered[]): FingerTurn[] {
  const turns = row.flatMap(({ move, fingers }, i): FingerTurn[] => {
    if (move !== 'under' && move !== 'over') return [];
    // The pattern goes round: before its first attack comes the last.
    const [before] = row[(i + row.length - 1) % row.length].fingers;
    const finger = move === 'under' ? before : fingers[0];
    return [{ code: 'finger.turns', move, finger, pitch: attacks[i].pitches[0] }];
  });
  return [...new Map(turns.map((t) => [`${t.move} ${t.finger} ${t.pitch}`, t])).values()];
}

/** A crossing inside a pattern: the long finger of it, and the key to which the hand goes so. */
export interface FingerTurn {
  readonly code: 'finger.turns';
  readonly move: 'under' | 'over';
  readonly finger: number;
  readonly pitch: Pitch;
}
