import type { Chord } from '../../harmony/symbol.js';
import type { School } from '../../song/decisions.js';
import { THINNED, type DominantNotes } from './thinned.js';
import { alone, type ShapePattern } from './shape-pattern.js';

/** How a school of voicing lays a chord, and where. */
export interface SchoolRules {
  readonly school: School;
  /** Its place in lists, the usual one first. */
  readonly order: number;
  /** How many notes it strikes at most, three standing for whole chords: what a simpler level allows. */
  readonly notes: 1 | 2 | 3;
  /** Its usual register as MIDI numbers. */
  readonly register: { readonly low: number; readonly high: number };
  /** The middle of its chords lies between these keys at no cost. */
  readonly home: { readonly low: number; readonly high: number };
  /** The shapes of a chord, its own first. The bass note alone is always among them, since every register holds it. */
  readonly patterns: (chord: Chord, dominants: DominantNotes) => ShapePattern[];
}

/** F2 to G4, close chords around C3 to C4, as arranging manuals have it; basses and open chords lie lower. */
export const CLOSE = { register: { low: 41, high: 67 }, home: { low: 48, high: 59 } };
export const LOW = { register: { low: 36, high: 60 }, home: { low: 40, high: 54 } };

/** The bass alone under full chords, where a foreign bass leaves no room for more. */
export const lastResort = (chord: Chord): ShapePattern[] =>
  chord.bass === null ? [] : [alone(chord, THINNED['one-note'] + THINNED['two-note'])];
