import { texture } from './texture.js';

/** A bass ahead of the beat, over two bars. */
export const pushedBass = texture(
  'pushed-bass',
  'pushed bass of two bars',
  5,
  {
    '4/4': '1 - - 1 - - 5, - | 1 - - 1 - 5, - 5',
    '2/4': '1 - - 1 | - 5, - 5',
  },
  'early, syncopated',
);
