export { approachChords, chordChanges, forLeadingTriad, turnBacks } from './changes.js';
export { chordsHolding, type HoldingChord } from './holding.js';
export { type Key, keyName, keysOf, MODES, type Mode, parseKey } from './key.js';
export { degreeOf, toneFor } from './naming.js';
export { otherNames } from './same-notes.js';
export { suggestChords } from './suggest.js';
export { type Chord, parseChord } from './symbol.js';
export { HARMONIC_RHYTHMS, VOCABULARIES, type Vocabulary } from './wishes.js';
