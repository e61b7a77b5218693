// Written by `npm run lists` from the files that it names: they say their order.
import { close } from './close.js';
import { fifths } from './fifths.js';
import { octave } from './octave.js';
import { open } from './open.js';
import { root } from './root.js';
import { shell } from './shell.js';
import { singleBass } from './single-bass.js';
import { twoNote } from './two-note.js';
import { underMelody } from './under-melody.js';

/** Every school of left-hand voicing. */
export const ALL_SCHOOLS = [close, root, twoNote, shell, fifths, open, octave, singleBass, underMelody];
