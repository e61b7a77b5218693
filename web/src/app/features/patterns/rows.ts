import type { GridRow } from '@joined-hands/core/fills';

/** The rows of the count grid as they are labelled, and the group each belongs to. */
export const ROW_WORDS: Readonly<Record<GridRow, { readonly text: string; readonly group: 'degree' | 'chord' }>> = {
  '14': { text: 'seventh, up an octave', group: 'degree' },
  '12': { text: 'fifth, up an octave', group: 'degree' },
  '10': { text: 'tenth', group: 'degree' },
  '9': { text: 'ninth', group: 'degree' },
  '8': { text: 'octave', group: 'degree' },
  '7': { text: 'seventh', group: 'degree' },
  '5': { text: 'fifth', group: 'degree' },
  '3': { text: 'third', group: 'degree' },
  '1': { text: 'bass', group: 'degree' },
  '5,': { text: 'fifth below', group: 'degree' },
  p: { text: 'pedal note', group: 'chord' },
  c: { text: 'whole chord', group: 'chord' },
  u: { text: 'chord over its bass', group: 'chord' },
  b: { text: 'lowest note of the chord', group: 'chord' },
  r: { text: 'rest of the chord', group: 'chord' },
  w: { text: 'step to the next chord', group: 'chord' },
  '.': { text: 'let go', group: 'chord' },
};
