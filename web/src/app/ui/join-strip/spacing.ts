/** Two moments of a line, in ticks, and the pixels by which they must not be nearer to each other. */
export interface Apart {
  readonly from: number;
  readonly to: number;
  readonly least: number;
}

/** Where the moments of a line stand, in pixels from its left end. */
export interface Spacing {
  readonly width: number;
  readonly x: (at: number) => number;
  /** The moment that stands at a pixel. */
  readonly at: (x: number) => number;
}

interface Stretch {
  readonly from: number;
  readonly ticks: number;
  /** How long it is heard, in ticks: where eighths swing, the first of two longer than the second. */
  readonly time: number;
  readonly least: number;
}

/** Where a moment is heard in even time. */
export type Heard = (at: number) => number;

const AS_WRITTEN: Heard = (at) => at;

/**
 * Spaces a line out: every moment in even time, at `scale` pixels to a tick, but no two nearer than they must be apart;
 * where they would be, time is drawn wider between them, as an engraver gives short notes more than their share.
 */
export function spaceOut(start: number, end: number, aparts: readonly Apart[], scale: number, heard = AS_WRITTEN): Spacing {
  const stretches = stretchesOf(start, end, aparts, heard);
  const wide = stretches.map(({ time, least }) => Math.max(least, time * scale));
  const edges = wide.reduce((all, w) => [...all, all[all.length - 1] + w], [0]);
  /** The last stretch that begins at or before a value; the first one for what lies before the line. */
  const lastBy = (begins: readonly number[], value: number) =>
    Math.max(
      0,
      stretches.findLastIndex((_, i) => begins[i] <= value),
    );
  const moments = stretches.map((s) => s.from);
  return {
    width: edges[edges.length - 1],
    x: (at) => {
      const i = lastBy(moments, at);
      return edges[i] + ((at - moments[i]) / stretches[i].ticks) * wide[i];
    },
    at: (x) => {
      const i = lastBy(edges, x);
      return moments[i] + ((x - edges[i]) / wide[i]) * stretches[i].ticks;
    },
  };
}

/** Pixels that a line needs at `scale` pixels to a tick. */
export const widthAt = (start: number, end: number, aparts: readonly Apart[], scale: number, heard = AS_WRITTEN): number =>
  stretchesOf(start, end, aparts, heard).reduce((sum, { time, least }) => sum + Math.max(least, time * scale), 0);

/** Pixels to a tick at which a line fills `width` pixels; 0 where it is wider than that even with nothing to spare. */
export function scaleToFill(start: number, end: number, aparts: readonly Apart[], width: number, heard = AS_WRITTEN): number {
  // What must be wider than its share takes its room first; the rest shares what is left, which may make more of them so.
  let even = stretchesOf(start, end, aparts, heard);
  let room = width;
  for (;;) {
    const scale = room / even.reduce((sum, { time }) => sum + time, 0);
    const held = even.filter(({ time, least }) => least > time * scale);
    if (held.length === 0) return Math.max(0, scale);
    room -= held.reduce((sum, { least }) => sum + least, 0);
    even = even.filter((s) => !held.includes(s));
    if (even.length === 0 || room <= 0) return 0;
  }
}

/** The line from moment to moment; two that must be apart share what they need evenly over what lies between them. */
function stretchesOf(start: number, end: number, aparts: readonly Apart[], heard: Heard): Stretch[] {
  const inside = aparts.filter(({ from, to }) => from >= start && to <= end && to > from);
  const moments = [...new Set([start, ...inside.flatMap(({ from, to }) => [from, to]), end])].sort((a, b) => a - b);
  const index = new Map(moments.map((m, i) => [m, i]));
  const least = new Array<number>(moments.length - 1).fill(0);
  for (const a of inside)
    for (let i = index.get(a.from) ?? 0; moments[i] < a.to; i++)
      least[i] = Math.max(least[i], (a.least * (moments[i + 1] - moments[i])) / (a.to - a.from));
  return least.map((needed, i) => {
    const [from, to] = [moments[i], moments[i + 1]];
    return { from, ticks: to - from, time: heard(to) - heard(from), least: needed };
  });
}
