import { countAt, countText } from './counts.js';
import { barTicks, type Meter } from './meter.js';
import type { Ticks } from './ticks.js';

/** The meter in force from `at` on, in ticks from the start of the music. */
export interface MeterChange extends Meter {
  readonly at: Ticks;
}

/** One bar of the song. A pick-up is bar 0; the first full bar is bar 1. */
export interface Bar {
  readonly number: number;
  readonly start: Ticks;
  readonly end: Ticks;
  readonly meter: Meter;
  /** Ticks missing at the front of the bar: above 0 for a pick-up only. */
  readonly lead: Ticks;
}

/** What the bar grid is made from. */
export interface Grid {
  readonly pickup: Ticks;
  readonly length: Ticks;
  readonly meters: readonly MeterChange[];
}

/** All bars of the song, in order; the last one may be short. */
export function layBars(grid: Grid): Bar[] {
  const bars: Bar[] = [];
  const first = grid.meters[0];
  let at = 0;
  let number = 1;
  if (grid.pickup > 0) {
    bars.push({ number: 0, start: 0, end: grid.pickup, meter: first, lead: barTicks(first) - grid.pickup });
    at = grid.pickup;
  }
  let next = 1;
  let meter: MeterChange = first;
  while (at < grid.length) {
    while (next < grid.meters.length && grid.meters[next].at <= at) meter = grid.meters[next++];
    const end = Math.min(at + barTicks(meter), grid.length);
    bars.push({ number: number++, start: at, end, meter, lead: 0 });
    at = end;
  }
  return bars;
}

/** How many bars the song has, counted no further than one past `most`. */
export function countBars(grid: Grid, most: number): number {
  let bars = grid.pickup > 0 ? 1 : 0;
  let at = grid.pickup;
  grid.meters.forEach((meter, i) => {
    // A meter holds from the first bar line at or after its place.
    const until = Math.min(grid.meters[i + 1]?.at ?? grid.length, grid.length);
    if (until <= at || bars > most) return;
    const filled = Math.ceil((until - at) / barTicks(meter));
    bars += filled;
    at += filled * barTicks(meter);
  });
  return Math.min(bars, most + 1);
}

/** The bar that holds a position; the last bar for a position at or past the end. `bars` must not be empty. */
export function barAt(bars: readonly Bar[], at: Ticks): Bar {
  return lastFrom(bars, at) as Bar;
}

/** The last of ordered stretches that begins at or before a place, by halving; the first where none does. */
export function lastFrom<T extends { readonly start: Ticks }>(stretches: readonly T[], at: Ticks): T | undefined {
  let low = 0;
  let high = stretches.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (stretches[middle].start <= at) low = middle;
    else high = middle - 1;
  }
  return stretches[low];
}

/** The index of the first of ordered items that stands at or after a place, by halving; their number where none does. */
export function firstAtOrAfter(items: readonly { readonly at: Ticks }[], at: Ticks): number {
  let low = 0;
  let high = items.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (items[middle].at < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Ordered items cut at ordered ends, each item once: a list for every end. */
export function cutAt<T extends { readonly at: Ticks }>(items: readonly T[], ends: readonly Ticks[]): T[][] {
  let from = 0;
  return ends.map((end) => {
    const start = from;
    while (from < items.length && items[from].at < end) from++;
    return items.slice(start, from);
  });
}

/** A position within its bar, counted from where a full bar would begin. */
export function offsetInBar(bar: Bar, at: Ticks): Ticks {
  return bar.lead + at - bar.start;
}

/** The count at a position: "1", "2 &". */
export function countIn(bars: readonly Bar[], at: Ticks): string {
  const bar = barAt(bars, at);
  return countText(countAt(offsetInBar(bar, at), bar.meter));
}

/** A place in the music as a pianist counts it. */
export interface Place {
  /** Number of the bar; 0 for a pick-up. */
  readonly bar: number;
  /** The count in it: "1", "2 &". */
  readonly count: string;
}

/** The bar and the count of a position. */
export const placeOf = (bars: readonly Bar[], at: Ticks): Place => ({ bar: barAt(bars, at).number, count: countIn(bars, at) });

/** The bar numbers a stretch covers, leaving out a pick-up that only leads into it. */
export function barSpan(bars: readonly Bar[], start: Ticks, end: Ticks): { from: number; to: number } {
  const first = barAt(bars, start);
  const last = barAt(bars, Math.max(start, end - 1));
  const leadsIn = first !== last && start - first.start > 0 && (first.end - start) * 2 <= first.end - first.start;
  const pickup = first.number === 0 && first !== last;
  const from = leadsIn || pickup ? first.number + 1 : first.number;
  // A last bar that only lends its end to the next part's pick-up still counts as ours.
  return { from, to: Math.max(from, last.number) };
}
