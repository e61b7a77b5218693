import type { Key } from '../harmony/key.js';
import type { Position } from '../harmony/naming.js';
import type { NoteName, Pitch } from '../pitch/pitch.js';
import type { Place } from '../time/bars.js';
import type { Fact } from './fact.js';

/** What a catalogue makes its sentences with: notes as they are named here, numbers, lists, places. */
export interface Speech {
  /** A fact in its words. */
  readonly fact: (fact: Fact) => string;
  readonly note: (name: NoteName) => string;
  /** A note and what is struck with it, the tune's first: "E+C". */
  readonly struck: (name: NoteName, beside: readonly { readonly letter: NoteName }[]) => string;
  readonly pitch: (pitch: Pitch) => string;
  /** Pitches in a row, bottom-up: "C3 E3 G3". */
  readonly pitches: (pitches: readonly Pitch[]) => string;
  /** The same without their octaves: "C E G". */
  readonly notes: (pitches: readonly Pitch[]) => string;
  /** A chord symbol: "Gm7". */
  readonly symbol: (symbol: string) => string;
  /** A chord by its name: "G minor seventh". */
  readonly chord: (symbol: string) => string;
  readonly key: (key: Key) => string;
  /** How a chord lies: "first inversion". */
  readonly position: (position: Position) => string;
  /** A key as a teacher names it: "the F above middle C". */
  readonly pianoKey: (pitch: Pitch) => string;
  /** "bar 3, count 2 &". */
  readonly place: (place: Place) => string;
  /** A distance in semitones: "a minor third". */
  readonly interval: (semitones: number) => string;
  /** A number with its noun: "1 chord", "3 chords"; the plural is made with an s where none is given. */
  readonly count: (n: number, one: string, many?: string) => string;
  /** The same with small numbers in words: "one chord", "five chords". */
  readonly countInWords: (n: number, one: string, many?: string) => string;
  /** "A", "A and C", "A, C and E". */
  readonly list: (items: readonly string[]) => string;
  /** A number with at most so many digits behind the point. */
  readonly number: (n: number, digits?: number) => string;
}
