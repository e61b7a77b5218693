export { type Grip } from './fingering.js';
export { fingerLine } from './line.js';
export { startOf } from './positions.js';
