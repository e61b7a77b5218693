import { texture } from './texture.js';

/** Root and fifth take turns under the chord. */
export const alternatingBass = texture({
  id: 'alternating-bass',
  title: 'alternating bass',
  energy: 3,
  order: 110,
  patterns: {
    '2/4': '1 u 5, u',
    '3/4': '1 u u | 5, u u',
    '4/4': '1 u 5, u',
    '6/8': '1 u u 5, u u',
    '12/8': '1 u u 1 u u 5, u u 5, u u',
  },
  alsoCalled: 'country, root and fifth',
});
