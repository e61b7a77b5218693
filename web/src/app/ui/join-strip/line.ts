import { heldCounts } from '@joined-hands/core/words';
import type { Part, PartChord, PartNote } from '@joined-hands/core/arrange';
import { countNotes, sungWords } from '@joined-hands/core/join';
import { midiOf, nameOf, staffStep } from '@joined-hands/core/pitch';
import { countAt, offsetInBar } from '@joined-hands/core/time';
import { radiusOf } from './apart';
import { SIZE, nameStand, wordWidth } from './sizes';
import type { Spacing } from './spacing';
import type { Clasp, Pebble, PlaceMark, RoomMark, Stack, Stone, StripLine, WrittenLine } from './strip';
import { attacksOf, besideTune, countsOf, endOf, startOf, struckIn, type Segment } from './struck';

/** A line of a part before anything is drawn on it: its bars, and the pixel of every moment. */
interface Ground {
  readonly part: Part;
  readonly line: readonly Segment[];
  readonly start: number;
  readonly end: number;
  readonly x: (at: number) => number;
  readonly inside: (item: { readonly at: number }) => boolean;
}

/** Lays one line of a part; with pixels to spare, or less than nothing where its stones draw together. */
export function layLine(part: Part, line: readonly Segment[], spacing: Spacing, spare: number): StripLine {
  const [start, end] = [startOf(line), endOf(line)];
  const x = (at: number) => SIZE.left + spacing.x(at);
  const ground: Ground = { part, line, start, end, x, inside: ({ at }) => at >= start && at < end };
  const heights = heightsOf(part, spare);
  const stones = stonesOf(ground, heights);
  const alone = heights.empty && part.words.length > 0;
  const wordsY = alone ? SIZE.top : Math.max(heights.lowest + SIZE.stone + 20, ...stones.map(wordUnder));
  // A hand by itself has the strip to itself.
  const rulerY = heights.empty && !alone ? SIZE.top : wordsY + SIZE.words;
  const blocksY = rulerY + SIZE.ruler / 2 + 25;
  const tallest = tallestOf(part);
  const stacks = stacksOf(ground, blocksY, tallest);
  const below = stacks.some((s) => s.stands === 'below') ? 48 : 16;
  const struck = struckIn(part);
  const reminders = linesFrom(ground, part.reminders);
  const tall = part.chords.length === 0 ? rulerY + SIZE.ruler + 12 : blocksY + tallest * SIZE.block + SIZE.spread + below;
  return {
    start,
    end,
    x,
    wordsY,
    rulerY,
    blocksY,
    stones,
    stacks,
    at: (pixel) => spacing.at(pixel - SIZE.left),
    width: x(end) + SIZE.right,
    height: tall + (reminders.length > 0 ? SIZE.reminder : 0),
    bars: line.map((s, i) => ({ number: s.bar.number, x: x(s.start), first: i === 0 })),
    counts: line.flatMap((s) => countsOf(s, struck).map((c) => ({ ...c, x: x(c.at) }))),
    places: placesOf(ground, stones),
    clasps: heights.empty ? [] : claspsOf(ground, stones),
    rooms: roomsOf(ground, stones),
    pebbles: pebblesOf(ground, heights),
    reminders,
    words: linesFrom(
      ground,
      part.words.map((w) => ({ at: w.at, text: w.joins ? `${w.text}-` : w.text })),
    ),
  };
}

/** Where the notes of the right hand stand by their height. */
interface Heights {
  readonly y: (pitch: string) => number;
  /** Where the lowest stone may stand. */
  readonly lowest: number;
  /** True where the right hand plays nothing. */
  readonly empty: boolean;
}

function heightsOf(part: Part, spare: number): Heights {
  const singing = part.sung.length > 0;
  const steps = singing ? [] : [...part.melody, ...besideTune(part)].map((n) => staffStep(n.pitch));
  const high = Math.max(...steps, 0);
  const range = steps.length > 0 ? high - Math.min(...steps) : 0;
  const field = Math.max(singing ? SUNG_STEP * 3 : 0, fieldFor(range, spare));
  const step = Math.min(widestStep(range, spare), field / Math.max(1, range));
  const top = SIZE.top + SIZE.stone;
  const lowest = top + field;
  return {
    lowest,
    empty: steps.length === 0 && !singing,
    // Under a sung tune the stones stand for the words; the right hand's chords lie over them.
    y: (pitch) => (singing ? lowest : top + (high - staffStep(pitch)) * step + (field - range * step) / 2),
  };
}

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

