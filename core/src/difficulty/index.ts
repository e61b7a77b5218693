export { type Load, type DifficultyFact } from './difficulty.js';
