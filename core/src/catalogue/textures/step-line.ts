import { texture } from './texture.js';

/** A bass that walks to the next chord. */
export const stepLine = texture({
  id: 'step-line',
  title: 'walking bass',
  energy: 3,
  order: 120,
  patterns: {
    '2/4': '1 w',
    '3/4': '1 u w',
    '4/4': '1 - u w',
    '6/8': '1 - - u - w',
  },
  alsoCalled: 'walking, jazz',
});
