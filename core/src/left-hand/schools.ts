import type { School } from '../song/decisions.js';

/** How a school of voicing lays a chord, and where. */
export interface SchoolRules {
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
  close: { notes: 3, ...CLOSE },
  root: { notes: 3, ...CLOSE },
  'two-note': { notes: 2, ...CLOSE },
  shell: { notes: 2, ...CLOSE },
  fifths: { notes: 2, ...LOW },
  open: {
    notes: 3,
    register: { low: 36, high: 67 },
    home: { low: 45, high: 57 },
  },
  octave: { notes: 2, ...LOW },
  'single-bass': { notes: 1, ...LOW },
  'under-melody': {
    notes: 3,
    ...LOW,
  },
};
