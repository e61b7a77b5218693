/** A bar of a typed line with its columns in the line, from 0, the last one not included. */
export interface TextBar {
  readonly text: string;
  readonly columns: readonly [number, number];
  /** True where a double bar line closes it. */
  readonly doubled: boolean;
}

/** One mark of a count. */
export interface Slice {
  readonly text: string;
  readonly columns: readonly [number, number];
}

/** One count of a bar: one mark, or several linked with "_" that share it evenly. */
export interface Cell {
  readonly slices: readonly Slice[];
  readonly columns: readonly [number, number];
}

/**
 * Cuts a typed line at its bar lines; `offset` is the column where `body` begins. A closing bar line may be left out.
 * An empty bar is kept, so that later bars stay in step; one before a first bar line too.
 */
export function barsOf(body: string, offset: number): TextBar[] {
  const bars: TextBar[] = [];
  let from = 0;
  const add = (to: number, doubled: boolean) => {
    const text = body.slice(from, to);
    if (text.trim()) {
      const lead = text.length - text.trimStart().length;
      bars.push({ text, columns: [offset + from + lead, offset + from + text.trimEnd().length], doubled });
    } else if (to < body.length) {
      bars.push({ text: '', columns: [offset + from, offset + to], doubled });
    }
  };
  for (const line of body.matchAll(/\|+/g)) {
    add(line.index, line[0].length > 1);
    from = line.index + line[0].length;
  }
  add(body.length, false);
  return bars;
}

/** The counts of a bar: marks with blanks between them, linked ones sharing a count. */
export function cellsOf(bar: TextBar): Cell[] {
  const lead = bar.text.length - bar.text.trimStart().length;
  const base = bar.columns[0] - (bar.text.trim() ? lead : 0);
  return [...bar.text.matchAll(/\S+/g)].map((cell) => {
    const start = base + cell.index;
    const slices: Slice[] = [];
    for (const part of cell[0].matchAll(/[^_]+/g)) {
      const at = start + part.index;
      slices.push({ text: part[0], columns: [at, at + part[0].length] });
    }
    if (slices.length === 0) slices.push({ text: '_', columns: [start, start + cell[0].length] });
    return { slices, columns: [start, start + cell[0].length] };
  });
}

/** Where notes that are struck together go on from the first of them. */
export type Way = 'up' | 'down';

/** The octave of a letter (its step from C) near a place on the staff, counted from C0: within a fourth of it, or the first place that way. */
export function octaveNear(step: number, from: number, way: Way | null): number {
  if (way === null) return Math.round((from - step) / 7);
  return way === 'up' ? Math.floor((from - step) / 7) + 1 : Math.ceil((from - step) / 7) - 1;
}
