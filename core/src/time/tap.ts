import { beatTicks, type Meter } from './meter.js';
import { TICKS_PER_QUARTER } from './ticks.js';

/** Milliseconds after which a tap begins anew, and how many of the last taps count. */
const PAUSE = 3000;
const COUNTED = 9;

/**
 * The tempo that was tapped, in whole quarter notes a minute from 20 to 400: the middle one of the times between the last taps, one a felt
 * beat of the meter. Taps are in milliseconds, in order; null where fewer than three belong together.
 */
export function tappedTempo(taps: readonly number[], meter: Meter): number | null {
  const begins = taps.findLastIndex((at, i) => i === 0 || at - taps[i - 1] > PAUSE);
  const together = taps.slice(Math.max(begins, taps.length - COUNTED));
  if (together.length < 3) return null;
  const between = together.slice(1).map((at, i) => at - together[i]);
  const sorted = between.sort((a, b) => a - b);
  const middle = (sorted[(sorted.length - 1) >> 1] + sorted[sorted.length >> 1]) / 2;
  const quarters = beatTicks(meter) / TICKS_PER_QUARTER;
  return Math.min(400, Math.max(20, Math.round((60_000 / Math.max(1, middle)) * quarters)));
}