function stonesOf({ part, line, end, x, inside }: Ground, { y }: Heights): Stone[] {
  const notes = part.melody.filter(inside);
  const bars = line.map((l) => l.bar);
  const counted = new Map(countNotes(notes, bars).map((c) => [c.at, c]));
  const words = sungWords(part.melody);
  const sung = new Map(part.melody.map((n, i) => [n.at, words[i] !== null]));
  const lifted = liftedWords(notes, x);
  const tailTo = (until: number) => x(Math.min(until, end)) - SIZE.stone - 4;
  return notes.map((note): Stone => {
    const r = radiusOf(note);
    const tail = tailTo(note.at + note.length);
    const under = part.under.filter((u) => u.at === note.at);
    return {
      note,
      r,
      x: x(note.at),
      y: y(note.pitch),
      letter: nameOf(note.pitch),
      tail: tail > x(note.at) + r + 4 ? tail : null,
      counted: countedText(counted.get(note.at)),
      sungOn: note.lyric === null && sung.get(note.at) === true,
      ahead: counted.get(note.at)?.syncopated ?? false,
      word: wordOf(note),
      lift: lifted.has(note.at) ? WORD_LIFT : 0,
      held: note.stops.includes('fermata'),
      breath: note.stops.includes('breath'),
      graces: (note.graces ?? []).map(nameOf),
      under: heldUnder(under, note, tailTo),
      joined: under.some((u) => u.written),
    };
  });
}

/** What is held under a note, from the top down; fingers are shown where they are part of learning the tune, a tail where it is held longer. */
function heldUnder(held: Part['under'], note: PartNote, tailTo: (until: number) => number): Stone['under'] {
  return held
    .flatMap(({ pitches, fingers, written, inner, at, length }) =>
      pitches.map((pitch, i) => ({
        pitch,
        letter: nameOf(pitch),
        finger: written ? (fingers[i] ?? null) : null,
        tail: inner && length > note.length ? tailTo(at + length) : null,
      })),
    )
    .sort((a, b) => midiOf(b.pitch) - midiOf(a.pitch));
}

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

/** Least space between two words. */
const WORD_GAP = 4;

/** Pixels by which a crowded word stands higher. */
const WORD_LIFT = 13;

/** "2 &" for a short note; "1 2 3" or "hold 6" for one that is held. */
function countedText(counted: ReturnType<typeof countNotes>[number] | undefined): string {
  if (!counted) return '';
  const held = heldCounts(counted);
  return counted.hold !== null ? held : [counted.count, held].filter(Boolean).join(' ');
}

/** Where the line of words stands at least, so that a stone's own word is clear of it and of what it holds under it. */
const wordUnder = ({ y, r, under, lift }: Stone): number => y + r + under.length * SIZE.under + lift + 16;

/** Where the places of the right hand are drawn, under the bar numbers. */
const PLACES_Y = 37;

const MOVE_WORDS: Readonly<Record<Part['places'][number]['move'], string>> = {
  fresh: '',
  stay: '',
  under: $localize`thumb under`,
  over: $localize`over the thumb`,
  shift: 'shift',
};

function placesOf({ part, start, end }: Ground, stones: readonly Stone[]): PlaceMark[] {
  return part.places
    .filter((p) => p.start < end && p.end > start)
    .map((p, i, all): PlaceMark => {
      const own = stones.filter((s) => s.note.at >= p.start && s.note.at < (all[i + 1]?.start ?? end));
      const [first, last] = [own[0] ?? stones[0], own.at(-1) ?? stones[0]];
      const [from, to] = [(first?.x ?? SIZE.left) - SIZE.stone, (last?.x ?? SIZE.left) + SIZE.stone];
      const names = (midiOf(p.thumb) < midiOf(p.fifth) ? [p.thumb, p.fifth] : [p.thumb]).map(nameOf);
      const span = names.join(' to ');
      const move = MOVE_WORDS[p.move];
      const fits = (words: string) => wordWidth(words) <= to - from;
      return { from, to, y: PLACES_Y, names: fits(span) ? names : [], move: fits(`${span} · ${move}`) ? move : '' };
    });
}

