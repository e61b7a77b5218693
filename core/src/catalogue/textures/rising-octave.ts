import { texture } from './texture.js';

/** One, three, five and eight, rising. */
export const risingOctave = texture({
  id: 'rising-octave',
  title: 'one, three, five, eight',
  energy: 3,
  order: 160,
  patterns: {
    '2/4': '1 3 5 8',
    '3/4': '1 3 5 8 5 3',
    '4/4': '1 3 5 8 1 3 5 8',
    '6/8': '1 - 3 5 - 8',
  },
});
