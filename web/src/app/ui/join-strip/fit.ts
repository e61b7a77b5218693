import type { Part } from '@joined-hands/core/arrange';
import { heardIn, TICKS_PER_QUARTER, type Bar } from '@joined-hands/core/time';
import { apartsOf, breakLines, needsOf } from './apart';
import { layLine } from './line';
import { SIZE } from './sizes';
import { scaleToFill, spaceOut, type Apart, type Heard } from './spacing';
import type { LaidStrip, StripLine } from './strip';
import { endOf, startOf, type Segment } from './struck';

/** How a strip is laid out: how large and small at most, with its texture, and what the first of two eighths takes of its quarter. */
interface FitOptions {
  readonly most?: number;
  readonly least?: number;
  readonly dressed?: boolean;
  readonly swing?: number;
}

/** Steps in which a strip is drawn smaller until it fits. */
const ZOOM_STEP = 0.1;

/**
 * Lays a part out as large as a room allows, in pixels, up to `most` times its own size. It is drawn larger only where no chord gives
 * up a word beside it and no word is lifted for that; and smaller, down to `least` times, only where not even one line has the height.
 */
export function fitStrip(
  whole: Part,
  bars: readonly Bar[],
  room: { width: number; height: number },
  { most = 1, least = 1, dressed = false, swing = 0.5 }: FitOptions = {},
): LaidStrip {
  const { width, height } = room;
  const ready = prepareStrip(whole, bars, dressed, swing);
  const own = layLines(ready, width, height);
  const given = droppedLabels(own);
  // Steps are counted, since adding up tenths would try its own size twice.
  for (let step = 0; most - step * ZOOM_STEP > 1 + ZOOM_STEP / 2; step++) {
    const zoom = most - step * ZOOM_STEP;
    const lines = layLines(ready, width / zoom, height / zoom);
    const fits = lines.reduce((sum, l) => sum + l.height, 0) * zoom <= height;
    if (fits && droppedLabels(lines) <= given) return { lines, zoom };
  }
  let found: LaidStrip = { lines: own, zoom: 1 };
  for (let step = 1; height > 0 && tallest(found) > height && 1 - step * ZOOM_STEP > least - 1e-9; step++) {
    const zoom = 1 - step * ZOOM_STEP;
    found = { lines: layLines(ready, width / zoom, height / zoom), zoom };
  }
  return found;
}

/** Pixels that the tallest line takes up. */
const tallest = ({ lines, zoom }: LaidStrip): number => Math.max(0, ...lines.map((l) => l.height)) * zoom;

/** How many chords have not all their words beside them, and how many sung words are lifted. */
const droppedLabels = (lines: readonly StripLine[]): number =>
  lines.flatMap((l) => [...l.stacks.map((s) => s.stands !== 'whole'), ...l.stones.map((s) => s.lift > 0)]).filter(Boolean).length;

/**
 * Lays a part out as lines of strip that fit a width in pixels. Lines break at bar lines only. A part of one line
 * spreads its stones over the room in a height, if one is given.
 */
export const layoutStrip = (whole: Part, bars: readonly Bar[], width: number, height = 0, dressed = false): StripLine[] =>
  layLines(prepareStrip(whole, bars, dressed, 0.5), width, height);

/** What of a part is the same for every size in which it is tried. */
interface Ready {
  readonly part: Part;
  readonly segments: readonly Segment[];
  readonly aparts: readonly Apart[];
  readonly needs: (from: number, to: number) => number;
  readonly heard: Heard;
}

function prepareStrip(whole: Part, bars: readonly Bar[], dressed: boolean, swing: number): Ready {
  const part = dressed ? whole : plainly(whole);
  const segments = bars
    .filter((b) => b.end > part.start && b.start < part.end)
    .map((bar) => ({ bar, start: Math.max(bar.start, part.start), end: Math.min(bar.end, part.end) }));
  const aparts = apartsOf(part, segments);
  const heard = heardIn({ bars, swing });
  return { part, segments, aparts, needs: needsOf(segments, aparts, heard), heard };
}

function layLines({ part, segments, aparts, needs, heard }: Ready, width: number, height: number): StripLine[] {
  const room = width - SIZE.left - SIZE.right;
  const lines = breakLines(segments, needs, room);
  const most = SIZE.widestQuarter / TICKS_PER_QUARTER;
  const scale = Math.max(1e-6, Math.min(most, ...lines.map((l) => scaleToFill(startOf(l), endOf(l), aparts, room, heard))));
  const spaced = lines.map((line) => ({ line, spacing: spaceOut(startOf(line), endOf(line), aparts, scale, heard) }));
  const lay = (spare: number) => spaced.map(({ line, spacing }) => layLine(part, line, spacing, spare));
  const laid = lay(0);
  // One line spreads over spare room; where even one does not fit, lines draw together.
  const spread = laid.length === 1 ? SIZE.mostSpread : 0;
  const spare = height > 0 ? Math.max(-SIZE.mostTight, Math.min(spread, height - laid[0].height)) : 0;
  return Math.abs(spare) > 8 ? lay(spare) : laid;
}

/** The part as it is learned first: its chords as they are voiced, without texture and added harmony. */
const plainly = (part: Part): Part => ({
  ...part,
  chords: part.chords.map((c) => (c.dressed ? { ...c, dressed: null } : c)),
  under: part.under.filter((u) => !u.added),
  fills: [],
  sung: [],
});
