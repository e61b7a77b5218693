import type { School } from '../../song/decisions.js';
import { close } from './close.js';
import { fifths } from './fifths.js';
import { octave } from './octave.js';
import { open } from './open.js';
import { root } from './root.js';
import { shell } from './shell.js';
import { singleBass } from './single-bass.js';
import { twoNote } from './two-note.js';
import { underMelody } from './under-melody.js';
import type { SchoolRules } from './school.js';

/** The schools of left-hand voicing: the compiler misses one that has no file. */
export const SCHOOL_RULES: Readonly<Record<School, SchoolRules>> = {
  close,
  root,
  'two-note': twoNote,
  shell,
  fifths,
  open,
  octave,
  'single-bass': singleBass,
  'under-melody': underMelody,
};
