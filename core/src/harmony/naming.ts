import { intervalBetween, pitchClass, transposeName, type NoteName } from '../pitch/pitch.js';
import type { Key } from './key.js';
import { hasMinorThird, plainMode, scaleOf } from './key.js';
import { parseChord, type Chord, type ChordTone } from './symbol.js';

/** The chord note that a pitch class is, or null for a note outside the chord. */
export function toneFor(chord: Chord, name: NoteName): ChordTone | null {
  const pc = pitchClass(name);
  return chord.tones.find((t) => pitchClass(t.name) === pc) ?? null;
}

/** The interval of a chord's note by its number, "3m", or null where the chord has none. */
export function intervalOf(chord: Chord, degree: number): string | null {
  return chord.tones.find((t) => t.degree === degree)?.interval ?? null;
}

/** Number of the inversion: 0 root, 1 third, 2 fifth, 3 seventh; null when another note is at the bottom. */
export function inversionOf(chord: Chord, bottom: NoteName): number | null {
  const tone = toneFor(chord, bottom);
  if (!tone) return null;
  const place = { 1: 0, 2: 1, 3: 1, 4: 1, 5: 2, 7: 3 }[tone.degree];
  return tone.degree === 6 && !chord.tones.some((t) => t.degree === 7) ? 3 : (place ?? null);
}

/** What lies at the bottom of a chord: one of its inversions, another of its notes, or a note from outside it. */
export type Position =
  | { readonly kind: 'inversion'; readonly inversion: 0 | 1 | 2 | 3 }
  | { readonly kind: 'degree'; readonly degree: number }
  | { readonly kind: 'over'; readonly bass: NoteName };

/** How a chord lies, by the note at its bottom. */
export function positionOf(chord: Chord, bottom: NoteName): Position {
  const inversion = inversionOf(chord, bottom);
  if (inversion !== null) return { kind: 'inversion', inversion: inversion as 0 | 1 | 2 | 3 };
  const tone = toneFor(chord, bottom);
  return tone ? { kind: 'degree', degree: tone.degree } : { kind: 'over', bass: bottom };
}

const NUMERALS = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'];

/**
 * The degree of a chord in the key as a Roman numeral: small for minor and diminished, "°" diminished,
 * "ø" half-diminished, "+" augmented, "b" or "#" before a root outside the scale. The old modes are counted by the
 * major or minor scale on their tonic, as musicians do: "bVII" in Mixolydian, "bII" in Phrygian. A raised seventh degree of
 * a minor key is "vii°" without a sign.
 */
export function degreeOf(chord: Chord, key: Key): string {
  const scale = scaleOf({ tonic: key.tonic, mode: plainMode(key) });
  const letter = scale.findIndex((n) => n[0] === chord.root[0]);
  const from = pitchClass(scale[letter]);
  let off = (pitchClass(chord.root) - from + 18) % 12;
  off -= 6;
  const [third, fifth, seventh] = [3, 5, 7].map((degree) => intervalOf(chord, degree));
  const small = third === '3m';
  const leading = hasMinorThird(key) && letter === 6 && off === 1 && fifth === '5d';
  const sign = leading ? '' : off < 0 ? 'b'.repeat(-off) : '#'.repeat(off);
  const numeral = small ? NUMERALS[letter].toLowerCase() : NUMERALS[letter];
  const mark = fifth === '5d' && small ? (seventh === '7m' ? 'ø' : '°') : fifth === '5A' ? '+' : '';
  return sign + numeral + mark;
}

