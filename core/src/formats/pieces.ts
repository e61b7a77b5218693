import type { Pitch } from '../pitch/pitch.js';
import type { Lyric, Song } from '../song/song.js';
import type { Bar } from '../time/bars.js';
import { TICKS_PER_QUARTER, type Ticks } from '../time/ticks.js';

/** A written note or rest: the tune cut at bar lines and chord changes, `at` counted from the start of its bar. */
export interface Piece {
  readonly at: Ticks;
  readonly length: Ticks;
  /** Null for a rest. */
  readonly pitch: Pitch | null;
  /** What is struck with it, bottom-up. */
  readonly with: readonly Pitch[];
  /** Tied to the next piece. */
  readonly tiedOn: boolean;
  /** Goes on from the piece before. */
  readonly continues: boolean;
  /** The chord symbol that begins here. */
  readonly chord: string | null;
  readonly lyric: Lyric | null;
  /** Small notes before it. */
  readonly graces: readonly Pitch[];
  /** The syllable goes on with the word of the one before. */
  readonly insideWord: boolean;
}

/** A run of pieces under one tuplet bracket: `actual` notes in the time of `normal`; null for plain notes. */
export interface PieceGroup {
  readonly tuplet: { readonly actual: number; readonly normal: number } | null;
  readonly pieces: readonly Piece[];
}

/** Cuts the tune into written pieces, a list for each bar; silent stretches become rests. */
export function barEvents(song: Song, bars: readonly Bar[]): Piece[][] {
  const chordAt = new Map(song.chords.map((c) => [c.at, c.symbol]));
  const chordPlaces = song.chords.map((c) => c.at);
  let note = 0;
  let chord = 0;
  let joined = false;
  return bars.map((bar) => {
    const pieces: Piece[] = [];
    while (chord < chordPlaces.length && chordPlaces[chord] < bar.start) chord++;
    const cuts = [];
    for (let c = chord; c < chordPlaces.length && chordPlaces[c] < bar.end; c++) cuts.push(chordPlaces[c]);
    let at = bar.start;
    while (at < bar.end) {
      while (note < song.melody.length && song.melody[note].at + song.melody[note].length <= at) note++;
      const n = song.melody[note];
      const sounding = n !== undefined && n.at <= at;
      const edge = sounding ? n.at + n.length : (n?.at ?? song.length);
      const cut = cuts.find((c) => c > at) ?? Infinity;
      const end = Math.min(edge, bar.end, cut);
      pieces.push({
        at: at - bar.start,
        length: end - at,
        pitch: sounding ? n.pitch : null,
        with: sounding ? (n.with ?? []) : [],
        tiedOn: sounding && end < edge,
        continues: sounding && n.at < at,
        chord: chordAt.get(at) ?? null,
        lyric: sounding && n.at === at ? n.lyric : null,
        graces: sounding && n.at === at ? (n.graces ?? []) : [],
        insideWord: joined,
      });
      if (sounding && n.at === at && n.lyric) joined = n.lyric.joins;
      at = end;
    }
    return pieces;
  });
}

/** The smallest plain note: a 128th. */
const PLAIN = TICKS_PER_QUARTER / 32;

const TUPLETS = [
  { actual: 3, normal: 2 },
  { actual: 5, normal: 4 },
  { actual: 7, normal: 4 },
] as const;

const isPlain = (ticks: Ticks): boolean => ticks % PLAIN === 0;

/** Gathers pieces into tuplets: neighbours whose lengths are no plain notes, until together they are. */
export function splitForTuplets(pieces: readonly Piece[]): PieceGroup[] {
  const groups: PieceGroup[] = [];
  for (let i = 0; i < pieces.length;) {
    const first = pieces[i];
    if (isPlain(first.length)) {
      groups.push({ tuplet: null, pieces: [first] });
      i++;
      continue;
    }
    const tuplet = TUPLETS.find((t) => isPlain((first.length * t.actual) / t.normal)) ?? null;
    const group: Piece[] = [];
    let sum = 0;
    do {
      group.push(pieces[i]);
      sum += pieces[i++].length;
    } while (i < pieces.length && !isPlain(sum));
    groups.push({ tuplet, pieces: group });
  }
  return groups;
}

/** A plain written length: a note value as MusicXML names it, with up to two dots. */
export interface NoteValue {
  readonly ticks: Ticks;
  readonly type: string;
  readonly dots: number;
}

const VALUES: readonly NoteValue[] = ['whole', 'half', 'quarter', 'eighth', '16th', '32nd', '64th', '128th']
  .flatMap((type, i): NoteValue[] => {
    const ticks = (TICKS_PER_QUARTER * 4) / 2 ** i;
    const plain = { ticks, type, dots: 0 };
    const dotted = { ticks: ticks * 1.5, type, dots: 1 };
    const twice = { ticks: ticks * 1.75, type, dots: 2 };
    return [plain, dotted, twice].filter((v) => Number.isInteger(v.ticks));
  })
  .sort((a, b) => b.ticks - a.ticks);

/** Writes a plain length as note values to be tied, longest first. */
export function noteValues(ticks: Ticks): NoteValue[] {
  const values: NoteValue[] = [];
  let rest = ticks;
  for (const value of VALUES) {
    while (rest >= value.ticks) {
      values.push(value);
      rest -= value.ticks;
    }
  }
  return values;
}

/** Places that a breath comes before. */
export const breathsOf = ({ marks }: Pick<Song, 'marks'>): ReadonlySet<Ticks> =>
  new Set(marks.filter((m) => m.kind === 'breath').map((m) => m.at));

/** Places of the tune that are held. */
export const fermatasOf = ({ marks }: Pick<Song, 'marks'>): ReadonlySet<Ticks> =>
  new Set(marks.filter((m) => m.kind === 'fermata').map((m) => m.at));

/** The slurs of a song that have both ends: where they begin, and where their last notes end. */
export function slursOf({ marks }: Pick<Song, 'marks'>): {
  readonly slurStarts: ReadonlySet<Ticks>;
  readonly slurEnds: ReadonlySet<Ticks>;
} {
  const slurStarts = new Set<Ticks>();
  const slurEnds = new Set<Ticks>();
  let open: Ticks | null = null;
  const ends = marks
    .filter((m) => m.kind === 'slur-start' || m.kind === 'slur-end')
    .sort((a, b) => a.at - b.at || (a.kind === 'slur-end' ? -1 : 1));
  for (const { at, kind } of ends) {
    if (kind === 'slur-start') open ??= at;
    else if (open !== null && at > open) {
      slurStarts.add(open);
      slurEnds.add(at);
      open = null;
    }
  }
  return { slurStarts, slurEnds };
}
