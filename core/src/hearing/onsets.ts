import { HEARING } from './figures.js';
import { bandEdges, spectrumTaker } from './spectrum.js';

const { window, hop, bands, lowest, highest, over, silence, back, around, ahead, least, times, apart, shift, rise } =
  HEARING.onset;

/**
 * Finds what begins in a sound while it comes in: where its spectrum rises, band by band, above the noise of the room. A beginning is known
 * some hundredths of a second after it happened.
 */
export class OnsetFinder {
  /** The sample at which the next frame begins. */
  private next = 0;
  /** How much rises in each frame, those from `gone` on, and the frame that is looked at next. */
  private rises: number[] = [];
  private gone = 0;
  private looked = 0;
  private readonly levels: Float32Array[] = [];
  private readonly floors = new Float32Array(bands).fill(-1);
  private readonly edges: readonly number[];
  private readonly take = spectrumTaker(window);
  private last = -Infinity;

  constructor(private readonly rate: number) {
    this.edges = bandEdges(bands, lowest, highest, window, rate);
  }

  /** What has begun up to now, as numbers of samples. `sound` holds the samples from number `from` on, up to the newest. */
  hear(sound: Float32Array, from: number): number[] {
    this.next = Math.max(this.next, from);
    for (; this.next + window <= from + sound.length; this.next += hop)
      this.frame(this.take(sound.subarray(this.next - from, this.next - from + window)));
    return this.peaks();
  }

  /** How much there is of the room by itself: the sum of its spectrum where nothing is played. */
  room(): number {
    return this.floors.reduce((sum, f) => sum + Math.max(0, f), 0);
  }

  private frame(magnitudes: Float32Array): void {
    const levels = new Float32Array(bands);
    const before = this.levels.length < back ? null : this.levels[0];
    let rises = 0;
    for (let i = 0; i < bands; i++) {
      let sum = 0;
      const to = Math.min(magnitudes.length, Math.max(this.edges[i + 1], this.edges[i] + 1));
      for (let k = this.edges[i]; k < to; k++) sum += magnitudes[k];
      // The floor sinks with what is softer and rises slowly.
      const floor = this.floors[i];
      this.floors[i] = floor < 0 ? sum : sum < floor ? 0.9 * floor + 0.1 * sum : floor * rise;
      levels[i] = Math.log(1 + sum / (over * this.floors[i] + silence));
      if (before) rises += Math.max(0, levels[i] - before[i]);
    }
    this.rises.push(rises / bands);
    this.levels.push(levels);
    if (this.levels.length > back) this.levels.shift();
  }

  /** Frames in which more rises than in those around them, as soon as enough has followed. */
  private peaks(): number[] {
    const found: number[] = [];
    const n = Math.round((around * this.rate) / hop);
    const m = Math.round((ahead * this.rate) / hop);
    for (; this.looked + m < this.gone + this.rises.length; this.looked++) {
      const i = this.looked - this.gone;
      const here = this.rises[i];
      if (here < least) continue;
      const near = this.rises.slice(Math.max(0, i - n), i + m + 1);
      const mean = near.reduce((a, b) => a + b, 0) / near.length;
      if (here < least + times * mean || near.slice(-2 * m - 1).some((r) => r > here)) continue;
      const at = Math.round(this.looked * hop + shift * this.rate);
      if (at - this.last < apart * this.rate) continue;
      this.last = at;
      found.push(at);
    }
    if (this.rises.length > 8 * n) {
      const cut = Math.max(0, this.looked - this.gone - 2 * n);
      this.rises = this.rises.slice(cut);
      this.gone += cut;
    }
    return found;
  }
}
