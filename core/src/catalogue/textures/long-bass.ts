import { everyMeter, texture } from './texture.js';

/** The bass alone, for as long as the chord lasts. */
export const longBass = texture('long-bass', 'long bass', 1, everyMeter('1'));
