import { HEARING } from './figures.js';
import { bandEdges, spectra } from './spectrum.js';

/** How much begins in a sound, frame by frame: the rise of its spectrum in bands that widen upwards. Frames are `seconds` apart. */
export interface Flux {
  readonly rises: Float32Array;
  readonly seconds: number;
}

/** The flux of a sound at so many samples a second, its slow course taken off. */
export function fluxOf(samples: Float32Array, rate: number): Flux {
  const { window, hop, bands, lowest, highest } = HEARING.flux;
  const edges = bandEdges(bands, lowest, highest, window, rate);
  const rises: number[] = [];
  let before: number[] | null = null;
  for (const magnitudes of spectra(samples, window, hop)) {
    const levels = edges.slice(1).map((to, i) => {
      let sum = 0;
      for (let k = edges[i]; k < Math.max(to, edges[i] + 1) && k < magnitudes.length; k++) sum += magnitudes[k];
      return Math.log1p(100 * sum);
    });
    rises.push(before ? levels.reduce((sum, l, i) => sum + Math.max(0, l - (before?.[i] ?? 0)), 0) : 0);
    before = levels;
  }
  return { rises: withoutCourse(rises, Math.round((0.4 * rate) / hop)), seconds: hop / rate };
}

/** A row less its mean in the neighbourhood; nothing below it. */
function withoutCourse(row: readonly number[], near: number): Float32Array {
  const sums = [0];
  for (const value of row) sums.push(sums[sums.length - 1] + value);
  return Float32Array.from(row, (value, i) => {
    const [from, to] = [Math.max(0, i - near), Math.min(row.length, i + near + 1)];
    return Math.max(0, value - (sums[to] - sums[from]) / (to - from));
  });
}
