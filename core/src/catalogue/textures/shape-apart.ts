import { texture } from './texture.js';

/** The lowest note of the chord as it was learned, then the rest of it: nothing new to learn. */
export const shapeApart = texture({
  id: 'shape-apart',
  title: 'the chord taken apart',
  energy: 2,
  order: 40,
  patterns: {
    '2/4': 'b r',
    '3/4': 'b r r',
    '4/4': 'b r b r',
    '5/4': 'b r r b r',
    '6/8': 'b - - r - -',
    '9/8': 'b - - r - - r - -',
    '12/8': 'b - - r - - b - - r - -',
  },
});
