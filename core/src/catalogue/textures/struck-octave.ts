import { texture } from './texture.js';

/** Root, fifth and octave together on every count. */
export const struckOctave = texture({
  id: 'struck-octave',
  title: 'root, fifth and octave together',
  energy: 5,
  order: 230,
  patterns: {
    '2/4': '1+5+8 1+5+8',
    '3/4': '1+5+8 1+5+8 1+5+8',
    '4/4': '1+5+8 1+5+8 1+5+8 1+5+8',
    '6/8': '1+5+8 - - 1+5+8 - -',
  },
});
