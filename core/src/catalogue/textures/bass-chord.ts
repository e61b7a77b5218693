import { texture } from './texture.js';

/** The bass, then the rest of the chord. */
export const bassChord = texture(
  'bass-chord',
  'bass, then chord',
  2,
  {
    '2/4': '1 u',
    '3/4': '1 u -',
    '4/4': '1 - u -',
    '5/4': '1 - - u -',
    '6/8': '1 - - u - -',
    '9/8': '1 - - u - - - - -',
    '12/8': '1 - - u - - 1 - - u - -',
  },
  'march, two in a bar',
);
