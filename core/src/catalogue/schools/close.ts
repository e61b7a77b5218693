import { noteSets } from './note-sets.js';
import { CLOSE, lastResort, type SchoolRules } from './school.js';
import { laid } from './shape-pattern.js';
import { thinnedFor } from './thinned.js';

/** Full chords that move as little as possible, in any inversion. */
export const close: SchoolRules = {
  school: 'close',
  order: 10,
  notes: 3,
  ...CLOSE,
  patterns: (chord, dominants) => [
    ...noteSets(chord).map((set) => laid(set, thinnedFor(chord, set, dominants))),
    ...lastResort(chord),
  ],
};
