export { givenTo, type ChordStretch, type GivenFigure } from './given.js';
export { type Voicing, voicingsFor } from './candidates.js';
export { motionBetween } from './costs.js';
export { type VoicingWishes } from './problem.js';
export { type VoicingFact } from './reasons.js';
export { SCHOOL_RULES } from '../catalogue/schools/registry.js';
export { gripsOf, shapeOf, shapesOf } from './shapes.js';
export { type Strike } from './strikes.js';
export { type VoicedChord, voiceLeftHand } from './voice.js';
