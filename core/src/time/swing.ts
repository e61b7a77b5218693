import { barAt, offsetInBar, type Bar } from './bars.js';
import { isCompound } from './meter.js';
import { TICKS_PER_QUARTER as Q, type Ticks } from './ticks.js';

/** How eighth notes are played: as they are written, leaning a little, or long and short. */
export const FEELS = ['straight', 'light', 'swing'] as const;
export type Feel = (typeof FEELS)[number];

/** Tempi in quarter notes a minute at which eighths swing in full and least, and what the first of two takes of its quarter there. */
const FULL = { tempo: 140, share: 2 / 3 } as const;
const LEAST = { tempo: 280, share: 0.54 } as const;

/**
 * The share of a quarter that the first of its two eighths takes: two thirds in swing up to a medium tempo, less where it is quick, as
 * players do (Friberg and Sundström 2002); halfway between that and even in a light one.
 */
export function swingShare(feel: Feel, tempo: number): number {
  if (feel === 'straight') return 0.5;
  const quick = Math.max(0, Math.min(1, (tempo - FULL.tempo) / (LEAST.tempo - FULL.tempo)));
  const full = FULL.share + quick * (LEAST.share - FULL.share);
  return feel === 'swing' ? full : (full + 0.5) / 2;
}

/** Where a quarter begins in which eighths swing, and how far into it a place lies, from 0 to 1; null where they are even, as in 6/8. */
function inQuarter(at: Ticks, bars: readonly Bar[]): { readonly start: Ticks; readonly part: number } | null {
  const bar = barAt(bars, at);
  if (isCompound(bar.meter) || bar.meter.unit > 4) return null;
  const into = offsetInBar(bar, at) % Q;
  return { start: at - into, part: into / Q };
}

/**
 * The place in even time at which something is heard that is written at a place: what stands on eighths and sixteenths leans with
 * them; triplets are what they are.
 */
export function swung(at: Ticks, bars: readonly Bar[], share: number): Ticks {
  const place = share === 0.5 ? null : inQuarter(at, bars);
  if (!place || Math.abs(place.part * 4 - Math.round(place.part * 4)) > 1e-6) return at;
  const { start, part } = place;
  return start + Q * (part <= 0.5 ? 2 * part * share : share + (2 * part - 1) * (1 - share));
}

/** The place in the song that is heard at a place in even time. */
export function unswung(at: Ticks, bars: readonly Bar[], share: number): Ticks {
  const place = share === 0.5 ? null : inQuarter(at, bars);
  if (!place) return at;
  const { start, part } = place;
  return start + Q * (part <= share ? part / share / 2 : 0.5 + (part - share) / (1 - share) / 2);
}

/** Where what is written in an arrangement is heard in even time. */
export const heardIn =
  ({ bars, swing }: { readonly bars: readonly Bar[]; readonly swing: number }) =>
  (at: Ticks): Ticks =>
    swung(at, bars, swing);
