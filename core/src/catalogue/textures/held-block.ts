import { everyMeter, texture } from './texture.js';

/** Block chords that are held over the bar lines for as long as they last. */
export const heldBlock = texture({
  id: 'held-block',
  title: 'held block chords',
  energy: 1,
  order: 20,
  patterns: everyMeter('c'),
  alsoCalled: 'slow, long chords',
});
