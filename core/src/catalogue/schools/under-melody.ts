import { LOW, type SchoolRules } from './school.js';
import { alone, octaveOf } from './shape-pattern.js';

/** The bass in the left hand, alone or in octaves; the right hand plays the chord under the tune. */
export const underMelody: SchoolRules = {
  school: 'under-melody',
  order: 90,
  notes: 3,
  ...LOW,
  patterns: (chord) => [alone(chord, 0), octaveOf(chord, 2)],
};
