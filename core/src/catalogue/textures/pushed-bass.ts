import { texture } from './texture.js';

/** A bass ahead of the beat, over two bars. */
export const pushedBass = texture({
  id: 'pushed-bass',
  title: 'pushed bass of two bars',
  energy: 5,
  order: 220,
  patterns: {
    '4/4': '1 - - 1 - - 5, - | 1 - - 1 - 5, - 5',
    '2/4': '1 - - 1 | - 5, - 5',
  },
  alsoCalled: 'early, syncopated',
});
