import { texture } from './texture.js';

/** The whole chord on every beat. */
export const countedBlock = texture('counted-block', 'a chord on every beat', 2, {
  '2/4': 'c c',
  '3/4': 'c c c',
  '4/4': 'c c c c',
  '5/4': 'c c c c c',
  '6/8': 'c - - c - -',
  '9/8': 'c - - c - - c - -',
  '12/8': 'c - - c - - c - - c - -',
});
