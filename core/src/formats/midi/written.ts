import { TICKS_PER_QUARTER as Q, type Ticks } from '../../time/ticks.js';
import { GRIDS, snap, type GridName } from './quantise.js';

/** A note as it was played: places in quarter notes. */
export interface RecordedNote {
  readonly at: number;
  readonly until: number;
  readonly midi: number;
  /** Keys that are struck with it and held as long, from the top down; absent where there are none or it was not looked for them. */
  readonly beside?: readonly number[];
}

/** A note of the tune in its written time. */
export interface WrittenNote {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly midi: number;
  readonly beside: readonly number[];
}

/** The line on a grid, in ticks; a note that would vanish keeps the shortest value of the grid, one that nearly reaches the next is held to it. */
export function onGrid(line: readonly RecordedNote[], grid: GridName): WrittenNote[] {
  const starts = snap(
    line.map((n) => n.at),
    grid,
  );
  const ends = snap(
    line.map((n) => n.until),
    grid,
  );
  const step = 1 / Math.max(...GRIDS[grid].parts);
  const found: WrittenNote[] = [];
  line.forEach((n, i) => {
    const next = starts[i + 1] ?? Infinity;
    let until = Math.max(starts[i] + step, ends[i]);
    if (next - until <= step * 0.75) until = next;
    until = Math.min(until, next);
    const at = Math.round(starts[i] * Q);
    const length = Math.round(until * Q) - at;
    if (length > 0 && (found.length === 0 || at >= found[found.length - 1].at + found[found.length - 1].length))
      found.push({ at, length, midi: n.midi, beside: n.beside ?? [] });
  });
  return found;
}

/** Parts of a quarter note that written music begins and ends its notes on: 32nds, triplet sixteenths, fifths and sevenths. */
const WRITTEN_ON = [8, 12, 5, 7];

/** A place of written music in ticks; null for one that was played. */
export function writtenPlace(quarters: number): Ticks | null {
  const parts = WRITTEN_ON.find((n) => Math.abs(quarters * n - Math.round(quarters * n)) < n * EXACT);
  return parts === undefined ? null : Math.round((Math.round(quarters * parts) * Q) / parts);
}

/** A line that was written, not played: every note begins and ends on a usual part of a quarter note. Null where one does not. */
export function asWritten(line: readonly RecordedNote[]): WrittenNote[] | null {
  const found: WrittenNote[] = [];
  for (const { at: from, until, midi, beside = [] } of line) {
    const [at, end] = [writtenPlace(from), writtenPlace(until)];
    if (at === null || end === null || end <= at) return null;
    found.push({ at, length: end - at, midi, beside });
  }
  return found;
}

/** Quarter notes by which a written note may be off its grid: the ticks of a file are no finer. */
export const EXACT = 0.002;
