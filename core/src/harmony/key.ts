import { Key as TonalKey } from 'tonal';
import { pitchClass, type NoteName } from '../pitch/pitch.js';
import { remembered } from '../lists/remembered.js';

export type Mode = 'major' | 'minor';

/** A key: a spelled tonic and a mode. */
export interface Key {
  readonly tonic: NoteName;
  readonly mode: Mode;
}

/** A melody note or chord note that speaks for a key, with its weight (usually its length). */
export interface Evidence {
  readonly pitchClass: number;
  readonly weight: number;
}

/** Profiles of Krumhansl and Kessler (1982), how well each degree fits a key heard in context. */
const PROFILE: Record<Mode, readonly number[]> = {
  major: [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88],
  minor: [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17],
};

/** What the last note and the written signature add to the correlation (which runs from -1 to 1). */
const KEY_TERMS = { finalTonic: 0.25, finalFifthOrThird: 0.06, signature: 0.35 };

const MAJORS = ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'Db', 'Ab', 'Eb', 'Bb', 'F'];
const MINORS = ['A', 'E', 'B', 'F#', 'C#', 'G#', 'D#', 'Bb', 'F', 'C', 'G', 'D'];

/** The twelve keys of a mode as they are written, from C upwards. */
export function keysOf(mode: Mode): Key[] {
  const tonics = mode === 'major' ? MAJORS : MINORS.map((tonic) => (tonic === 'D#' ? 'Eb' : tonic));
  return [...tonics].sort((a, b) => pitchClass(a) - pitchClass(b)).map((tonic) => ({ tonic, mode }));
}

/** "G minor". */
export function keyName(key: Key): string {
  return `${key.tonic} ${key.mode}`;
}

/** Reads "G minor", "Gm", "Eb major", "F#". Null for anything else. */
export function parseKey(text: string): Key | null {
  const match = /^\s*([A-Ga-g])(b|#|♭|♯)?\s*-?\s*(major|maj|minor|min|m)?\s*$/i.exec(text);
  if (!match) return null;
  const accidental = (match[2] ?? '').replace('♭', 'b').replace('♯', '#').toLowerCase();
  const word = match[3] ?? '';
  const minor = word === 'm' || /^min/i.test(word);
  return { tonic: match[1].toUpperCase() + accidental, mode: minor ? 'minor' : 'major' };
}

/** Sharps (above 0) or flats (below 0) in the signature; up to ±7 for the usual keys. */
export function signatureOf(key: Key): number {
  return key.mode === 'major' ? TonalKey.majorKey(key.tonic).alteration : TonalKey.minorKey(key.tonic).alteration;
}

/** The key with this signature (-7 to 7) and mode. */
export function keyFromSignature(fifths: number, mode: Mode): Key {
  const order = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#', 'G#', 'D#', 'A#'];
  return { tonic: order[fifths + 7 + (mode === 'minor' ? 3 : 0)], mode };
}

/** The seven notes of the key (the natural minor for a minor key). */
export const scaleOf: (key: Key) => readonly NoteName[] = remembered(200, keyName, ({ tonic, mode }) =>
  mode === 'major' ? TonalKey.majorKey(tonic).scale : TonalKey.minorKey(tonic).natural.scale,
);

/**
 * Finds the key by correlating what sounds with the key profiles, then by the last note and, where one is
 * written, the signature, which speaks for the major and the minor key that share it.
 * Source: Krumhansl and Schmuckler's method, in C. Krumhansl, Cognitive Foundations of Musical Pitch (1990).
 */
export function findKey(evidence: readonly Evidence[], final: number | null, signature: number | null): Key {
  const heard = new Array<number>(12).fill(0);
  for (const e of evidence) heard[e.pitchClass] += e.weight;
  let best: Key = { tonic: 'C', mode: 'major' };
  let bestScore = -Infinity;
  for (const mode of ['major', 'minor'] as const) {
    for (const tonic of mode === 'major' ? MAJORS : MINORS) {
      const key = { tonic, mode };
      const score = keyScore(key, heard, final, signature);
      if (score > bestScore + 1e-9) {
        best = key;
        bestScore = score;
      }
    }
  }
  // A written signature also decides the spelling: six flats stay G flat.
  const written = signature === null ? null : keyFromSignature(signature, best.mode);
  return written && pitchClass(written.tonic) === pitchClass(best.tonic) ? written : best;
}

function keyScore(key: Key, heard: readonly number[], final: number | null, signature: number | null): number {
  const tonic = pitchClass(key.tonic);
  let score = correlation(
    PROFILE[key.mode],
    heard.map((_, i) => heard[(i + tonic) % 12]),
  );
  if (final !== null) {
    const degree = (final - tonic + 12) % 12;
    if (degree === 0) score += KEY_TERMS.finalTonic;
    else if (degree === 7 || degree === (key.mode === 'major' ? 4 : 3)) score += KEY_TERMS.finalFifthOrThird;
  }
  if (signature !== null && (signatureOf(key) - signature) % 12 === 0) score += KEY_TERMS.signature;
  return score;
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const mean = (v: readonly number[]) => v.reduce((s, x) => s + x, 0) / v.length;
  const ma = mean(a);
  const mb = mean(b);
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let i = 0; i < a.length; i++) {
    ab += (a[i] - ma) * (b[i] - mb);
    aa += (a[i] - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  }
  return aa === 0 || bb === 0 ? 0 : ab / Math.sqrt(aa * bb);
}
