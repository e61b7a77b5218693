import {
  TICKS_PER_QUARTER,
  countAt,
  countNotes,
  midiOf,
  nameOf,
  offsetInBar,
  staffStep,
  sungWords,
  type Bar,
  type FillKind,
  type Part,
  type PartChord,
  type PartNote,
} from '@joined-hands/core';
import { apartsOf, breakLines, needsOf, radiusOf } from './apart';
import { SIZE, nameStand, wordWidth, type NameStand } from './sizes';
import { scaleToFill, spaceOut, type Apart, type Spacing } from './spacing';
import { attacksOf, besideTune, countsOf, endOf, startOf, struckIn, type Count, type Segment } from './struck';

/** A melody note on the strip. Coordinates are pixels inside its line. */
export interface Stone {
  readonly note: PartNote;
  readonly letter: string;
  readonly x: number;
  readonly y: number;
  readonly r: number;
  /** Where the tail of a held note ends, or null for one that is not held. */
  readonly tail: number | null;
  readonly word: string | null;
  /** How far the word stands above the line of words, so that it does not touch the one before. */
  readonly lift: number;
  /** What is counted as it is struck and while it is held, for learning by counts. */
  readonly counted: string;
  /** True where the syllable before is still sung. */
  readonly sungOn: boolean;
  /** Struck ahead of the beat. */
  readonly ahead: boolean;
  /** Letters of the chord that the right hand holds under the note, from the top down. */
  readonly under: readonly string[];
}

/** One key of a chord on the strip, from the top down. */
export interface Block {
  readonly pitch: string;
  readonly letter: string;
  readonly finger: number | null;
  readonly y: number;
}

/** A left-hand chord on the strip. */
export interface Stack {
  readonly chord: PartChord;
  readonly x: number;
  /** Room to the right for the chord's name. */
  readonly room: number;
  readonly blocks: readonly Block[];
  /** What its texture strikes after the first, each attack at its place. */
  readonly later: readonly { readonly x: number; readonly blocks: readonly Block[] }[];
  readonly bottom: number;
  /** Where the chord's name and its fingers stand when they stand below. */
  readonly nameY: number;
  readonly fingersY: number;
  /** "rolled", "broken" or nothing: how a chord wider than the hand is struck. */
  readonly struck: string;
  readonly stands: NameStand;
}

/** Where both hands strike together; `top` is null where the left hand strikes alone. */
export interface Clasp {
  readonly at: number;
  readonly x: number;
  readonly top: number | null;
  readonly count: string;
}

/** A count on the ruler. */
export interface CountMark extends Count {
  readonly x: number;
}

/** Free room for a fill. */
export interface RoomMark {
  readonly at: number;
  readonly x: number;
  readonly width: number;
  readonly y: number;
  readonly counts: number;
  /** What the pianist chose for it, or null. */
  readonly chosen: FillKind | null;
}

/** A note that the right hand plays beside the tune: of a fill, or of a chord under a sung tune. */
export interface Pebble {
  readonly id: string;
  readonly pitch: string;
  readonly letter: string;
  readonly finger: number | null;
  readonly x: number;
  readonly y: number;
}

/** A place of the right hand over the stones it plays. */
export interface PlaceMark {
  readonly from: number;
  readonly to: number;
  readonly y: number;
  /** "G to D", or nothing where it would not fit. */
  readonly text: string;
  /** How the hand comes here, in a word, or nothing where the part begins or there is no room for it. */
  readonly move: string;
}

/** One line of the strip. */
export interface StripLine {
  readonly start: number;
  readonly end: number;
  readonly width: number;
  readonly height: number;
  /** Where a moment stands, and the moment at a pixel, for the playhead and for dragging. */
  readonly x: (at: number) => number;
  readonly at: (x: number) => number;
  readonly wordsY: number;
  readonly rulerY: number;
  readonly blocksY: number;
  readonly bars: readonly { readonly number: number; readonly x: number; readonly first: boolean }[];
  readonly counts: readonly CountMark[];
  readonly stones: readonly Stone[];
  readonly stacks: readonly Stack[];
  readonly clasps: readonly Clasp[];
  readonly rooms: readonly RoomMark[];
  readonly pebbles: readonly Pebble[];
  readonly places: readonly PlaceMark[];
}

/** A part laid out, and how much larger than its own pixels it is drawn. */
export interface LaidStrip {
  readonly lines: readonly StripLine[];
  readonly zoom: number;
}

