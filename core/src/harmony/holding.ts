import { pitchClass, transposeName, type NoteName } from '../pitch/pitch.js';
import { scaleOf, type Key } from './key.js';
import { degreeOf, plainRoot } from './naming.js';
import { parseChord, type Chord } from './symbol.js';

/** A chord that holds a note. */
export interface HoldingChord {
  readonly symbol: string;
  /** What the note is in it: 1, 3, 5 or 7. */
  readonly as: number;
  /** True where every note of the chord belongs to the key. */
  readonly inKey: boolean;
  readonly degree: string;
}

/** The triads and sevenths that are looked through, with the note's interval down to the root for each place in them. */
const KINDS: readonly string[] = ['', 'm', 'dim', 'aug', '7', 'maj7', 'm7', 'm7b5', 'dim7', 'mMaj7'];

/**
 * All triads and sevenths that contain a note, those of the key first, then by what the note is in them. A minor key
 * also owns the chords of its raised seventh degree.
 */
export function chordsHolding(note: NoteName, key: Key): HoldingChord[] {
  const scale = new Set(scaleOf(key).map(pitchClass));
  if (key.mode === 'minor') scale.add((pitchClass(key.tonic) + 11) % 12);
  const found: HoldingChord[] = [];
  for (const kind of KINDS)
    for (const { degree, interval } of (parseChord(`C${kind}`) as Chord).tones) {
      const root = plainRoot(transposeName(note, `-${interval}`));
      const chord = parseChord(root + kind) as Chord;
      const inKey = chord.tones.every((t) => scale.has(pitchClass(t.name)));
      found.push({ symbol: chord.text, as: degree, inKey, degree: degreeOf(chord, key) });
    }
  const sevenths = (c: HoldingChord) => Number((parseChord(c.symbol) as Chord).tones.length > 3);
  return found.sort((a, b) => Number(b.inKey) - Number(a.inKey) || sevenths(a) - sevenths(b) || a.as - b.as);
}
