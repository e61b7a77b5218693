import type { Part, PartNote } from '@joined-hands/core/arrange';
import { TICKS_PER_QUARTER } from '@joined-hands/core/time';
import { SIZE, fingersWidth, nameWidth } from './sizes';
import { widthAt, type Apart, type Heard } from './spacing';
import { attacksOf, besideTune, countsOf, struckIn, type Segment } from './struck';

export const radiusOf = ({ length }: PartNote): number => (length >= TICKS_PER_QUARTER ? SIZE.stone : SIZE.smallStone);

/** A moment of a row, and half of what stands there, in pixels. */
interface Mark {
  readonly at: number;
  readonly around: number;
}

/** What must not come nearer to each other in a part: stone to stone, chord to chord, name to name, count to count. */
export function apartsOf(part: Part, segments: readonly Segment[]): Apart[] {
  const right = [
    ...part.melody.map((n) => ({ at: n.at, around: radiusOf(n) + SIZE.aroundStone })),
    ...besideTune(part).map((n) => ({ at: n.at, around: SIZE.aroundPebble })),
  ];
  const left = part.chords.flatMap((chord) =>
    attacksOf(chord).map(({ at, fingers }, i) => ({
      at,
      around: Math.max(
        i > 0 ? SIZE.aroundLater : chord.dressed ? SIZE.aroundDressed : SIZE.aroundStack,
        fingersWidth(fingers) / 2 + 1,
      ),
    })),
  );
  const names = part.chords.map((c) => ({ at: c.at, around: nameWidth(c.symbol) / 2 + 3 }));
  const struck = struckIn(part);
  const clasped = new Set(part.chords.map((c) => c.at));
  const counts = segments.flatMap((s) =>
    countsOf(s, struck).map(({ at }) => ({ at, around: clasped.has(at) ? SIZE.aroundClasp : SIZE.aroundCount })),
  );
  return [...[right, left, names, counts].flatMap((row) => apartIn(row, segments)), ...pickUpsOf(segments)];
}

/** The marks of a row from one to the next, and from the last of a bar to its end. */
function apartIn(row: readonly Mark[], segments: readonly Segment[]): Apart[] {
  const marks = row.toSorted((a, b) => a.at - b.at || b.around - a.around).filter((m, i, all) => m.at !== all[i - 1]?.at);
  const ends = segments.flatMap(({ start, end }) => {
    const last = marks.findLast((m) => m.at >= start && m.at < end);
    return last ? [{ from: last.at, to: end, least: SIZE.close }] : [];
  });
  return [...marks.slice(1).map((m, i) => ({ from: marks[i].at, to: m.at, least: marks[i].around + m.around })), ...ends];
}

/** A pick-up is as wide as the word over it, where a bar follows. */
const pickUpsOf = (segments: readonly Segment[]): Apart[] =>
  segments.slice(0, -1).flatMap(({ bar, start, end }) => (bar.number > 0 ? [] : [{ from: start, to: end, least: SIZE.pickUp }]));

/** Pixels that the bars from one to another need on a line; each stretch of bars is measured once. */
export function needsOf(
  segments: readonly Segment[],
  aparts: readonly Apart[],
  heard: Heard,
): (from: number, to: number) => number {
  const known = new Map<number, number>();
  return (from, to) => {
    const key = from * segments.length + to;
    const width =
      known.get(key) ?? widthAt(segments[from].start, segments[to].end, aparts, SIZE.narrowestQuarter / TICKS_PER_QUARTER, heard);
    known.set(key, width);
    return width;
  };
}

/** Breaks bars into lines that need at most `room` pixels, as even as whole bars allow. */
export function breakLines(segments: readonly Segment[], needs: (from: number, to: number) => number, room: number): Segment[][] {
  const fill = (limit: number): Segment[][] => {
    const lines: Segment[][] = [];
    let first = 0;
    segments.forEach((segment, i) => {
      const line = lines.at(-1);
      if (line && needs(first, i) <= limit) return line.push(segment);
      first = i;
      return lines.push([segment]);
    });
    return lines;
  };
  const greedy = fill(room);
  const whole = needs(0, segments.length - 1);
  const longestBar = Math.max(...segments.map((_, i) => needs(i, i)));
  // The shortest limit that needs no more lines gives the evenest ones.
  for (let limit = whole / greedy.length; limit < room; limit += longestBar / 2) {
    const even = fill(limit);
    if (even.length === greedy.length) return even;
  }
  return greedy;
}
