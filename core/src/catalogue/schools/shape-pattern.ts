import { pitchClass, type NoteName } from '../../pitch/pitch.js';
import type { Chord, ChordTone } from '../../harmony/symbol.js';
import { THINNED_COSTS, type Form } from './thinned.js';

/** Notes to play, bottom note first where their order is given. */
export interface NoteSet {
  readonly form: Form;
  readonly names: readonly NoteName[];
  /** True where the notes lie in this order and in no other: tensions are spread, not clustered. */
  readonly inOrder?: boolean;
}

/** A note set as a school lays it: which turns it may take, and whether the hand may strike it one after the other. */
export interface ShapePattern extends NoteSet {
  /** Which notes may lie at the bottom, the rest close above it; null where the order is given. */
  readonly turns: 'any' | 'root' | null;
  /** Semitones from the bottom note up to each of the others, where the school says how far apart they lie. */
  readonly gaps: readonly number[] | null;
  readonly price: number;
}

/** A note set that may lie any way up. */
export const free = (set: NoteSet, price = 0): ShapePattern => ({ ...set, turns: 'any', gaps: null, price });

/** A note set any way up, or in the order that it asks for. */
export const laid = (set: NoteSet, price: number): ShapePattern => ({ ...free(set, price), turns: set.inOrder ? null : 'any' });

/** The lowest note of a chord: its own bass, else its root. */
export const bassOf = (chord: Chord): NoteName => chord.bass ?? chord.root;

/** Notes over the bass; a note that is the bass already is not doubled. */
export function over(chord: Chord, form: Form, tones: readonly ChordTone[], price = 0): ShapePattern[] {
  const bass = bassOf(chord);
  const names = tones.map((t) => t.name).filter((n) => pitchClass(n) !== pitchClass(bass));
  return names.length === 0 ? [] : [{ form, names: [bass, ...names], turns: null, gaps: null, price }];
}

/** The bass note alone, on which every school can fall back. */
export const alone = (chord: Chord, price: number = THINNED_COSTS.fallback): ShapePattern => ({
  form: 'one-note',
  names: [bassOf(chord)],
  turns: null,
  gaps: null,
  price,
});

/** The bass with its octave. */
export const octaveOf = (chord: Chord, price: number): ShapePattern => ({
  form: 'two-note',
  names: [bassOf(chord), bassOf(chord)],
  turns: null,
  gaps: [12],
  price,
});
