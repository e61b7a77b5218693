import type { ChordSpan } from '../song/song.js';
import type { Bar } from '../time/bars.js';
import { beatTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** A chord that the left hand strikes: a chord symbol at its place, pressed again at every bar line it crosses. */
export interface Strike extends ChordSpan {
  /** True where the chord before is pressed again. */
  readonly again: boolean;
  /** Ticks of the felt beat where it is struck. */
  readonly beat: Ticks;
}

/**
 * The block-chord attacks of a song: each chord is struck where it begins and again at every bar line it crosses,
 * since a piano chord dies away and a part that begins inside a long chord needs one of its own.
 */
export function blockStrikes(spans: readonly ChordSpan[], bars: readonly Bar[]): Strike[] {
  const strikes: Strike[] = [];
  let b = 0;
  let before: string | null = null;
  for (const span of spans) {
    const end = span.at + span.length;
    let at = span.at;
    while (b < bars.length - 1 && bars[b].end <= at) b++;
    let again = before === span.symbol;
    while (at < end) {
      while (b < bars.length - 1 && bars[b].end <= at) b++;
      const until = Math.min(end, Math.max(bars[b].end, at + 1));
      strikes.push({ at, length: until - at, symbol: span.symbol, again, beat: beatTicks(bars[b].meter) });
      again = true;
      at = until;
    }
    before = span.symbol;
  }
  return strikes;
}
