import type { ChordSpan } from '../song/song.js';
import { offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** A chord that the left hand strikes: a chord symbol at its place, pressed again at every bar line it crosses. */
export interface Strike extends ChordSpan {
  /** Where it is written: its symbol's place, which may lie after a chord that is struck early; else where it is struck. */
  readonly writtenAt: Ticks;
  /** True where the chord before is pressed again. */
  readonly restruck: boolean;
  /** Ticks of the felt beat where it is struck. */
  readonly beat: Ticks;
}

/** A chord symbol with its stretch, and where it stands in the song where it is struck elsewhere. */
export interface TimedSpan extends ChordSpan {
  readonly writtenAt?: Ticks;
}

/**
 * The block-chord attacks of a song: each chord is struck where it begins and again at every bar line it crosses,
 * since a piano chord dies away and a part that begins inside a long chord needs one of its own. A chord that comes less than
 * a beat ahead of a bar line, between the counts, is held over it. Where a chord is to be held, it is struck again only
 * where a part begins.
 */
export function blockStrikes(
  spans: readonly TimedSpan[],
  bars: readonly Bar[],
  held: { readonly at: (at: Ticks) => boolean; readonly starts: readonly Ticks[] } = { at: () => false, starts: [] },
): Strike[] {
  const strikes: Strike[] = [];
  let b = 0;
  let before: string | null = null;
  for (const span of spans) {
    const end = span.at + span.length;
    let at = span.at;
    while (b < bars.length - 1 && bars[b].end <= at) b++;
    let restruck = before === span.symbol;
    while (at < end) {
      while (b < bars.length - 1 && bars[b].end <= at) b++;
      const bar = bars[b];
      const beat = beatTicks(bar.meter);
      const ahead = bar.end - at < beat && metricStrength(offsetInBar(bar, at), bar.meter) === 0;
      const line = ahead ? (bars[b + 1] ?? bar).end : Math.max(bar.end, at + 1);
      const until = Math.min(end, held.at(at) ? (held.starts.find((s) => s > at) ?? end) : line);
      const writtenAt = at === span.at ? (span.writtenAt ?? at) : at;
      strikes.push({ at, length: until - at, symbol: span.symbol, restruck, beat, writtenAt });
      restruck = true;
      at = until;
    }
    before = span.symbol;
  }
  return strikes;
}
