import { texture } from './texture.js';

/** Root, fifth and octave together on every count. */
export const struckOctave = texture('struck-octave', 'root, fifth and octave together', 5, {
  '2/4': '1+5+8 1+5+8',
  '3/4': '1+5+8 1+5+8 1+5+8',
  '4/4': '1+5+8 1+5+8 1+5+8 1+5+8',
  '6/8': '1+5+8 - - 1+5+8 - -',
});
