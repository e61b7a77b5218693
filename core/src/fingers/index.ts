export { type FingerFact, type FingerReasons } from './explain.js';
export { chordFingerFact, triedFingersFact } from './chords.js';
export { fingerLine } from './line.js';
export { type Grip } from './search.js';
