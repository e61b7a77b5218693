import { texture } from './texture.js';

/** Up to the tenth and back. */
export const riseAndFall = texture({
  id: 'rise-and-fall',
  title: 'one, five, eight, ten and back',
  energy: 4,
  order: 170,
  patterns: {
    '2/4': '1 5 8 10',
    '3/4': '1 5 8 10 8 5',
    '4/4': '1 5 8 10 - 10 8 5',
    '6/8': '1 5 8 10 8 5',
    '9/8': '1 5 8 10 8 5 8 10 8',
    '12/8': '1 5 8 10 8 5 1 5 8 10 8 5',
  },
});
