import { fifthsAbove, fifthsUp, pitchClass, type NoteName } from '../pitch/pitch.js';
import { remembered } from '../lists/remembered.js';

/** The modes that songs are in: major, minor, and the four old ones that tunes are still sung and danced in. */
export const MODES = ['major', 'minor', 'dorian', 'mixolydian', 'phrygian', 'lydian'] as const;
export type Mode = (typeof MODES)[number];

/** A key: a spelled tonic and a mode. */
export interface Key {
  readonly tonic: NoteName;
  readonly mode: Mode;
}

/** Fifths by which the signature of a mode differs from the major key on the same note. */
const SIGNS: Readonly<Record<Mode, number>> = { lydian: 1, major: 0, mixolydian: -1, dorian: -2, minor: -3, phrygian: -4 };

/** True for the modes whose chord at home is minor. */
export const hasMinorThird = ({ mode }: Pick<Key, 'mode'>): boolean => SIGNS[mode] < -1;

/** The plain key beside a mode, major or minor by its third: what scales, cadences and fingers are taught in. */
export const plainMode = (key: Pick<Key, 'mode'>): 'major' | 'minor' => (hasMinorThird(key) ? 'minor' : 'major');

/** The twelve keys of a mode as they are written, from C upwards: those with the fewest signs. */
export function keysOf(mode: Mode): Key[] {
  const flattest = hasMinorThird({ mode }) ? -6 : -5;
  return Array.from({ length: 12 }, (_, i) => keyFromSignature(flattest + i, mode)).sort(
    (a, b) => pitchClass(a.tonic) - pitchClass(b.tonic),
  );
}

/** "G minor", "D Dorian": how files, addresses and reports write a key; what it is called on the screen is the words' affair. */
export function keyName({ tonic, mode }: Key): string {
  return `${tonic} ${modeName(mode)}`;
}

/** "minor", "Dorian": the old modes are written like the names they are. */
export const modeName = (mode: Mode): string =>
  mode === 'major' || mode === 'minor' ? mode : mode[0].toUpperCase() + mode.slice(1);

/** How modes are written in full and in short; only "m" and "M" differ by their case. */
const WRITTEN: readonly (readonly [RegExp, Mode])[] = [
  [/^(|maj(or)?|ion(ian)?)$/i, 'major'],
  [/^(m|min(or)?|aeo(lian)?)$/i, 'minor'],
  [/^dor(ian)?$/i, 'dorian'],
  [/^mix(o(lydian)?)?$/i, 'mixolydian'],
  [/^phr(y(gian)?)?$/i, 'phrygian'],
  [/^lyd(ian)?$/i, 'lydian'],
];

/** Reads a mode as it is written in full or in short: "minor", "Dorian", "mix". Null for anything else. */
export const parseMode = (text: string): Mode | null =>
  text.trim() === 'M' ? 'major' : (WRITTEN.find(([pattern]) => pattern.test(text.trim()))?.[1] ?? null);

/** Reads "G minor", "Gm", "Eb major", "F#", "D Dorian", "Amix". Null for anything else. */
export function parseKey(text: string): Key | null {
  const match = /^\s*([A-Ga-g])(b|#|♭|♯)?\s*-?\s*([a-z]*)\s*$/i.exec(text);
  if (!match) return null;
  const mode = parseMode(match[3]);
  const accidental = (match[2] ?? '').replace('♭', 'b').replace('♯', '#').toLowerCase();
  return mode && { tonic: match[1].toUpperCase() + accidental, mode };
}

/** Sharps (above 0) or flats (below 0) in the signature; up to ±7 for the usual keys. */
export function signatureOf({ tonic, mode }: Key): number {
  return fifthsAbove(tonic) + SIGNS[mode];
}

/** The key with this signature (-7 to 7) and mode. */
export function keyFromSignature(fifths: number, mode: Mode): Key {
  return { tonic: fifthsUp('C', fifths - SIGNS[mode]), mode };
}

/** The seven notes of the key (the natural minor for a minor key). */
export const scaleOf: (key: Key) => readonly NoteName[] = remembered(600, keyName, ({ tonic, mode }) => {
  // The seven lie next to each other in fifths, the tonic among them; two fifths up is the next letter.
  const lowest = SIGNS[mode] - 1;
  return Array.from({ length: 7 }, (_, letter) => fifthsUp(tonic, lowest + ((2 * letter - lowest + 14) % 7)));
});

/** The scale as it is practised: a minor key has its seventh raised. */
export const practisedScale = (key: Key): readonly NoteName[] =>
  // Seven fifths up is the same letter, a half step higher.
  key.mode === 'minor' ? scaleOf(key).map((note, i) => (i === 6 ? fifthsUp(note, 7) : note)) : scaleOf(key);
