export { type FingerFact, type FingerReasons } from './explain.js';
export { fingerLine } from './line.js';
export { type Grip } from './search.js';
