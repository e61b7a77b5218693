import { texture } from './texture.js';

/** A roll over two octaves. */
export const longRoll = texture({
  id: 'long-roll',
  title: 'rolling over two octaves',
  energy: 4,
  order: 180,
  patterns: {
    '3/4': '1 5 9 10 9 5',
    '4/4': '1 5 9 10 12 14 12 10',
    '6/8': '1 5 9 10 9 5',
    '12/8': '1 5 9 10 12 14 12 10 9 5 9 5',
  },
});
