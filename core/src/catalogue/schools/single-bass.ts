import { LOW, type SchoolRules } from './school.js';
import { alone } from './shape-pattern.js';

/** The bass note alone: the lightest hand. */
export const singleBass: SchoolRules = {
  school: 'single-bass',
  order: 80,
  notes: 1,
  ...LOW,
  patterns: (chord) => [alone(chord, 0)],
};
