import { texture } from './texture.js';

/** A bass on one, on two and, on three and on four and. */
export const drivingBass = texture('driving-bass', 'bass on 1, 2 &, 3, 4 &', 4, {
  '2/4': '1 - - 1',
  '4/4': '1 - - 1 1 - - 1',
});
