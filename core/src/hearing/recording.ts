import { rankKeys } from '../harmony/find-key.js';
import type { Key } from '../harmony/key.js';
import { HEARING, keyAt, tuningOf } from './figures.js';
import { fluxOf, type Flux } from './flux.js';
import { spectra } from './spectrum.js';

/** A beat that a recording keeps: beats a minute, the second in which the first falls, and how sure it is, from 0 to 1. */
export interface HeardBeat {
  readonly tempo: number;
  readonly first: number;
  readonly sure: number;
}

/** What is heard of a recording as a whole. */
export interface HeardRecording {
  readonly beat: HeardBeat | null;
  /** Keys that it may be in, the likeliest first. */
  readonly keys: readonly Key[];
  /** By how many hundredths of a half step it lies above the usual pitch, from -50 to 50. */
  readonly cents: number;
  readonly seconds: number;
}

/**
 * Hears the beat, the key and the pitch of a recording, given as one channel at so many samples a second. Where it is whole, the bass on
 * which it ends speaks for its key.
 */
export function hearRecording(samples: Float32Array, rate: number, whole = true): HeardRecording {
  const { chroma, cents, peaks, last } = toneOf(samples, rate);
  const ranked = peaks === 0 ? [] : rankKeys(asEvidence(chroma, peaks), whole ? last : null, null);
  return {
    beat: beatOf(fluxOf(samples, rate)),
    keys: ranked.slice(0, 3).map((k) => k.key),
    cents: Math.round(100 * cents),
    seconds: samples.length / rate,
  };
}

/** Share of the loudest tone, as amplitude's root, from which a tone is strong enough to be the bass. */
const STRONG = 0.5;

/** Shares of the twelve pitch classes as notes that speak for a key: what is weak in all is noise and overtones. */
function asEvidence(chroma: readonly number[], notes: number): { pitchClass: number; weight: number }[] {
  const most = Math.max(...chroma);
  const told = chroma.map((weight, pitchClass) => ({ pitchClass, weight: Math.max(0, weight / most - 0.12) }));
  const each = Math.max(1, Math.min(40, Math.round(notes / 12)));
  return told.flatMap((t) => Array.from({ length: each }, () => ({ ...t, weight: t.weight / each })));
}

/** How loud each pitch class is in a recording, once its own pitch is taken into account, how many peaks told it, and the last bass. */
function toneOf(samples: Float32Array, rate: number): { chroma: number[]; cents: number; peaks: number; last: number | null } {
  const { window, hop, lowest, highest, peaks: most } = HEARING.tone;
  const found: { key: number; weight: number }[] = [];
  const basses: (number | null)[] = [];
  for (const magnitudes of spectra(samples, window, hop)) {
    const tops: { key: number; weight: number }[] = [];
    const loudest = magnitudes.reduce((max, m) => Math.max(max, m), 0);
    for (let k = Math.ceil((lowest * window) / rate); k < (highest * window) / rate; k++) {
      const [a, b, c] = [magnitudes[k - 1], magnitudes[k], magnitudes[k + 1]];
      if (b <= a || b < c || b < loudest * 0.03 || b === 0) continue;
      // Between two bins the peak lies where a parabola through the logarithms has its top.
      const [la, lb, lc] = [a, b, c].map((m) => Math.log(m + 1e-12));
      const off = (la - lc) / (2 * (la - 2 * lb + lc) || 1);
      tops.push({ key: keyAt(((k + off) * rate) / window), weight: Math.sqrt(b) });
    }
    // Lower than what is strong lies no bass.
    const strong = Math.sqrt(loudest) * STRONG;
    basses.push(tops.find((t) => t.weight >= strong)?.key ?? null);
    found.push(...tops.sort((x, y) => y.weight - x.weight).slice(0, most));
  }
  const cents = tuningOf(
    found.map((p) => p.key),
    found.map((p) => p.weight),
  );
  const chroma = new Array<number>(12).fill(0);
  for (const { key, weight } of found) {
    const midi = Math.round(key - cents);
    // Low tones are few and strong: a bass tells as much as what lies over it.
    chroma[((midi % 12) + 12) % 12] += weight * (Math.abs(key - cents - midi) < 0.3 ? 1 : 0.3);
  }
  // The last bass that sounded for two windows.
  const settled = basses.map((b) => (b === null ? null : ((Math.round(b - cents) % 12) + 12) % 12));
  const at = settled.findLastIndex((b, i) => b !== null && i > 0 && settled[i - 1] === b);
  return { chroma, cents, peaks: found.length, last: at < 0 ? null : settled[at] };
}

/** The beat of a flux: the time after which what begins begins again, among tempi that are tapped most readily; null where nothing begins. */
function beatOf({ rises, seconds }: Flux): HeardBeat | null {
  const { slowest, fastest, usual, octaves } = HEARING.tempo;
  const energy = rises.reduce((sum, r) => sum + r * r, 0);
  if (energy === 0 || rises.length * seconds < 4) return null;
  const longest = Math.min(rises.length - 1, Math.ceil(8 / seconds));
  const again = Float32Array.from({ length: longest + 1 }, (_, lag) => {
    let sum = 0;
    for (let i = lag; i < rises.length; i++) sum += rises[i] * rises[i - lag];
    return sum / (rises.length - lag);
  });
  const at = (lag: number) => {
    const low = Math.floor(lag);
    return low + 1 > longest ? 0 : again[low] + (lag - low) * (again[low + 1] - again[low]);
  };
  let best = { tempo: usual as number, score: -1, plain: 0 };
  for (let tempo = slowest; tempo <= fastest; tempo += 0.25) {
    const lag = 60 / tempo / seconds;
    const many = Math.min(4, Math.floor(longest / lag));
    let sum = 0;
    for (let k = 1; k <= many; k++) sum += at(k * lag);
    const plain = sum / Math.max(1, many);
    const score = plain * Math.exp(-0.5 * (Math.log2(tempo / usual) / octaves) ** 2);
    if (score > best.score) best = { tempo, score, plain };
  }
  const { tempo, first } = refined(rises, seconds, best.tempo);
  return { tempo, first, sure: Math.max(0, Math.min(1, best.plain / (again[0] || 1))) };
}

/** The tempo near one that was found, and its first beat, for which most begins on the beats of the whole recording. */
function refined(rises: Float32Array, seconds: number, near: number): { tempo: number; first: number } {
  let best = { tempo: near, first: 0, sum: -1 };
  for (let tempo = near * 0.985; tempo <= near * 1.015; tempo += near * 0.0005) {
    const step = 60 / tempo / seconds;
    const folded = new Float32Array(64);
    for (let i = 0; i < rises.length; i++) folded[Math.floor(((i % step) / step) * 64) % 64] += rises[i];
    folded.forEach((_, k) => {
      const sum = folded[k] + 0.6 * (folded[(k + 1) % 64] + folded[(k + 63) % 64]);
      if (sum > best.sum) best = { tempo, first: ((k + 0.5) / 64) * step * seconds, sum };
    });
  }
  return { tempo: Math.round(best.tempo * 10) / 10, first: best.first };
}
