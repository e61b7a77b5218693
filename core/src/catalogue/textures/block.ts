import { everyMeter, texture } from './texture.js';

/** Each chord struck where it begins and at each bar line, as the left hand voices it. */
export const block = texture('block', 'block chords', 1, everyMeter('c'), 'plain, easiest');
