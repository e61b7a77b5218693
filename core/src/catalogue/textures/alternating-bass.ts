import { texture } from './texture.js';

/** Root and fifth take turns under the chord. */
export const alternatingBass = texture(
  'alternating-bass',
  'alternating bass',
  3,
  {
    '2/4': '1 u 5, u',
    '3/4': '1 u u | 5, u u',
    '4/4': '1 u 5, u',
    '6/8': '1 u u 5, u u',
    '12/8': '1 u u 1 u u 5, u u 5, u u',
  },
  'country, root and fifth',
);
