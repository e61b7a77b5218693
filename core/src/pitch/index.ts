export { isBlackKey, midiOf, nameOf, pitchAt, staffStep } from './pitch.js';
