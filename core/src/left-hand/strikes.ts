import type { ChordSpan } from '../song/song.js';
import type { Bar } from '../time/bars.js';
import type { Strike } from './voice.js';

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
      strikes.push({ at, length: until - at, symbol: span.symbol, again });
      again = true;
      at = until;
    }
    before = span.symbol;
  }
  return strikes;
}
