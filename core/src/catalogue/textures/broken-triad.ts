import { texture } from './texture.js';

/** The triad note by note, its fifth in between. */
export const brokenTriad = texture({
  id: 'broken-triad',
  title: 'broken triad',
  energy: 3,
  order: 140,
  patterns: {
    '2/4': '1 5 3 5',
    '3/4': '1 5 3 5 3 5',
    '4/4': '1 5 3 5 1 5 3 5',
    '6/8': '1 3 5 8 5 3',
    '9/8': '1 3 5 8 5 3 8 5 3',
    '12/8': '1 3 5 8 5 3 1 3 5 8 5 3',
  },
  alsoCalled: 'arpeggio, ballad',
});
