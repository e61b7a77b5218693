/** Which notes of the chord a voicing keeps. */
export type Form = 'full' | 'no-fifth' | 'two-note' | 'one-note' | 'rootless';

/** What is charged for chords that are not played in full, in half steps of motion. */
export const THINNED_COSTS = {
  /** The chord's fifth left out, all but two notes left out, one note alone. */
  withoutFifth: 4,
  twoNotes: 9,
  oneNote: 20,
  /** A rootless chord: the ear has no bass player to lean on. */
  rootless: 3,
  /** The bass note alone, where a school has no shape of its own that fits. */
  fallback: 60,
} as const;

/** The same by what a voicing keeps. */
export const THINNED: Readonly<Record<Form, number>> = {
  full: 0,
  'no-fifth': THINNED_COSTS.withoutFifth,
  'two-note': THINNED_COSTS.twoNotes,
  'one-note': THINNED_COSTS.oneNote,
  rootless: THINNED_COSTS.rootless,
};
