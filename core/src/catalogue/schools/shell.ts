import { CLOSE, type SchoolRules } from './school.js';
import { alone, over } from './shape-pattern.js';
import { seventhOf, thirdOf } from './tones.js';

/** The root with its seventh, or with its third. */
export const shell: SchoolRules = {
  school: 'shell',
  order: 40,
  notes: 2,
  ...CLOSE,
  patterns: (chord) => {
    const seventh = seventhOf(chord);
    const third = over(chord, 'two-note', thirdOf(chord), seventh.length > 0 ? 1 : 0);
    return [...over(chord, 'two-note', seventh), ...third, alone(chord)];
  },
};
