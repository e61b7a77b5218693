import {
  TICKS_PER_QUARTER,
  beatTicks,
  countAt,
  countTicks,
  nameOf,
  offsetInBar,
  staffStep,
  type Bar,
  countNotes,
  sungWords,
  midiOf,
  type Part,
  type PartChord,
  type FillKind,
  type PartNote,
} from '@joined-hands/core';

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
  /** "rolled", "broken" or nothing: how a chord wider than the hand is struck. */
  readonly struck: string;
  /** Chord name and position on two lines beside the stack, or below it where there is little room. */
  readonly beside: boolean;
}

/** Where both hands strike together; `top` is null where the left hand strikes alone. */
export interface Clasp {
  readonly at: number;
  readonly x: number;
  readonly top: number | null;
  readonly count: string;
}

export interface CountMark {
  readonly x: number;
  readonly text: string;
  readonly kind: 'beat' | 'count' | 'between';
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
  /** "G to D". */
  readonly text: string;
  /** How the hand comes here, in a word, or nothing where the part begins. */
  readonly move: string;
}

/** One line of the strip. */
export interface StripLine {
  readonly start: number;
  readonly end: number;
  readonly width: number;
  readonly height: number;
  /** Pixels to a tick, for the playhead and for dragging. */
  readonly scale: number;
  readonly left: number;
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

/** Sizes of the strip in pixels. */
const SIZE = {
  left: 34,
  right: 14,
  top: 59,
  stone: 20,
  smallStone: 15,
  /** Least distance of two stones. */
  gap: 28.5,
  /** Widest a quarter note is drawn. */
  widestQuarter: 118,
  step: 11,
  tallest: 150,
  shortest: 54,
  /** Most pixels by which stones are spread over spare room. */
  mostSpread: 130,
  /** Most pixels by which they draw together where there is too little. */
  mostTight: 56,
  words: 28,
  ruler: 34,
  block: 29,
  /** Between the low note of a spread chord and the rest. */
  spread: 9,
  nameBeside: 86,
} as const;

/**
 * Lays a part out as lines of strip that fit a width in pixels. Lines break at bar lines only. A part of one line
 * spreads its stones over the room in a height, if one is given.
 */
export function layoutStrip(whole: Part, bars: readonly Bar[], width: number, height = 0, dressed = false): StripLine[] {
  const part = dressed ? whole : plainly(whole);
  const segments = bars
    .filter((b) => b.end > part.start && b.start < part.end)
    .map((bar) => ({ bar, start: Math.max(bar.start, part.start), end: Math.min(bar.end, part.end) }));
  const room = width - SIZE.left - SIZE.right;
  const lines = breakLines(segments, room / leastScale(part));
  const longest = Math.max(...lines.map((l) => l[l.length - 1].end - l[0].start));
  const scale = Math.min(room / longest, SIZE.widestQuarter / TICKS_PER_QUARTER);
  const laid = lines.map((line) => layoutLine(part, line, Math.max(scale, 1e-6), 0));
  // One line spreads over spare room; where even one does not fit, lines draw together.
  const most = laid.length === 1 ? SIZE.mostSpread : 0;
  const spare = height > 0 ? Math.max(-SIZE.mostTight, Math.min(most, height - laid[0].height)) : 0;
  return Math.abs(spare) > 8 ? lines.map((line) => layoutLine(part, line, Math.max(scale, 1e-6), spare)) : laid;
}

/** The part as it is learned first: its chords as they are voiced, without texture and added harmony. */
const plainly = (part: Part): Part => ({
  ...part,
  chords: part.chords.map((c) => (c.dressed ? { ...c, dressed: null } : c)),
  under: part.under.filter((u) => !u.added),
  fills: [],
  sung: [],
});

/** Breaks bars into lines of at most `most` ticks, as even as whole bars allow. */
function breakLines(segments: readonly Segment[], most: number): Segment[][] {
  const fill = (limit: number): Segment[][] => {
    const lines: Segment[][] = [];
    for (const segment of segments) {
      const line = lines.at(-1);
      if (line && segment.end - line[0].start <= limit) line.push(segment);
      else lines.push([segment]);
    }
    return lines;
  };
  const greedy = fill(most);
  const whole = segments[segments.length - 1].end - segments[0].start;
  const longestBar = Math.max(...segments.map((s) => s.end - s.start));
  // The shortest limit that needs no more lines gives the evenest ones.
  for (let limit = whole / greedy.length; limit < most; limit += longestBar / 2) {
    const even = fill(limit);
    if (even.length === greedy.length) return even;
  }
  return greedy;
}

/** Pixels to a tick below which stones would cover each other. */
function leastScale(part: Part): number {
  let shortest = Infinity;
  for (let i = 1; i < part.melody.length; i++) shortest = Math.min(shortest, part.melody[i].at - part.melody[i - 1].at);
  for (let i = 1; i < part.chords.length; i++) shortest = Math.min(shortest, (part.chords[i].at - part.chords[i - 1].at) / 2);
  for (let i = 1; i < part.fills.length; i++) shortest = Math.min(shortest, part.fills[i].at - part.fills[i - 1].at);
  for (const { dressed } of part.chords) {
    const places = dressed?.notes.map((n) => n.at) ?? [];
    for (let i = 1; i < places.length; i++)
      if (places[i] > places[i - 1]) shortest = Math.min(shortest, places[i] - places[i - 1]);
  }
  return SIZE.gap / Math.min(shortest, TICKS_PER_QUARTER);
}

interface Segment {
  readonly bar: Bar;
  readonly start: number;
  readonly end: number;
}

function layoutLine(part: Part, line: readonly Segment[], scale: number, spare: number): StripLine {
  const start = line[0].start;
  const end = line[line.length - 1].end;
  const x = (at: number) => SIZE.left + (at - start) * scale;
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
  const step = stepFor(range, spare);
  const field = Math.max(singing ? SUNG_STEP * 3 : 0, SIZE.shortest + Math.max(0, spare), range * step);
  const lowest = SIZE.top + SIZE.stone + field;
  const wordsY = lowest + SIZE.stone + 20;
  // A hand by itself has the strip to itself.
  const leftAlone = steps.length === 0 && !singing;
  const rulerY = leftAlone ? SIZE.top : wordsY + SIZE.words;
  const blocksY = rulerY + SIZE.ruler / 2 + 25;
  const tallest = Math.max(3, ...part.chords.flatMap((c) => attacksOf(c).map((a) => a.pitches.length)));
  const free = field - range * step;
  // Under a sung tune the stones stand for the words; the right hand's chords lie over them.
  const height = (pitch: string) =>
    singing ? SIZE.top + SIZE.stone + field : SIZE.top + SIZE.stone + (high - staffStep(pitch)) * step + free / 2;
  const stones = notes.map((note): Stone => {
    const r = note.length >= TICKS_PER_QUARTER ? SIZE.stone : SIZE.smallStone;
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
  const places = part.places
    .filter((p) => p.start < end && p.end > start)
    .map((p, i, all): PlaceMark => {
      const own = stones.filter((s) => s.note.at >= p.start && s.note.at < (all[i + 1]?.start ?? end));
      const [first, last] = [own[0] ?? stones[0], own.at(-1) ?? stones[0]];
      return {
        from: (first?.x ?? SIZE.left) - SIZE.stone,
        to: (last?.x ?? SIZE.left) + SIZE.stone,
        y: PLACES_Y,
        text: midiOf(p.thumb) < midiOf(p.fifth) ? `${nameOf(p.thumb)} to ${nameOf(p.fifth)}` : nameOf(p.thumb),
        move: MOVE_WORDS[p.move],
      };
    });
  const stoneAt = new Map(stones.map((s) => [s.note.at, s]));
  const attacks = [
    ...notes.map((n) => n.at),
    ...beside.map((n) => n.at),
    ...chords.flatMap((c) => attacksOf(c).map((a) => a.at)),
  ];
  const besides = chords.map((c, i) => (c.dressed ? 0 : x(Math.min(chords[i + 1]?.at ?? end, end)) - x(c.at) - 24));
  return {
    start,
    end,
    width: x(end) + SIZE.right,
    height:
      part.chords.length === 0
        ? rulerY + SIZE.ruler + 12
        : blocksY + tallest * SIZE.block + SIZE.spread + (besides.some((b) => b < SIZE.nameBeside) ? 48 : 16),
    scale,
    left: SIZE.left,
    wordsY,
    rulerY,
    blocksY,
    bars: line.map((s, i) => ({ number: s.bar.number, x: x(s.start), first: i === 0 })),
    counts: line.flatMap((s) => countMarks(s, attacks, x)),
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
      return {
        chord,
        x: x(chord.at),
        room: besides[i],
        blocks,
        later: rest.filter((a) => a.x < x(end)),
        bottom: blocksY + blocks.length * SIZE.block + (spread ? SIZE.spread : 0),
        struck: spread ? chord.spread : '',
        beside: besides[i] >= SIZE.nameBeside,
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
        const from = x(p.at) - SIZE.gap / 2;
        const width = x(Math.min(p.at + p.length, end)) - 20 - from;
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

/** The notes that the right hand plays beside the tune, each with its finger. */
function besideTune({ fills, sung }: Part): { at: number; pitch: string; finger: number | null; over: number }[] {
  return [
    ...fills.map(({ at, pitch, finger }) => ({ at, pitch, finger, over: 0 })),
    ...sung.flatMap(({ at, pitches, fingers }) =>
      pitches.map((pitch, over) => ({ at, pitch, finger: fingers[over] ?? null, over })),
    ),
  ];
}

/** Pixels from one note of a right-hand chord to the next above it. */
const SUNG_STEP = 27;

/** Pixels from one staff step to the next: wider where there is room to spare, narrower where there is too little. */
function stepFor(range: number, spare: number): number {
  if (range === 0) return SIZE.step;
  const usual = Math.min(SIZE.step, SIZE.tallest / range);
  return spare < 0 ? usual + spare / range : Math.min(SIZE.step + spare / 9, (SIZE.tallest + spare) / range);
}

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
    const wide = ((sung[i].word.length + next.word.length) / 2) * WORD_LETTER + WORD_GAP;
    if (x(next.at) - x(sung[i].at) < wide && !lifted.has(sung[i].at)) lifted.add(next.at);
  });
  return lifted;
}

/** Width of a letter of a sung word, and the least space between two words. */
const WORD_LETTER = 7.6;
const WORD_GAP = 4;

/** Pixels by which a crowded word stands higher. */
const WORD_LIFT = 13;

/** "2 &" for a short note; "1 2 3" or "hold 6" for one that is held. */
function countedText(counted: ReturnType<typeof countNotes>[number] | undefined): string {
  if (!counted) return '';
  return counted.held.startsWith('hold') ? counted.held : [counted.count, counted.held].filter(Boolean).join(' ');
}

interface StripAttack {
  readonly at: number;
  readonly pitches: readonly string[];
  readonly fingers: readonly number[];
}

/** What is struck of a chord, moment by moment: its texture's attacks, or the chord itself. */
function attacksOf({ at, pitches, fingers, dressed }: PartChord): StripAttack[] {
  if (!dressed) return [{ at, pitches, fingers }];
  const places = [...new Set(dressed.notes.map((n) => n.at))];
  return places.map((place) => {
    const here = dressed.notes.flatMap((n, k) => (n.at === place ? [{ pitch: n.pitch, finger: dressed.fingers[k] }] : []));
    return { at: place, pitches: here.map((n) => n.pitch), fingers: here.map((n) => n.finger) };
  });
}

/** The counts of one bar: every count, and what is said between where something is struck. */
function countMarks(segment: Segment, attacks: readonly number[], x: (at: number) => number): CountMark[] {
  const { bar, start, end } = segment;
  const unit = countTicks(bar.meter);
  const marks = new Map<number, CountMark>();
  const mark = (at: number) => {
    const offset = offsetInBar(bar, at);
    const count = countAt(offset, bar.meter);
    const kind = count.between ? 'between' : offset % beatTicks(bar.meter) === 0 ? 'beat' : 'count';
    marks.set(at, { x: x(at), text: count.between || `${count.beat}`, kind });
  };
  for (let at = bar.start - (bar.lead % unit); at < end; at += unit) if (at >= start) mark(at);
  for (const at of attacks) if (at >= start && at < end && !marks.has(at)) mark(at);
  return [...marks.values()];
}
