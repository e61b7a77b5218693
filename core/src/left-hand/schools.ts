import type { School } from '../song/decisions.js';

/** How a school of voicing lays a chord, and where. */
export interface SchoolRules {
  /** The school in a word or two, as a choice is labelled. */
  readonly name: string;
  /** What it is good for, in one line. */
  readonly words: string;
  /** How many notes it strikes at most, three standing for whole chords: what a simpler level allows. */
  readonly notes: 1 | 2 | 3;
  /** Its usual register as MIDI numbers. */
  readonly register: { readonly low: number; readonly high: number };
  /** The middle of its chords lies between these keys at no cost. */
  readonly home: { readonly low: number; readonly high: number };
}

/** F2 to G4, close chords around C3 to C4, as arranging manuals have it; basses and open chords lie lower. */
const CLOSE = { register: { low: 41, high: 67 }, home: { low: 48, high: 59 } };
const LOW = { register: { low: 36, high: 60 }, home: { low: 40, high: 54 } };

/** The schools of left-hand voicing. */
export const SCHOOL_RULES: Readonly<Record<School, SchoolRules>> = {
  close: { notes: 3, name: 'nearest inversion', words: 'Full chords that move as little as they can.', ...CLOSE },
  root: { notes: 3, name: 'root position', words: 'Full chords, root below: easy to name, far to jump.', ...CLOSE },
  'two-note': { notes: 2, name: 'two notes', words: 'Two notes near the hand, for a first year.', ...CLOSE },
  shell: { notes: 2, name: 'root and seventh', words: 'The root with its seventh or third: the bare bones.', ...CLOSE },
  fifths: { notes: 2, name: 'root and fifth', words: 'Open fifths: the tune says major or minor.', ...LOW },
  open: {
    notes: 3,
    name: 'open 1–5–10',
    words: 'Wide and warm; rolled or broken past your reach.',
    register: { low: 36, high: 67 },
    home: { low: 45, high: 57 },
  },
  octave: { notes: 2, name: 'root octaves', words: 'The root in octaves: strong and hollow.', ...LOW },
  'single-bass': { notes: 1, name: 'one bass note', words: 'The bass note alone: the lightest hand.', ...LOW },
  'under-melody': {
    notes: 3,
    name: 'chord under the tune',
    words: 'The right hand holds the chord, the left the bass.',
    ...LOW,
  },
};
