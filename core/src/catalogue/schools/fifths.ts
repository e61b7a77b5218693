import { LOW, type SchoolRules } from './school.js';
import { alone, over } from './shape-pattern.js';
import { fifthOf, rootOf } from './tones.js';

/** Open fifths, low: the melody says major or minor. */
export const fifths: SchoolRules = {
  school: 'fifths',
  order: 50,
  notes: 2,
  ...LOW,
  patterns: (chord) => [
    ...over(chord, 'two-note', fifthOf(chord)),
    ...(chord.bass === null ? [] : over(chord, 'two-note', rootOf(chord))),
    alone(chord),
  ],
};
