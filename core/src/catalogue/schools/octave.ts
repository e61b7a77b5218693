import { LOW, type SchoolRules } from './school.js';
import { alone, octaveOf } from './shape-pattern.js';

/** The root in octaves: strong and hollow. */
export const octave: SchoolRules = {
  school: 'octave',
  order: 70,
  notes: 2,
  ...LOW,
  patterns: (chord) => [octaveOf(chord, 0), alone(chord)],
};
