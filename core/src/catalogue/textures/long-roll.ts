import { texture } from './texture.js';

/** A roll over two octaves. */
export const longRoll = texture('long-roll', 'rolling over two octaves', 4, {
  '3/4': '1 5 9 10 9 5',
  '4/4': '1 5 9 10 12 14 12 10',
  '6/8': '1 5 9 10 9 5',
  '12/8': '1 5 9 10 12 14 12 10 9 5 9 5',
});
