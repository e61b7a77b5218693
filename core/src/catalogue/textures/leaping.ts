import { texture } from './texture.js';

/** From the bass to two notes of the chord and the octave. */
export const leaping = texture({
  id: 'leaping',
  title: 'leaping one, five, chord, eight',
  energy: 4,
  order: 190,
  patterns: {
    '2/4': '1 5 3+5 8',
    '3/4': '1 5 3+5 8 3+5 8',
    '4/4': '1 5 3+5 8 1 5 3+5 8',
    '6/8': '1 - 5 3+5 - 8',
  },
});
