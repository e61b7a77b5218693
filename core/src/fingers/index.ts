export { type FingerTerm, type RivalFinger } from './explain.js';
export { fingerLine } from './line.js';
export { type Grip } from './search.js';
