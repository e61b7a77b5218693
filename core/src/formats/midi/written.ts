import { GRACE_SECONDS } from '../../song/touch.js';
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

/** Quarter notes by which a grace note may end before or after its note begins, and how much longer that one is at least. */
const GRACE_MEETS = 0.03;
const GRACE_SHORTER = 3;
/** Small notes that are looked at around one place. */
const MOST_TOGETHER = 32;

/** Notes of a track without its grace notes, and these by the note that they belong to: quick ones right before one, off every written place. */
export function withoutGraces(
  notes: readonly RecordedNote[],
  tempo: number,
): { readonly notes: readonly RecordedNote[]; readonly graces: ReadonlyMap<RecordedNote, readonly number[]> } {
  const most = (1.3 * GRACE_SECONDS * tempo) / 60;
  const isQuick = (n: RecordedNote) => n.until - n.at <= most && writtenPlace(n.at) === null;
  const graces = new Map<RecordedNote, number[]>();
  const small = new Set<RecordedNote>();
  const quick = notes.filter(isQuick);
  if (quick.length === 0) return { notes, graces };
  for (const main of notes) {
    if (isQuick(main)) continue;
    const found: RecordedNote[] = [];
    let from = main.at;
    for (let before = meeting(from); before; before = meeting(from)) {
      found.unshift(before);
      from = before.at;
    }
    if (found.length === 0 || main.until - main.at < GRACE_SHORTER * (found[0].until - found[0].at)) continue;
    for (const n of found) small.add(n);
    graces.set(
      main,
      found.map((n) => n.midi),
    );
  }
  return { notes: notes.filter((n) => !small.has(n)), graces };

  function meeting(at: number): RecordedNote | undefined {
    // They are in order: what meets a place began no longer before it than a small note lasts.
    let [low, high] = [0, quick.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (quick[middle].at < at - most - GRACE_MEETS) low = middle + 1;
      else high = middle;
    }
    return quick.slice(low, low + MOST_TOGETHER).find((n) => !small.has(n) && n.at < at && Math.abs(n.until - at) < GRACE_MEETS);
  }
}
