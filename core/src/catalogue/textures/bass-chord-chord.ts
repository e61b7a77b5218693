import { texture } from './texture.js';

/** The bass, then the rest of the chord twice: a waltz. */
export const bassChordChord = texture({
  id: 'bass-chord-chord',
  title: 'bass, chord, chord',
  energy: 3,
  order: 100,
  patterns: {
    '3/4': '1 u u',
    '4/4': '1 u u u',
    '5/4': '1 u u 1 u',
    '6/8': '1 u u 1 u u',
    '9/8': '1 - - u - - u - -',
    '12/8': '1 u u 1 u u 1 u u 1 u u',
  },
  alsoCalled: 'waltz, three in a bar',
});
