import { texture } from './texture.js';

/** From the bass to the tenth and twelfth together, and back to the octave. */
export const leapingTenth = texture({
  id: 'leaping-tenth',
  title: 'leaping one, five, tenth and twelfth, eight',
  energy: 4,
  order: 200,
  patterns: {
    '2/4': '1 5 10+12 8',
    '3/4': '1 5 10+12 8 10+12 8',
    '4/4': '1 5 10+12 8 1 5 10+12 8',
    '6/8': '1 - 5 10+12 - 8',
  },
});
