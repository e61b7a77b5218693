import { distance } from '@tonaljs/interval';
import { simplify, transpose, transposeFifths } from '@tonaljs/note';
import { remembered } from '../lists/remembered.js';

/** A spelled pitch in scientific notation, "Bb3"; middle C is "C4". */
export type Pitch = string;
/** A spelled note name without octave, "Bb", "F#", "Cb". */
export type NoteName = string;

export const LOWEST_KEY = 21;
export const HIGHEST_KEY = 108;

const LETTERS = 'CDEFGAB';
const SEMITONES = [0, 2, 4, 5, 7, 9, 11];
const PITCH = /^([A-G])(b{1,3}|#{1,3}|)(-?\d{1,2})$/;

/** A pitch taken apart: letter step 0–6 from C, alteration in semitones, octave. */
export interface PitchParts {
  readonly step: number;
  readonly alter: number;
  readonly octave: number;
}

/** A function of text whose few different answers are kept: there are no more pitches than a piano has names for. */
function kept<T>(answer: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    let found = known.get(text);
    if (found === undefined) known.set(text, (found = answer(text)));
    return found;
  };
}

/** Takes a pitch apart. Throws a RangeError for text that is not a pitch: callers have validated it. */
export const pitchParts: (pitch: Pitch) => PitchParts = kept((pitch) => {
  const match = PITCH.exec(pitch);
  if (!match) throw new RangeError(`"${pitch}" is not a pitch`);
  const alter = match[2].startsWith('b') ? -match[2].length : match[2].length;
  return { step: LETTERS.indexOf(match[1]), alter, octave: Number(match[3]) };
});

/** True for text such as "Bb3" or "F##5". */
export function isPitch(text: string): boolean {
  return PITCH.test(text);
}

/** A pitch put together; the inverse of {@link pitchParts}. */
function makePitch(parts: PitchParts): Pitch {
  return `${noteName(parts.step, parts.alter)}${parts.octave}`;
}

/** A note name from its letter step (0–6 from C) and alteration. */
export function noteName(step: number, alter: number): NoteName {
  return LETTERS[step] + (alter < 0 ? 'b'.repeat(-alter) : '#'.repeat(alter));
}

/** MIDI number: middle C is 60. "Cb4" is 59, "B#3" is 60. */
export const midiOf: (pitch: Pitch) => number = kept((pitch) => {
  const { step, alter, octave } = pitchParts(pitch);
  return SEMITONES[step] + alter + 12 * (octave + 1);
});

/** Pitch class 0–11 of a note name; C is 0. */
export const pitchClass: (name: NoteName) => number = kept((name) => (midiOf(`${name}4`) + 120) % 12);

/** The plain name of a note that is spelled with a double sharp or flat: A for "Bbb". */
export function simpleName(name: NoteName): NoteName {
  return simplify(name);
}

/** The name of a pitch without its octave. */
export const nameOf: (pitch: Pitch) => NoteName = kept((pitch) => pitch.replace(/-?\d+$/, ''));

/** Staff steps above C0, for placing a note high or low. */
export function staffStep(pitch: Pitch): number {
  const { step, octave } = pitchParts(pitch);
  return octave * 7 + step;
}

/** The spelled pitch with this name that sounds at `midi`; the name must fit the key. */
export function pitchAt(name: NoteName, midi: number): Pitch {
  const octave = Math.round((midi - midiOf(`${name}0`)) / 12);
  return `${name}${octave}`;
}

/** The other usual name of a note, "Db" for "C#" and "E" for "Fb", or null for one that has no other with at most one sign. */
export function otherName(name: NoteName): NoteName | null {
  const { step } = pitchParts(`${name}4`);
  for (const by of [1, 6])
    for (const alter of [0, 1, -1]) {
      const other = noteName((step + by) % 7, alter);
      if (pitchClass(other) === pitchClass(name)) return other;
    }
  return null;
}

/** Moves a pitch by an interval such as "3M" or "-2m". */
export function transposePitch(pitch: Pitch, interval: string): Pitch {
  return transpose(pitch, interval);
}

/** Moves a note name by an interval. */
export const transposeName: (name: NoteName, interval: string) => NoteName = remembered(
  4000,
  (name, interval) => `${name} ${interval}`,
  (name, interval) => transpose(name, interval),
);

/** The note that lies some fifths up, or down below 0: B flat two fifths below C. */
export const fifthsUp = (name: NoteName, fifths: number): NoteName => transposeFifths(name, fifths);

/** How many fifths a note lies above C, as signatures count: -2 for B flat. Each sharp is seven more. */
export function fifthsAbove(name: NoteName): number {
  const { step, alter } = pitchParts(`${name}4`);
  return 'FCGDAEB'.indexOf(LETTERS[step]) - 1 + 7 * alter;
}

/** The interval from one name up to another, "3m". */
export function intervalBetween(from: NoteName, to: NoteName): string {
  return distance(from, to);
}

/** The same note some octaves higher, or lower below 0. */
export function octaveUp(pitch: Pitch, octaves: number): Pitch {
  const parts = pitchParts(pitch);
  return makePitch({ ...parts, octave: parts.octave + octaves });
}

/** True for a black key. */
export function isBlackKey(midi: number): boolean {
  return [1, 3, 6, 8, 10].includes(((midi % 12) + 12) % 12);
}

/** Pitches from the lowest up. */
export const bottomUp = (pitches: readonly Pitch[]): Pitch[] => [...pitches].sort((a, b) => midiOf(a) - midiOf(b));
