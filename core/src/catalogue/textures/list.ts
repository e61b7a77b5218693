// Written by `npm run lists` from the files that it names: they say their order.
import { alternatingBass } from './alternating-bass.js';
import { bassChord } from './bass-chord.js';
import { bassChordChord } from './bass-chord-chord.js';
import { block } from './block.js';
import { brokenTriad } from './broken-triad.js';
import { countedBlock } from './counted-block.js';
import { drivingBass } from './driving-bass.js';
import { heldBlock } from './held-block.js';
import { leaping } from './leaping.js';
import { leapingTenth } from './leaping-tenth.js';
import { longBass } from './long-bass.js';
import { longRoll } from './long-roll.js';
import { octaveBass } from './octave-bass.js';
import { oneFiveEight } from './one-five-eight.js';
import { openTenth } from './open-tenth.js';
import { pedalNote } from './pedal-note.js';
import { pushedBass } from './pushed-bass.js';
import { restChord } from './rest-chord.js';
import { riseAndFall } from './rise-and-fall.js';
import { risingOctave } from './rising-octave.js';
import { shapeApart } from './shape-apart.js';
import { stepLine } from './step-line.js';
import { struckOctave } from './struck-octave.js';

/** The textures that come with the application. */
export const TEXTURES = [
  block,
  heldBlock,
  longBass,
  shapeApart,
  openTenth,
  countedBlock,
  bassChord,
  pedalNote,
  restChord,
  bassChordChord,
  alternatingBass,
  stepLine,
  octaveBass,
  brokenTriad,
  oneFiveEight,
  risingOctave,
  riseAndFall,
  longRoll,
  leaping,
  leapingTenth,
  drivingBass,
  pushedBass,
  struckOctave,
];
