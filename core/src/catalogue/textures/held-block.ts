import { everyMeter, texture } from './texture.js';

/** Block chords that are held over the bar lines for as long as they last. */
export const heldBlock = texture('held-block', 'held block chords', 1, everyMeter('c'), 'slow, long chords');
