import { intervalOf } from './naming.js';
import type { Chord } from './symbol.js';

const TRIADS: Readonly<Record<string, string>> = {
  '3M 5P': '',
  '3m 5P': 'm',
  '3m 5d': 'dim',
  '3M 5A': 'aug',
  '2M 5P': 'sus2',
  '4P 5P': 'sus4',
};

/** The triad that a richer chord is built on: "F" for Fmaj9, "Edim" for Em7b5, the bass kept; the chord itself where it has none. */
export function triadSymbol(chord: Chord): string {
  const third = intervalOf(chord, 3) ?? intervalOf(chord, 4) ?? intervalOf(chord, 2);
  const kind = TRIADS[`${third} ${intervalOf(chord, 5)}`];
  if (kind === undefined || chord.tones.length <= 3) return chord.text;
  return `${chord.root}${kind}${chord.bass ? `/${chord.bass}` : ''}`;
}
