import { texture } from './texture.js';

/** One, five, eight and back to five. */
export const oneFiveEight = texture({
  id: 'one-five-eight',
  title: 'one, five, eight, five',
  energy: 3,
  order: 150,
  patterns: {
    '2/4': '1 5 8 5',
    '3/4': '1 5 8 5 8 5',
    '4/4': '1 5 8 5 1 5 8 5',
    '6/8': '1 5 8 8 5 5',
    '12/8': '1 5 8 8 5 5 1 5 8 8 5 5',
  },
});
