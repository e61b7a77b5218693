import type { Arrangement, Part, PartChord } from '../arrange/arrangement.js';
import type { DifficultyFact, Hardest } from '../difficulty/difficulty.js';
import type { Position } from '../harmony/naming.js';
import { withTops } from '../fills/sing-along.js';
import { countNotes, sungWords } from '../join/counting.js';
import { togetherPoints, type Together } from '../join/together.js';
import type { VoiceMove } from '../left-hand/reasons.js';
import { shapeOf } from '../left-hand/shapes.js';
import { nameOf, type NoteName, type Pitch } from '../pitch/pitch.js';
import { movesOf, startOf, type MoveFact, type StartFact } from '../right-hand/positions.js';
import type { Song } from '../song/song.js';
import { barAt, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { besideIn, remindersOf, repeatPlace, type PlacedReminder, type RepeatPlace, type StruckBeside } from './chart.js';
import { patternOf, type TaughtPattern } from './pattern.js';

/** A chord of a lesson: how it lies, its notes bottom-up and the fingers, and how each voice comes to it from the chord before. */
export interface LessonChord {
  readonly symbol: string;
  readonly position: Position;
  readonly notes: readonly NoteName[];
  readonly fingers: readonly number[];
  readonly moves: readonly VoiceMove[];
}

/** One note of the tune as it is read out: letter, finger, and what is sung or counted on it. */
export interface LessonNote {
  readonly letter: NoteName;
  /** What is struck with it, from the top down. */
  readonly beside: readonly StruckBeside[];
  readonly finger: number | null;
  readonly count: string;
  readonly word: string;
}

/** One part, taught step by step. */
export interface LessonPart {
  readonly part: Pick<Part, 'number' | 'name' | 'bars'>;
  /** The earlier part that it takes up. */
  readonly repeats: RepeatPlace | null;
  /** Where the right hand begins; null where it rests. */
  readonly start: StartFact | null;
  /** Where the right hand goes from there, or that it stays. */
  readonly moves: readonly MoveFact[];
  readonly notes: readonly LessonNote[];
  readonly chords: readonly LessonChord[];
  /** For every chord, with which note it falls, on which count. */
  readonly together: readonly Join[];
  /** The accompaniment, once the block chords hold; null where they are all there is. */
  readonly pattern: TaughtPattern | null;
  readonly reminders: readonly PlacedReminder[];
  /** What to watch, where the part is hard. */
  readonly watch: DifficultyFact | null;
}

/** A lesson: what the song is, then its parts in order. */
export interface Lesson {
  readonly song: Pick<Song, 'title' | 'key' | 'tempo' | 'meters'>;
  readonly parts: readonly LessonPart[];
  readonly hardest: Hardest | null;
}

/** The lesson of an arrangement: each part as its right hand, its chords, and where the two meet. */
export function lessonOf({ song, parts, bars, hardest }: Arrangement): Lesson {
  return {
    song,
    hardest,
    parts: parts.map((part): LessonPart => {
      const [first] = part.melody;
      const [watch] = part.difficulty.reasons;
      return {
        part,
        repeats: repeatPlace(part, bars),
        start: first && part.places[0] ? startOf(part.places[0], first.pitch, first.finger) : null,
        moves: first ? movesOf(part.places, bars) : [],
        notes: notesOf(part, bars),
        chords: chordsOf(part),
        together: joinsOf(part, bars),
        pattern: patternOf(part, bars),
        reminders: remindersOf(part, bars),
        watch: watch && part.difficulty.score >= WATCHED ? watch : null,
      };
    }),
  };
}

/** Where a chord meets the tune. */
export interface Join {
  readonly at: Ticks;
  /** Number of the bar; 0 for a pick-up. */
  readonly bar: number;
  readonly point: Together;
  /** True where the chord falls between notes of the tune. */
  readonly apart: boolean;
}

/** Where each chord of a part meets the tune, as it is learned first: before a texture strikes it more often. */
export const joinsOf = (part: Part, bars: readonly Bar[]): Join[] =>
  togetherPoints(part.chords, withTops(part.melody, part.interludes), bars).map((point) => ({
    at: point.at,
    bar: barAt(bars, point.at).number,
    point,
    apart: point.melody === null,
  }));

/** Difficulty from which a part has something to watch. */
const WATCHED = 25;

function notesOf(part: Part, bars: Arrangement['bars']): LessonNote[] {
  const counts = new Map(countNotes(part.melody, bars).map((c) => [c.at, c.count]));
  const words = sungWords(part.melody);
  const beside = besideIn(part);
  return part.melody.map(({ at, pitch, finger, lyric }, i) => ({
    letter: nameOf(pitch),
    beside: beside.get(at) ?? [],
    finger,
    count: counts.get(at) ?? '',
    word: lyric ? lyric.text + (lyric.joins ? '-' : '') : words[i] ? '–' : '',
  }));
}

function chordsOf(part: Part): LessonChord[] {
  return part.chords
    .filter((c) => !c.restruck)
    .map(({ symbol, position, pitches, fingers, moves }) => ({ symbol, position, notes: pitches.map(nameOf), fingers, moves }));
}

/** One shape of the left hand for the chord sheet: the keys it takes, under every name that it comes by. */
export interface ChordShape {
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  readonly symbols: readonly string[];
  readonly position: Position;
  /** Half steps between its keys. */
  readonly form: string;
  readonly parts: readonly number[];
}

/** Every different way in which the left hand takes a chord in a song, in the order in which they come. */
export function chordShapes({ parts }: Pick<Arrangement, 'parts'>): ChordShape[] {
  const shapes = new Map<string, { chord: PartChord; names: Set<string>; parts: Set<number> }>();
  for (const part of parts)
    for (const chord of part.chords) {
      const key = chord.pitches.join(' ');
      const shape = shapes.get(key) ?? { chord, names: new Set(), parts: new Set() };
      shape.names.add(chord.symbol);
      shape.parts.add(part.number);
      shapes.set(key, shape);
    }
  return [...shapes.values()].map(({ chord, names, parts: where }) => ({
    pitches: chord.pitches,
    fingers: chord.fingers,
    symbols: [...names],
    position: chord.position,
    form: shapeOf(chord.pitches),
    parts: [...where],
  }));
}

/** What a worksheet leaves blank, to be filled in by hand: every other name of the tune, the notes of every chord. */
export interface WorksheetPart {
  readonly part: Pick<Part, 'number' | 'name' | 'bars'>;
  readonly notes: readonly {
    readonly letter: NoteName;
    readonly blank: boolean;
    readonly word: string;
    readonly count: string;
  }[];
  readonly chords: readonly { readonly symbol: string; readonly position: Position; readonly blanks: number }[];
}

/** A worksheet to copy by hand: the first of each pair of names is given, the next is left blank; chords are named, their notes are not. */
export function worksheet(arrangement: Arrangement): WorksheetPart[] {
  return lessonOf(arrangement)
    .parts.filter((_, i) => !['exact'].includes(arrangement.parts[i].repeats?.kind ?? ''))
    .map(({ part, notes, chords }) => ({
      part,
      notes: notes.map(({ letter, word, count }, i) => ({ letter, word, count, blank: i % 2 === 1 })),
      chords: chords.map(({ symbol, position, notes: keys }) => ({ symbol, position, blanks: keys.length })),
    }));
}