/** What a melody note makes of a chord, by the semitones from its root: the suffix of the chord that sounds. */
const ON_TOP: readonly { suffix: RegExp; semitones: number; becomes: string }[] = [
  { suffix: /^$/, semitones: 2, becomes: 'add9' },
  { suffix: /^$/, semitones: 9, becomes: '6' },
  { suffix: /^$/, semitones: 10, becomes: '7' },
  { suffix: /^$/, semitones: 11, becomes: 'maj7' },
  { suffix: /^(m|min|-)$/, semitones: 2, becomes: 'm(add9)' },
  { suffix: /^(m|min|-)$/, semitones: 5, becomes: 'm(add11)' },
  { suffix: /^(m|min|-)$/, semitones: 9, becomes: 'm6' },
  { suffix: /^(m|min|-)$/, semitones: 10, becomes: 'm7' },
  { suffix: /^(m|min|-)$/, semitones: 11, becomes: 'mMaj7' },
  { suffix: /^(m7|min7|-7)$/, semitones: 2, becomes: 'm9' },
  { suffix: /^(m7|min7|-7)$/, semitones: 5, becomes: 'm11' },
  { suffix: /^(m7|min7|-7)$/, semitones: 9, becomes: 'm13' },
  { suffix: /^(maj7|M7|Δ|Δ7)$/, semitones: 2, becomes: 'maj9' },
  { suffix: /^(maj7|M7|Δ|Δ7)$/, semitones: 6, becomes: 'maj7#11' },
  { suffix: /^(maj7|M7|Δ|Δ7)$/, semitones: 9, becomes: 'maj13' },
  { suffix: /^6$/, semitones: 2, becomes: '6/9' },
  { suffix: /^7$/, semitones: 1, becomes: '7b9' },
  { suffix: /^7$/, semitones: 2, becomes: '9' },
  { suffix: /^7$/, semitones: 3, becomes: '7#9' },
  { suffix: /^7$/, semitones: 6, becomes: '7#11' },
  { suffix: /^7$/, semitones: 8, becomes: '7b13' },
  { suffix: /^7$/, semitones: 9, becomes: '13' },
  { suffix: /^(dim|°|o)$/, semitones: 9, becomes: 'dim7' },
  { suffix: /^(dim|°|o)$/, semitones: 10, becomes: 'm7b5' },
];

/**
 * The name of a chord with the tune on top: "Fmaj7" under G is "Fmaj9". A chord note changes nothing; null where
 * the tune makes no chord with a name of its own.
 */
export function nameWithMelody(chord: Chord, melody: NoteName): string | null {
  if (toneFor(chord, melody)) return chord.text;
  const slash = chord.bass ? `/${chord.bass}` : '';
  const suffix = chord.text.slice(chord.root.length, chord.text.length - slash.length);
  const semitones = (pitchClass(melody) - pitchClass(chord.root) + 12) % 12;
  const hit = ON_TOP.find((o) => o.semitones === semitones && o.suffix.test(suffix));
  return hit ? chord.root + hit.becomes + slash : null;
}

/** Moves a chord symbol by an interval, its slash bass with it; text that is no chord stays as it is. */
export const transposeSymbol = (text: string, interval: string): string =>
  renamedSymbol(text, (name) => plainRoot(transposeName(name, interval)));

/** A chord symbol with its root and its slash bass under other names; text that is no chord stays as it is. */
export function renamedSymbol(text: string, rename: (name: NoteName) => NoteName): string {
  const chord = parseChord(text);
  if (chord.kind !== 'chord') return text;
  const slash = /\/\s*[A-G][b#]?$/.exec(chord.text);
  const suffix = chord.text.slice(chord.root.length, slash ? slash.index : undefined);
  return rename(chord.root) + suffix + (chord.bass ? `/${rename(chord.bass)}` : '');
}

/** A root that lead sheets write: double signs give way to the plain name of the key. */
export function plainRoot(name: NoteName): NoteName {
  const plain = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];
  return name.length > 2 ? plain[pitchClass(name)] : name;
}

/** The interval that moves one key's tonic to another's by the shorter way. */
export function intervalToKey(from: Key, to: Key): string {
  const up = intervalBetween(from.tonic, to.tonic);
  const semitones = (pitchClass(to.tonic) - pitchClass(from.tonic) + 12) % 12;
  return semitones <= 6 ? up : `-${intervalBetween(to.tonic, from.tonic)}`;
}
