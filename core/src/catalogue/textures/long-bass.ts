import { everyMeter, texture } from './texture.js';

/** The bass alone, for as long as the chord lasts. */
export const longBass = texture({ id: 'long-bass', title: 'long bass', energy: 1, order: 30, patterns: everyMeter('1') });
