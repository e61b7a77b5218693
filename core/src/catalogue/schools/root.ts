import { CLOSE, lastResort, type SchoolRules } from './school.js';
import { noteSets } from './note-sets.js';
import { laid, type ShapePattern } from './shape-pattern.js';
import { THINNED, thinnedFor, type Form } from './thinned.js';

/** Its point is the full chord: fewer notes cost more than elsewhere. */
const THINNED_ROOT: Readonly<Record<Form, number>> = { ...THINNED, 'no-fifth': 30, 'two-note': 60, 'one-note': 90 };

/** Full chords with the root below. */
export const root: SchoolRules = {
  school: 'root',
  order: 20,
  notes: 3,
  ...CLOSE,
  patterns: (chord, dominants) => [
    ...noteSets(chord)
      .filter((s) => s.form !== 'rootless' && s.names[0] === chord.root)
      .map((s): ShapePattern => {
        const pattern = laid(s, thinnedFor(chord, s, dominants, THINNED_ROOT));
        return pattern.turns === null ? pattern : { ...pattern, turns: 'root' };
      }),
    ...lastResort(chord),
  ],
};
