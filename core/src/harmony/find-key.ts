import { TICKS_PER_QUARTER } from '../time/ticks.js';
import { parseChord } from './symbol.js';
import { nameOf, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import { keyFromSignature, keysOf, hasMinorThird, MODES, scaleOf, signatureOf, type Key, type Mode } from './key.js';

/** A melody note or chord note that speaks for a key, with its weight (usually its length). */
export interface Evidence {
  readonly pitchClass: number;
  readonly weight: number;
}

/** The notes of a tune as they speak for a key, each by its length. */
export const evidenceOf = (tune: readonly { readonly pitch: Pitch; readonly length: number }[]): Evidence[] =>
  tune.map((n) => ({ pitchClass: pitchClass(nameOf(n.pitch)), weight: n.length }));

/** What chords tell of a key: each of their first four notes as much as an eighth of the tune. */
export const evidenceOfChords = (chords: readonly { readonly symbol: string }[]): Evidence[] =>
  chords.flatMap(({ symbol }) => {
    const chord = parseChord(symbol);
    const tones = chord.kind === 'chord' ? chord.tones.slice(0, 4) : [];
    return tones.map((t) => ({ pitchClass: pitchClass(t.name), weight: TICKS_PER_QUARTER / 2 }));
  });

/**
 * How often each degree of the scale, in half steps from the tonic, is heard in a tune. Major and minor: counts over the Essen
 * collection of folk songs, from D. Temperley, Music and Probability (2007), chapter 4. The old modes exchange the degrees by which they
 * differ from the two.
 */
const MAJOR = [0.184, 0.001, 0.155, 0.003, 0.191, 0.109, 0.005, 0.214, 0.001, 0.078, 0.004, 0.055];
const MINOR = [0.192, 0.005, 0.149, 0.179, 0.002, 0.144, 0.002, 0.201, 0.038, 0.012, 0.053, 0.022];
const exchanged = (counts: readonly number[], a: number, b: number): number[] =>
  counts.map((n, i) => (i === a ? counts[b] : i === b ? counts[a] : n));
const HEARD: Readonly<Record<Mode, readonly number[]>> = {
  major: MAJOR,
  minor: MINOR,
  dorian: exchanged(MINOR, 8, 9),
  mixolydian: exchanged(MAJOR, 10, 11),
  phrygian: exchanged(MINOR, 1, 2),
  lydian: exchanged(MAJOR, 5, 6),
};

/** Forms of the minor scale beside the natural one, in half steps from the tonic: harmonic, and melodic up and down. */
const MINOR_FORMS = [
  [0, 2, 3, 5, 7, 8, 11],
  [0, 2, 3, 5, 7, 8, 9, 10, 11],
];
/** The scales of a mode, in half steps from the tonic. */
const SCALES = Object.fromEntries(
  MODES.map((mode) => [mode, [scaleOf({ tonic: 'C', mode }).map(pitchClass), ...(mode === 'minor' ? MINOR_FORMS : [])]]),
) as unknown as Readonly<Record<Mode, readonly (readonly number[])[]>>;

const KEY_TERMS = {
  /** What a note outside the scale speaks against the key, and how much a form of it with more notes explains too easily. */
  outside: 2.5,
  wider: 1.5,
  /** How the degrees are used tells less: neighbouring notes are not new evidence, so that of so many one counts. */
  oneIn: 14,
  /** Of a long tune no more notes are counted. */
  mostNotes: 120,
  /** Where the tune ends: at home, on the fifth or third of the chord at home, elsewhere. */
  finalTonic: 3.2,
  finalChord: 1,
  /** A written signature speaks for all keys that share it, and against others by the signs between them. */
  signature: 2.5,
  signatureAway: 0.5,
  /** How usual a mode is. */
  usual: { major: 0, minor: -0.3, dorian: -0.8, mixolydian: -0.8, phrygian: -1.8, lydian: -1.8 },
} as const;

/** What speaks for a key, in natural logarithms of how likely a note of the tune is in it. */
export type KeyTerm = 'scale' | 'degrees' | 'final' | 'signature' | 'usual';

/** A key with how much speaks for it, term by term. */
export interface WeighedKey {
  readonly key: Key;
  readonly score: number;
  readonly terms: readonly { readonly term: KeyTerm; readonly worth: number }[];
}

/**
 * All keys of all modes by what speaks for them, the likeliest first: how likely the notes are in the key, where the tune ends, the
 * written signature, and how usual the mode is. Signature and last note are evidence and settle nothing alone. `final` is the pitch
 * class of the last note; both it and the signature (-7 to 7) may be null.
 */
export function rankKeys(evidence: readonly Evidence[], final: number | null, signature: number | null): WeighedKey[] {
  const heard = new Array<number>(12).fill(0);
  for (const e of evidence) heard[e.pitchClass] += e.weight;
  const all = heard.reduce((a, b) => a + b, 0);
  const share = heard.map((h) => (all > 0 ? h / all : 0));
  const told = Math.min(KEY_TERMS.mostNotes, evidence.length);
  return MODES.flatMap((mode) => keysOf(mode).map((key) => spelledBy(signature, key)))
    .map((key) => weighKey(key, share, told, final, signature))
    .sort((a, b) => b.score - a.score);
}

/** The likeliest key, see {@link rankKeys}. */
export const findKey = (evidence: readonly Evidence[], final: number | null, signature: number | null): Key =>
  rankKeys(evidence, final, signature)[0].key;

/** A written signature also decides the spelling: six flats stay G flat. */
function spelledBy(signature: number | null, key: Key): Key {
  const written = signature === null || Math.abs(signature) > 7 ? null : keyFromSignature(signature, key.mode);
  return written && pitchClass(written.tonic) === pitchClass(key.tonic) ? written : key;
}

/** A degree is never taken to be rarer than this: notes outside the scale are counted by themselves. */
const RAREST = 0.03;

function weighKey(key: Key, share: readonly number[], told: number, final: number | null, signature: number | null): WeighedKey {
  const T = KEY_TERMS;
  const tonic = pitchClass(key.tonic);
  const counts = HEARD[key.mode];
  const heard = share.map((_, step) => share[(step + tonic) % 12]);
  const degrees = heard.reduce((sum, s, step) => sum + s * Math.log(Math.max(RAREST, counts[step])), 0);
  const outside = (scale: readonly number[]) =>
    heard.reduce((sum, s, step) => (scale.includes(step) ? sum : sum + s), 0) * told * T.outside + T.wider * (scale.length - 7);
  const apartFrom = Math.min(...SCALES[key.mode].map(outside));
  const degree = final === null ? null : (final - tonic + 12) % 12;
  const third = hasMinorThird(key) ? 3 : 4;
  const ends = degree === 0 ? T.finalTonic : degree === 7 || degree === third ? T.finalChord : 0;
  const apart = signature === null ? null : signsApart(signatureOf(key), signature);
  const written = apart === null ? 0 : apart === 0 ? T.signature : -T.signatureAway * (apart - 1);
  const terms = [
    { term: 'scale', worth: -apartFrom },
    { term: 'degrees', worth: (told / T.oneIn) * degrees },
    { term: 'final', worth: ends },
    { term: 'signature', worth: written },
    { term: 'usual', worth: T.usual[key.mode] },
  ] as const;
  return { key, score: terms.reduce((sum, t) => sum + t.worth, 0), terms };
}

/** By how many signs two signatures differ, seven flats and five sharps being one. */
function signsApart(a: number, b: number): number {
  const apart = Math.abs(a - b) % 12;
  return Math.min(apart, 12 - apart);
}

/** Another key that a tune may be heard in, with what speaks for it against the key it is read in. */
export interface KeyReadingFact {
  readonly code: 'key.reading';
  readonly key: Key;
  /** True where more speaks for it than for the key that the song is read in. */
  readonly better: boolean;
  readonly why: readonly KeySign[];
}

/** What speaks for a key: the last note, notes that only its scale has, or the notes that the tune comes back to. */
export type KeySign =
  | { readonly sign: 'ends'; readonly on: NoteName }
  | { readonly sign: 'has'; readonly notes: readonly NoteName[] }
  | { readonly sign: 'centres'; readonly on: NoteName };

/** By how much less another key may have for it and still be told: it is about a quarter as likely. */
const CLOSE = 1.5;
/** What is not told as a reason. */
const SLIGHT = 0.25;

/**
 * The other key that a tune might be heard in, where it is nearly as likely as the one it is read in, or likelier; null where none is.
 * The signature that is written speaks for the key it is read in and those that share it.
 */
export function otherReading(evidence: readonly Evidence[], final: number | null, own: Key): KeyReadingFact | null {
  const ranked = rankKeys(evidence, final, signatureOf(own));
  const same = ({ key }: WeighedKey) => pitchClass(key.tonic) === pitchClass(own.tonic) && key.mode === own.mode;
  const read = ranked.find(same);
  const other = ranked.find((k) => !same(k));
  if (!read || !other || other.score < read.score - CLOSE) return null;
  const gain = (term: KeyTerm) =>
    (other.terms.find((t) => t.term === term)?.worth ?? 0) - (read.terms.find((t) => t.term === term)?.worth ?? 0);
  const heard = new Set(evidence.map((e) => e.pitchClass));
  const notes = scaleOf(other.key).filter(
    (n) => heard.has(pitchClass(n)) && !scaleOf(own).some((o) => pitchClass(o) === pitchClass(n)),
  );
  const why: KeySign[] = [];
  if (gain('scale') > SLIGHT && notes.length > 0) why.push({ sign: 'has', notes });
  if (gain('final') > SLIGHT && final === pitchClass(other.key.tonic)) why.push({ sign: 'ends', on: other.key.tonic });
  if (gain('degrees') > SLIGHT) why.push({ sign: 'centres', on: other.key.tonic });
  return why.length === 0 ? null : { code: 'key.reading', key: other.key, better: other.score > read.score, why };
}
