import { texture } from './texture.js';

/** The tonic stays below while the chords change over it. */
export const pedalNote = texture({
  id: 'pedal-note',
  title: 'pedal note under the chords',
  energy: 2,
  order: 80,
  patterns: {
    '2/4': 'p u',
    '3/4': 'p u -',
    '4/4': 'p - u -',
    '5/4': 'p - - u -',
    '6/8': 'p - - u - -',
    '9/8': 'p - - u - - u - -',
    '12/8': 'p - - u - - p - - u - -',
  },
});