/** Steps in which a strip is drawn smaller until it fits. */
const ZOOM_STEP = 0.1;

/**
 * Lays a part out as large as a room allows, in pixels, up to `most` times its own size; never smaller than that size. It is
 * drawn larger only where no chord gives up a word beside it and no word is lifted for that.
 */
export function fitStrip(
  whole: Part,
  bars: readonly Bar[],
  room: { width: number; height: number },
  most = 1,
  dressed = false,
): LaidStrip {
  const { width, height } = room;
  const ready = readied(whole, bars, dressed);
  const own = layLines(ready, width, height);
  const given = givenUp(own);
  // Steps are counted, since adding up tenths would try its own size twice.
  for (let step = 0; most - step * ZOOM_STEP > 1 + ZOOM_STEP / 2; step++) {
    const zoom = most - step * ZOOM_STEP;
    const lines = layLines(ready, width / zoom, height / zoom);
    const fits = lines.reduce((sum, l) => sum + l.height, 0) * zoom <= height;
    if (fits && givenUp(lines) <= given) return { lines, zoom };
  }
  return { lines: own, zoom: 1 };
}

/** How many chords have not all their words beside them, and how many sung words are lifted. */
const givenUp = (lines: readonly StripLine[]): number =>
  lines.flatMap((l) => [...l.stacks.map((s) => s.stands !== 'whole'), ...l.stones.map((s) => s.lift > 0)]).filter(Boolean).length;

/**
 * Lays a part out as lines of strip that fit a width in pixels. Lines break at bar lines only. A part of one line
 * spreads its stones over the room in a height, if one is given.
 */
export const layoutStrip = (whole: Part, bars: readonly Bar[], width: number, height = 0, dressed = false): StripLine[] =>
  layLines(readied(whole, bars, dressed), width, height);

/** What of a part is the same for every size in which it is tried. */
interface Ready {
  readonly part: Part;
  readonly segments: readonly Segment[];
  readonly aparts: readonly Apart[];
  readonly needs: (from: number, to: number) => number;
}

function readied(whole: Part, bars: readonly Bar[], dressed: boolean): Ready {
  const part = dressed ? whole : plainly(whole);
  const segments = bars
    .filter((b) => b.end > part.start && b.start < part.end)
    .map((bar) => ({ bar, start: Math.max(bar.start, part.start), end: Math.min(bar.end, part.end) }));
  const aparts = apartsOf(part, segments);
  return { part, segments, aparts, needs: needsOf(segments, aparts) };
}

