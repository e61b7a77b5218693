import { texture } from './texture.js';

/** The bass and its octave, up and down. */
export const octaveBass = texture({
  id: 'octave-bass',
  title: 'octave bass, up and down',
  energy: 3,
  order: 130,
  patterns: {
    '2/4': '1 8',
    '3/4': '1 8 8',
    '4/4': '1 8 1 8',
    '6/8': '1 - 8 1 - 8',
    '12/8': '1 - 8 1 - 8 1 - 8 1 - 8',
  },
});
