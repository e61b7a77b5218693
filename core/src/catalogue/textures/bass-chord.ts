import { texture } from './texture.js';

/** The bass, then the rest of the chord. */
export const bassChord = texture({
  id: 'bass-chord',
  title: 'bass, then chord',
  energy: 2,
  order: 70,
  patterns: {
    '2/4': '1 u',
    '3/4': '1 u -',
    '4/4': '1 - u -',
    '5/4': '1 - - u -',
    '6/8': '1 - - u - -',
    '9/8': '1 - - u - - - - -',
    '12/8': '1 - - u - - 1 - - u - -',
  },
  alsoCalled: 'march, two in a bar',
});
