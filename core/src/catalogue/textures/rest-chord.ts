import { texture } from './texture.js';

/** A rest, then the chord: the bass is left to another player. */
export const restChord = texture({
  id: 'rest-chord',
  title: 'rest, then chords',
  energy: 2,
  order: 90,
  patterns: {
    '2/4': '. c',
    '3/4': '. c c',
    '4/4': '. c . c',
    '6/8': '. . . c - -',
  },
});
