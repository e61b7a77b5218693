import { texture } from './texture.js';

/** The whole chord on every beat. */
export const countedBlock = texture({
  id: 'counted-block',
  title: 'a chord on every beat',
  energy: 2,
  order: 60,
  patterns: {
    '2/4': 'c c',
    '3/4': 'c c c',
    '4/4': 'c c c c',
    '5/4': 'c c c c c',
    '6/8': 'c - - c - -',
    '9/8': 'c - - c - - c - -',
    '12/8': 'c - - c - - c - - c - -',
  },
});
