import { texture } from './texture.js';

/** One, five and the tenth, one after another. */
export const openTenth = texture({
  id: 'open-tenth',
  title: 'open one, five, ten',
  energy: 2,
  order: 50,
  patterns: {
    '2/4': '1 5 10 -',
    '3/4': '1 5 10',
    '4/4': '1 5 10 -',
    '5/4': '1 5 10 - 5',
    '6/8': '1 - 5 - 10 -',
    '9/8': '1 - - 5 - - 10 - -',
    '12/8': '1 - - 5 - - 10 - - - - -',
  },
});
