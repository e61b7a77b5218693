import type { Arrangement, Part, PartChord } from '../arrange/arrangement.js';
import { repeatWords } from '../divide/repeats.js';
import { keyName } from '../harmony/key.js';
import { countNotes, sungWords } from '../join/counting.js';
import { togetherPoints, togetherSentence } from '../join/together.js';
import { shapeOf } from '../left-hand/shapes.js';
import { nameOf } from '../pitch/pitch.js';
import { startWords } from '../right-hand/positions.js';
import { barAt, capital, type Bar } from '../time/bars.js';
import { meterName } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import { partTitle } from './chart.js';

/** A chord of a lesson: its name, how it lies, its notes bottom-up and the fingers. */
export interface LessonChord {
  readonly symbol: string;
  readonly name: string;
  readonly position: string;
  readonly notes: readonly string[];
  readonly fingers: readonly number[];
  /** How the hand comes to it from the chord before. */
  readonly change: string;
}

/** One note of the tune as it is read out: letter, finger, and what is sung or counted on it. */
export interface LessonNote {
  readonly letter: string;
  readonly finger: number | null;
  readonly count: string;
  readonly word: string;
}

/** One part, taught step by step. */
export interface LessonPart {
  readonly number: number;
  readonly title: string;
  /** "as part 1", where there is nothing new to learn. */
  readonly repeat: string | null;
  /** Where the right hand begins. */
  readonly start: string;
  readonly notes: readonly LessonNote[];
  readonly chords: readonly LessonChord[];
  /** A sentence for every chord: with which note it falls, on which count. */
  readonly together: readonly JoinWords[];
  /** What to watch, where the part is hard. */
  readonly watch: string | null;
}

/** A lesson: what the song is, then its parts in order. */
export interface Lesson {
  readonly title: string;
  readonly about: string;
  readonly parts: readonly LessonPart[];
  readonly hardest: string | null;
}

/** The lesson of an arrangement: each part as its right hand, its chords, and where the two meet. */
export function lessonOf({ song, parts, bars, hardest }: Arrangement): Lesson {
  return {
    title: song.title,
    about: `${keyName(song.key)}, ${meterName(song.meters[0])}, ♩ = ${song.tempo}`,
    hardest: hardest
      ? `Part ${hardest.part} is the hardest: ${hardest.reasons.slice(0, 2).join('; ')}. Begin with it while you are fresh.`
      : null,
    parts: parts.map((part): LessonPart => {
      const { repeats } = part;
      const place = repeats && repeats.differsFrom !== null ? `bar ${barAt(bars, repeats.differsFrom).number}` : '';
      const [first] = part.melody;
      return {
        number: part.number,
        title: partTitle(part),
        repeat: repeats ? capital(repeatWords(repeats, place)) : null,
        start: first && part.places[0] ? startWords(part.places[0], first.pitch, first.finger) : 'The right hand rests.',
        notes: notesOf(part, bars),
        chords: chordsOf(part),
        together: joinsOf(part, bars),
        watch:
          part.difficulty.reasons.length > 0 && part.difficulty.score >= WATCHED ? capital(part.difficulty.reasons[0]) : null,
      };
    }),
  };
}

/** Where the hands meet, in words. */
export interface JoinWords {
  readonly at: Ticks;
  /** "bar 3", or "pick-up". */
  readonly place: string;
  readonly sentence: string;
  /** True where the chord falls between notes of the tune. */
  readonly apart: boolean;
}

/** Where each chord of a part meets the tune, as it is learned first: before a texture strikes it more often. */
export const joinsOf = (part: Part, bars: readonly Bar[]): JoinWords[] =>
  togetherPoints(part.chords, part.melody, bars).map((point, i) => {
    const { number } = barAt(bars, point.at);
    return {
      at: point.at,
      place: number > 0 ? `bar ${number}` : 'pick-up',
      sentence: togetherSentence(point, part.chords[i].name),
      apart: point.melody === null,
    };
  });

/** Difficulty from which a part has something to watch. */
const WATCHED = 25;

function notesOf(part: Part, bars: Arrangement['bars']): LessonNote[] {
  const counts = new Map(countNotes(part.melody, bars).map((c) => [c.at, c.count]));
  const words = sungWords(part.melody);
  return part.melody.map(({ at, pitch, finger, lyric }, i) => ({
    letter: nameOf(pitch),
    finger,
    count: counts.get(at) ?? '',
    word: lyric ? lyric.text + (lyric.joins ? '-' : '') : words[i] ? '–' : '',
  }));
}

function chordsOf(part: Part): LessonChord[] {
  return part.chords
    .filter((c) => !c.again)
    .map((c) => ({
      symbol: c.symbol,
      name: c.name,
      position: c.position,
      notes: c.pitches.map(nameOf),
      fingers: c.fingers,
      change: c.inShort,
    }));
}

/** A lesson as plain text. */
export function lessonText(arrangement: Arrangement): string {
  const lesson = lessonOf(arrangement);
  const lines = [lesson.title, lesson.about];
  if (lesson.hardest) lines.push(lesson.hardest);
  for (const part of lesson.parts) {
    lines.push('', `Part ${part.number} · ${part.title}`);
    if (part.repeat) lines.push(`  ${part.repeat}.`);
    lines.push(`  Start: ${part.start}`);
    lines.push(`  Right hand: ${part.notes.map((n) => n.letter + (n.finger ? `(${n.finger})` : '')).join(' ')}`);
    for (const c of part.chords)
      lines.push(
        `  Left hand: ${c.name}, ${c.position}: ${c.notes.join(' ')}, fingers ${c.fingers.join('-')}${c.change ? ` (${c.change})` : ''}`,
      );
    for (const t of part.together) lines.push(`  Together, ${t.place}: ${t.sentence}`);
    if (part.watch) lines.push(`  Watch: ${part.watch}.`);
  }
  lines.push('', 'Never force a stretch; stop at pain or numbness, and rest a few minutes every 20 to 25.');
  return `${lines.join('\n')}\n`;
}

/** One shape of the left hand for the chord sheet: the keys it takes, under every name that it comes by. */
export interface ChordShape {
  readonly pitches: readonly string[];
  readonly fingers: readonly number[];
  readonly names: readonly string[];
  readonly position: string;
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
    names: [...names],
    position: chord.position,
    form: shapeOf(chord.pitches),
    parts: [...where],
  }));
}

/** What a worksheet leaves blank, to be filled in by hand: every other name of the tune, the notes of every chord. */
export interface WorksheetPart {
  readonly number: number;
  readonly title: string;
  readonly notes: readonly { readonly letter: string; readonly blank: boolean; readonly word: string; readonly count: string }[];
  readonly chords: readonly { readonly name: string; readonly position: string; readonly blanks: number }[];
}

/** A worksheet to copy by hand: the first of each pair of names is given, the next is left blank; chords are named, their notes are not. */
export function worksheet(arrangement: Arrangement): WorksheetPart[] {
  return lessonOf(arrangement)
    .parts.filter((_, i) => !['exact'].includes(arrangement.parts[i].repeats?.kind ?? ''))
    .map(({ number, title, notes, chords }) => ({
      number,
      title,
      notes: notes.map(({ letter, word, count }, i) => ({ letter, word, count, blank: i % 2 === 1 })),
      chords: chords.map(({ name, position, notes: keys }) => ({ name, position, blanks: keys.length })),
    }));
}
