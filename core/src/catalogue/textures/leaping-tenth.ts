import { texture } from './texture.js';

/** From the bass to the tenth and twelfth together, and back to the octave. */
export const leapingTenth = texture('leaping-tenth', 'leaping one, five, tenth and twelfth, eight', 4, {
  '2/4': '1 5 10+12 8',
  '3/4': '1 5 10+12 8 10+12 8',
  '4/4': '1 5 10+12 8 1 5 10+12 8',
  '6/8': '1 - 5 10+12 - 8',
});