/** Most keys that the left hand strikes at once in a part, three at least. */
const tallestOf = (part: Part): number => Math.max(3, ...part.chords.flatMap((c) => attacksOf(c).map((a) => a.pitches.length)));

function stacksOf({ part, end, x, inside }: Ground, blocksY: number, tallest: number): Stack[] {
  const chords = part.chords.filter(inside);
  return chords.map((chord, i): Stack => {
    // The bed of the last chord reaches to the end of the ruler.
    const until = chords[i + 1] ? x(chords[i + 1].at) : x(end) + 22;
    const room = chord.dressed ? 0 : until - x(chord.at) - 24;
    // The note that is struck first stands apart from those that follow.
    const apart = chord.spread === 'together' ? 0 : SIZE.spread;
    const [first, ...rest] = attacksOf(chord).map((attack) => ({
      x: x(attack.at),
      graces: attack.graces.map(nameOf),
      blocks: attack.pitches
        .map((pitch, k) => ({ pitch, letter: nameOf(pitch), finger: attack.fingers[k] ?? null }))
        .reverse()
        .map((b, k, all) => ({ ...b, y: blocksY + k * SIZE.block + (k === all.length - 1 ? apart : 0) })),
    }));
    const bottom = blocksY + first.blocks.length * SIZE.block + apart;
    return {
      chord,
      room,
      bottom,
      x: x(chord.at),
      blocks: first.blocks,
      graces: first.graces,
      stands: nameStand(chord, room),
      // What a texture strikes later stands beside the first attack: the name goes below all of it.
      nameY: chord.dressed ? blocksY + tallest * SIZE.block + 39 : bottom + 18,
      fingersY: bottom + (chord.dressed ? 13 : 36),
      later: rest.filter((a) => a.x < x(end)),
      struck: apart > 0 ? chord.spread : '',
    };
  });
}

function claspsOf({ part, line, x, inside }: Ground, stones: readonly Stone[]): Clasp[] {
  const stoneAt = new Map(stones.map((s) => [s.note.at, s]));
  return part.chords.filter(inside).map(({ at }: PartChord): Clasp => {
    const stone = stoneAt.get(at);
    const { bar } = line.find((s) => at < s.end) ?? line[line.length - 1];
    const count = countAt(offsetInBar(bar, at), bar.meter);
    return { at, x: x(at), top: stone ? stone.y + stone.r : null, count: count.between || `${count.beat}` };
  });
}

/** Pixels by which room for a fill begins before its first count, and ends before the next note. */
const ROOM_BEFORE = 14;
const ROOM_AFTER = 24;

function roomsOf({ part, end, x, inside }: Ground, stones: readonly Stone[]): RoomMark[] {
  return part.rooms.filter(inside).map(({ at, length, counts, chosen }) => {
    const from = x(at) - ROOM_BEFORE;
    const width = x(Math.min(at + length, end)) - ROOM_AFTER - from;
    const y = stones.findLast((s) => s.note.at < at)?.y ?? SIZE.top;
    return { at, x: from, width, y, counts, chosen };
  });
}

const pebblesOf = ({ part, x, inside, end }: Ground, { y }: Heights): Pebble[] =>
  besideTune(part)
    .filter(inside)
    .map((n) => ({
      ...n,
      id: `${n.at} ${n.pitch}`,
      letter: nameOf(n.pitch),
      x: x(n.at),
      y: y(n.pitch) - n.over * SUNG_STEP,
      tail: n.until === null ? null : Math.max(x(n.at) + 14, x(Math.min(n.until, end)) - SIZE.stone),
    }));

/** Lines of text in a line of the strip, each from its place on and cut where the next one begins. */
function linesFrom({ end, x, inside }: Ground, texts: readonly { readonly at: number; readonly text: string }[]): WrittenLine[] {
  const written = texts.filter(inside);
  return written.map(({ at, text }, i) => {
    const from = x(at) - SIZE.stone;
    const next = written[i + 1];
    const room = (next ? x(next.at) - SIZE.stone - WORD_GAP : x(end) + SIZE.right) - from;
    const letters = Math.floor(room / wordWidth('a'));
    return { x: from, whole: text, shown: text.length <= letters ? text : `${text.slice(0, Math.max(0, letters - 1))}…` };
  });
}
