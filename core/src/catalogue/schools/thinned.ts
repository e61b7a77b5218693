import type { Chord } from '../../harmony/symbol.js';

/** Which notes of the chord a voicing keeps. */
export type Form = 'full' | 'no-fifth' | 'two-note' | 'one-note' | 'rootless';

/**
 * How many notes a dominant seventh is played with: three leave out its fifth. "all-three" is the simpler version in which every seventh
 * has three.
 */
export type DominantNotes = 'three' | 'four' | 'all-three';

/** What is charged for chords that are not played in full, in half steps of motion. */
export const THINNED_COSTS = {
  /** The chord's fifth left out, all but two notes left out, one note alone. */
  withoutFifth: 6,
  twoNotes: 9,
  oneNote: 20,
  /** A rootless chord: the ear has no bass player to lean on. */
  rootless: 3,
  /** A ninth or thirteenth chord with its root below, and one without its tension. */
  withRoot: 6,
  withoutTension: 14,
  /** More than three notes in a version that has no more. */
  tooMany: 200,
  /** The fourth note of a dominant seventh that is learned with three, after triads. */
  fourthNote: 14,
  /** The bass note alone, where a school has no shape of its own that fits. */
  fallback: 100,
} as const;

/** The same by what a voicing keeps. */
export const THINNED: Readonly<Record<Form, number>> = {
  full: 0,
  'no-fifth': THINNED_COSTS.withoutFifth,
  'two-note': THINNED_COSTS.twoNotes,
  'one-note': THINNED_COSTS.oneNote,
  rootless: THINNED_COSTS.rootless,
};

/** What a note set is charged: by what it keeps, a dominant seventh by how many notes it is wished with. */
export function thinnedFor(
  chord: Chord,
  { form, inOrder }: { readonly form: Form; readonly inOrder?: boolean },
  dominants: DominantNotes,
  charges: Readonly<Record<Form, number>> = THINNED,
): number {
  if (dominants === 'all-three' && hasSeventh(chord) && !inOrder && form === 'no-fifth') return 0;
  if (dominants === 'all-three' && chord.tones.length > 3 && form !== 'two-note' && form !== 'one-note')
    return THINNED_COSTS.tooMany;
  if (chord.tones.length > 4 && form === 'no-fifth') return inOrder ? THINNED_COSTS.withRoot : THINNED_COSTS.withoutTension;
  if (dominants === 'four' || !isDominantSeventh(chord)) return charges[form];
  if (form === 'no-fifth') return 0;
  return form === 'full' ? THINNED_COSTS.fourthNote : charges[form];
}

/** True for a chord with a seventh, or a sixth in its place, that can be told in three notes. */
const hasSeventh = ({ quality, bass, root }: Chord): boolean =>
  (quality.seventh !== null || quality.sixth) && (bass === null || bass === root);

/** A major triad with a minor seventh and nothing else, over its own root: the chord that beginners meet after the triads. */
export function isDominantSeventh({ quality, bass, root, tones }: Chord): boolean {
  const plain = quality.triad === 'major' && quality.seventh === '7m' && tones.length === 4 && !quality.sixth;
  return plain && (bass === null || bass === root);
}
