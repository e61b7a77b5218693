export { startOf } from './positions.js';
