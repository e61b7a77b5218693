import { noteSets } from './note-sets.js';
import { CLOSE, lastResort, type SchoolRules } from './school.js';
import { free } from './shape-pattern.js';
import { THINNED } from './thinned.js';

/** Full chords that move as little as possible, in any inversion. */
export const close: SchoolRules = {
  school: 'close',
  notes: 3,
  ...CLOSE,
  patterns: (chord) => [...noteSets(chord).map((s) => free(s, THINNED[s.form])), ...lastResort(chord)],
};
