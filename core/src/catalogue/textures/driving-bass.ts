import { texture } from './texture.js';

/** A bass on one, on two and, on three and on four and. */
export const drivingBass = texture({
  id: 'driving-bass',
  title: 'bass on 1, 2 &, 3, 4 &',
  energy: 4,
  order: 210,
  patterns: {
    '2/4': '1 - - 1',
    '4/4': '1 - - 1 1 - - 1',
  },
});