function layLines({ part, segments, aparts, needs }: Ready, width: number, height: number): StripLine[] {
  const room = width - SIZE.left - SIZE.right;
  const lines = breakLines(segments, needs, room);
  const most = SIZE.widestQuarter / TICKS_PER_QUARTER;
  const scale = Math.max(1e-6, Math.min(most, ...lines.map((l) => scaleToFill(startOf(l), endOf(l), aparts, room))));
  const spaced = lines.map((line) => ({ line, spacing: spaceOut(startOf(line), endOf(line), aparts, scale) }));
  const lay = (spare: number) => spaced.map(({ line, spacing }) => layoutLine(part, line, spacing, spare));
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

function layoutLine(part: Part, line: readonly Segment[], spacing: Spacing, spare: number): StripLine {
  const [start, end] = [startOf(line), endOf(line)];
  const x = (at: number) => SIZE.left + spacing.x(at);
  const inside = (at: number) => at >= start && at < end;
  const notes = part.melody.filter((n) => inside(n.at));
  const chords = part.chords.filter((c) => inside(c.at));
  const counted = new Map(
    countNotes(
      notes,
      line.map((l) => l.bar),
    ).map((c) => [c.at, c]),
  );
  const words = sungWords(part.melody);
  const sung = new Map(part.melody.map((n, i) => [n.at, words[i] !== null]));
  const lifted = liftedWords(notes, x);
  const held = new Map(part.under.map((u) => [u.at, [...u.pitches].reverse().map(nameOf)]));
  const beside = besideTune(part);
  const singing = part.sung.length > 0;
  const steps = singing ? [] : [...part.melody, ...beside].map((n) => staffStep(n.pitch));
  const high = Math.max(...steps, 0);
  const range = steps.length > 0 ? high - Math.min(...steps) : 0;
  const field = Math.max(singing ? SUNG_STEP * 3 : 0, fieldFor(range, spare));
  const step = Math.min(widestStep(range, spare), field / Math.max(1, range));
  const lowest = SIZE.top + SIZE.stone + field;
  const free = field - range * step;
  // Under a sung tune the stones stand for the words; the right hand's chords lie over them.
  const height = (pitch: string) =>
    singing ? SIZE.top + SIZE.stone + field : SIZE.top + SIZE.stone + (high - staffStep(pitch)) * step + free / 2;
  const stones = notes.map((note): Stone => {
    const r = radiusOf(note);
    const tail = x(Math.min(note.at + note.length, end)) - SIZE.stone - 4;
    return {
      note,
      letter: nameOf(note.pitch),
      x: x(note.at),
      y: height(note.pitch),
      r,
      tail: tail > x(note.at) + r + 4 ? tail : null,
      counted: countedText(counted.get(note.at)),
      sungOn: note.lyric === null && sung.get(note.at) === true,
      ahead: counted.get(note.at)?.syncopated ?? false,
      word: wordOf(note),
      lift: lifted.has(note.at) ? WORD_LIFT : 0,
      under: held.get(note.at) ?? [],
    };
  });
  const wordsY = Math.max(lowest + SIZE.stone + 20, ...stones.map(wordUnder));
  // A hand by itself has the strip to itself.
  const leftAlone = steps.length === 0 && !singing;
  const rulerY = leftAlone ? SIZE.top : wordsY + SIZE.words;
  const blocksY = rulerY + SIZE.ruler / 2 + 25;
  const tallest = Math.max(3, ...part.chords.flatMap((c) => attacksOf(c).map((a) => a.pitches.length)));
  const places = part.places
    .filter((p) => p.start < end && p.end > start)
    .map((p, i, all): PlaceMark => {
      const own = stones.filter((s) => s.note.at >= p.start && s.note.at < (all[i + 1]?.start ?? end));
      const [first, last] = [own[0] ?? stones[0], own.at(-1) ?? stones[0]];
      const [from, to] = [(first?.x ?? SIZE.left) - SIZE.stone, (last?.x ?? SIZE.left) + SIZE.stone];
      const span = midiOf(p.thumb) < midiOf(p.fifth) ? `${nameOf(p.thumb)} to ${nameOf(p.fifth)}` : nameOf(p.thumb);
      const move = MOVE_WORDS[p.move];
      const fits = (words: string) => wordWidth(words) <= to - from;
      return { from, to, y: PLACES_Y, text: fits(span) ? span : '', move: fits(`${span} · ${move}`) ? move : '' };
    });
  const stoneAt = new Map(stones.map((s) => [s.note.at, s]));
  const struck = struckIn(part);
  // The bed of the last chord reaches to the end of the ruler.
  const until = chords.map((_, i) => (chords[i + 1] ? x(chords[i + 1].at) : x(end) + 22));
  const besides = chords.map((c, i) => (c.dressed ? 0 : until[i] - x(c.at) - 24));
  const stands = chords.map((c, i) => nameStand(c, besides[i]));
  return {
    start,
    end,
    width: x(end) + SIZE.right,
    height:
      part.chords.length === 0
        ? rulerY + SIZE.ruler + 12
        : blocksY + tallest * SIZE.block + SIZE.spread + (stands.includes('below') ? 48 : 16),
    x,
    at: (pixel) => spacing.at(pixel - SIZE.left),
    wordsY,
    rulerY,
    blocksY,
    bars: line.map((s, i) => ({ number: s.bar.number, x: x(s.start), first: i === 0 })),
    counts: line.flatMap((s) => countsOf(s, struck).map((c) => ({ ...c, x: x(c.at) }))),
    stones,
    places,
    stacks: chords.map((chord, i): Stack => {
      // The note that is struck first stands apart from those that follow.
      const spread = chord.spread !== 'together';
      const [first, ...rest] = attacksOf(chord).map((attack) => ({
        x: x(attack.at),
        blocks: attack.pitches
          .map((pitch, k) => ({ pitch, letter: nameOf(pitch), finger: attack.fingers[k] ?? null }))
          .reverse()
          .map((b, k, all) => ({ ...b, y: blocksY + k * SIZE.block + (spread && k === all.length - 1 ? SIZE.spread : 0) })),
      }));
      const { blocks } = first;
      const bottom = blocksY + blocks.length * SIZE.block + (spread ? SIZE.spread : 0);
      // What a texture strikes later stands beside the first attack: the name goes below all of it.
      const under = chord.dressed
        ? { nameY: blocksY + tallest * SIZE.block + 39, fingersY: bottom + 13 }
        : { nameY: bottom + 18, fingersY: bottom + 36 };
      return {
        ...under,
        chord,
        x: x(chord.at),
        room: besides[i],
        blocks,
        later: rest.filter((a) => a.x < x(end)),
        bottom,
        struck: spread ? chord.spread : '',
        stands: stands[i],
      };
    }),
    clasps: (leftAlone ? [] : chords).map((chord): Clasp => {
      const stone = stoneAt.get(chord.at);
      const segment = line.find((s) => chord.at < s.end) ?? line[line.length - 1];
      const count = countAt(offsetInBar(segment.bar, chord.at), segment.bar.meter);
      return { at: chord.at, x: x(chord.at), top: stone ? stone.y + stone.r : null, count: count.between || `${count.beat}` };
    }),
    rooms: part.rooms
      .filter((p) => inside(p.at))
      .map((p) => {
        const stone = stones.findLast((s) => s.note.at < p.at);
        const from = x(p.at) - ROOM_BEFORE;
        const width = x(Math.min(p.at + p.length, end)) - ROOM_AFTER - from;
        return { at: p.at, x: from, width, y: stone?.y ?? SIZE.top, counts: p.counts, chosen: p.chosen };
      }),
    pebbles: beside
      .filter((n) => inside(n.at))
      .map((n) => ({
        ...n,
        id: `${n.at} ${n.pitch}`,
        letter: nameOf(n.pitch),
        x: x(n.at),
        y: height(n.pitch) - n.over * SUNG_STEP,
      })),
  };
}

/** Pixels by which room for a fill begins before its first count. */
const ROOM_BEFORE = 14;
/** Pixels by which it ends before the next note. */
const ROOM_AFTER = 24;

/** Pixels from one note of a right-hand chord to the next above it. */
const SUNG_STEP = 27;

/** Pixels from the highest stone to the lowest at most: more where there is room to spare, less where there is too little. */
function fieldFor(range: number, spare: number): number {
  const usual = Math.max(SIZE.shortest + Math.max(0, spare), range * widestStep(range, spare));
  return Math.max(range * SIZE.leastStep, usual + Math.min(0, spare));
}

/** Most pixels from one staff step to the next. */
const widestStep = (range: number, spare: number): number =>
  Math.min(SIZE.step + Math.max(0, spare) / 9, (SIZE.tallest + Math.max(0, spare)) / Math.max(1, range));

/** Where the places of the right hand are drawn, under the bar numbers. */
const PLACES_Y = 37;

const MOVE_WORDS: Readonly<Record<Part['places'][number]['move'], string>> = {
  fresh: '',
  stay: '',
  under: 'thumb under',
  over: 'over the thumb',
  shift: 'shift',
};

const wordOf = ({ lyric }: PartNote): string | null => (lyric ? lyric.text + (lyric.joins ? '-' : '') : null);

/** The places whose words stand higher, because they would touch the word before. */
function liftedWords(notes: readonly PartNote[], x: (at: number) => number): ReadonlySet<number> {
  const sung = notes.flatMap((n) => {
    const word = wordOf(n);
    return word === null ? [] : [{ at: n.at, word }];
  });
  const lifted = new Set<number>();
  sung.slice(1).forEach((next, i) => {
    const wide = wordWidth(sung[i].word + next.word) / 2 + WORD_GAP;
    if (x(next.at) - x(sung[i].at) < wide && !lifted.has(sung[i].at)) lifted.add(next.at);
  });
  return lifted;
}

/** Where the line of words stands at least, so that a stone's own word is clear of it and of what it holds under it. */
const wordUnder = ({ y, r, under, lift }: Stone): number => y + r + under.length * SIZE.under + lift + 16;

/** Least space between two words. */
const WORD_GAP = 4;

/** Pixels by which a crowded word stands higher. */
const WORD_LIFT = 13;

/** "2 &" for a short note; "1 2 3" or "hold 6" for one that is held. */
function countedText(counted: ReturnType<typeof countNotes>[number] | undefined): string {
  if (!counted) return '';
  return counted.held.startsWith('hold') ? counted.held : [counted.count, counted.held].filter(Boolean).join(' ');
}
