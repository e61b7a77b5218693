import type { GridRow } from '@joined-hands/core/fills';

/** The rows of the count grid as they are labelled, and the group each belongs to. */
export const ROW_WORDS: Readonly<Record<GridRow, { readonly text: string; readonly group: 'degree' | 'chord' }>> = {
  '14': { text: $localize`seventh, up an octave`, group: 'degree' },
  '12': { text: $localize`fifth, up an octave`, group: 'degree' },
  '10': { text: $localize`tenth`, group: 'degree' },
  '9': { text: $localize`ninth`, group: 'degree' },
  '8': { text: $localize`octave`, group: 'degree' },
  '7': { text: $localize`seventh`, group: 'degree' },
  '5': { text: $localize`fifth`, group: 'degree' },
  '3': { text: $localize`third`, group: 'degree' },
  '1': { text: $localize`bass`, group: 'degree' },
  '5,': { text: $localize`fifth below`, group: 'degree' },
  p: { text: $localize`pedal note`, group: 'chord' },
  c: { text: $localize`whole chord`, group: 'chord' },
  u: { text: $localize`chord over its bass`, group: 'chord' },
  b: { text: $localize`lowest note of the chord`, group: 'chord' },
  r: { text: $localize`rest of the chord`, group: 'chord' },
  '^': { text: $localize`small note before it`, group: 'chord' },
  w: { text: $localize`step to the next chord`, group: 'chord' },
  '.': { text: $localize`let go`, group: 'chord' },
};
