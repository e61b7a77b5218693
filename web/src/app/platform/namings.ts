import { NOTE_NAMES, type NoteNames } from '@joined-hands/core/words';

const EXAMPLES: Readonly<Record<NoteNames, string>> = {
  letters: 'C D E',
  solfege: $localize`do re mi`,
  german: 'C D E … H (German)',
};

/** The ways to name notes, each by its first names. */
export const NAMINGS = NOTE_NAMES.map((id) => ({ id, text: EXAMPLES[id] }));
