// Written by `npm run lists` from the files that it names: they say their order.
import { abc } from './abc/format.js';
import { chordpro } from './chordpro/format.js';
import { letters } from './letters/format.js';
import { midi } from './midi/format.js';
import { musicxml } from './musicxml/format.js';
import { project } from './project/format.js';

/** Every format that a song may come in. */
export const READERS = { midi, musicxml, project, letters, abc, chordpro };
