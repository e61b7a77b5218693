import { Key as TonalKey, Mode as TonalMode } from 'tonal';
import { pitchClass, type NoteName } from '../pitch/pitch.js';
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

/** Notes as signatures count them, from eight flats (the F flat of a Lydian key) to eleven sharps. */
const BY_FIFTHS = 'Fb Cb Gb Db Ab Eb Bb F C G D A E B F# C# G# D# A# E#'.split(' ');

/** The twelve keys of a mode as they are written, from C upwards: those with the fewest signs. */
export function keysOf(mode: Mode): Key[] {
  const flattest = hasMinorThird({ mode }) ? -6 : -5;
  return Array.from({ length: 12 }, (_, i) => keyFromSignature(flattest + i, mode)).sort(
    (a, b) => pitchClass(a.tonic) - pitchClass(b.tonic),
  );
}

/** "G minor", "D Dorian". */
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
  return TonalKey.majorKey(tonic).alteration + SIGNS[mode];
}

/** The key with this signature (-7 to 7) and mode. */
export function keyFromSignature(fifths: number, mode: Mode): Key {
  return { tonic: BY_FIFTHS[fifths - SIGNS[mode] + 8], mode };
}

const SCALE_NAMES: Readonly<Record<Mode, string>> = {
  major: 'ionian',
  minor: 'aeolian',
  dorian: 'dorian',
  mixolydian: 'mixolydian',
  phrygian: 'phrygian',
  lydian: 'lydian',
};

/** The seven notes of the key (the natural minor for a minor key). */
export const scaleOf: (key: Key) => readonly NoteName[] = remembered(600, keyName, ({ tonic, mode }) =>
  TonalMode.notes(SCALE_NAMES[mode], tonic),
);

/** The scale as it is practised: a minor key has its seventh raised. */
export const practisedScale = (key: Key): readonly NoteName[] =>
  key.mode === 'minor' ? TonalKey.minorKey(key.tonic).harmonic.scale : scaleOf(key);
