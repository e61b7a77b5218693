import { everyMeter, texture } from './texture.js';

/** Each chord struck where it begins and at each bar line, as the left hand voices it. */
export const block = texture({
  id: 'block',
  title: 'block chords',
  energy: 1,
  order: 10,
  patterns: everyMeter('c'),
  alsoCalled: 'plain, easiest',
});
