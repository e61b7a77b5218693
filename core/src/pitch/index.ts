export { isBlackKey, midiOf, nameOf, otherName, pitchAt, staffStep } from './pitch.js';
