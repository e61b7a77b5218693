import type { Reminder } from '../song/decisions.js';
import type * as z from 'zod';
import { SongSchema, type Song, type SongFault } from '../song/song.js';
import { oneLine } from '../song/text.js';
import type { GridName } from './midi/quantise.js';
import type { Pitch } from '../pitch/pitch.js';

/** A part of the place of a fault: a line of the text, a measure as the page numbers it, a bar as it is played (0 for a pick-up), a note. */
export type RefusedAt =
  { readonly line: number } | { readonly measure: string } | { readonly bar: number } | { readonly note: number };

/** What a reader stopped at. */
export type RefusalCause =
  | { readonly code: 'file.empty' }
  | { readonly code: 'file.too-long'; readonly most: number; readonly what: 'letters' | 'megabytes' }
  | {
      readonly code: 'file.too-many';
      readonly most: number;
      readonly what: 'voices' | 'overlays' | 'notes' | 'bars' | 'attributes' | 'tags';
    }
  | { readonly code: 'file.damaged'; readonly format: 'midi' | 'zip' | 'xml' }
  | { readonly code: 'file.unreadable-here' }
  | { readonly code: 'line.too-long'; readonly most: number }
  | { readonly code: 'abc.no-key' }
  | { readonly code: 'chordpro.no-chords' }
  | { readonly code: 'abc.no-tune' }
  | { readonly code: 'abc.open-graces' }
  | { readonly code: 'meter.uncountable'; readonly text: string }
  | { readonly code: 'tune.long-rest'; readonly most: number }
  | { readonly code: 'tune.none' }
  | { readonly code: 'chord.unread'; readonly text: string }
  | { readonly code: 'chord.altered'; readonly note: 'root' | 'bass'; readonly semitones: number }
  | { readonly code: 'note.off-keyboard'; readonly pitch: Pitch }
  | { readonly code: 'note.duration' }
  | { readonly code: 'note.no-letter'; readonly text: string }
  | { readonly code: 'note.altered'; readonly semitones: number }
  | { readonly code: 'note.octave'; readonly octave: number }
  | { readonly code: 'part.transposed'; readonly semitones: number }
  | { readonly code: 'repeats.too-long'; readonly most: number }
  | { readonly code: 'repeats.nothing-left' }
  /** The meter that the counts are those of, "3/4", where it was named. */
  | { readonly code: 'bar.counts'; readonly counts: number; readonly expected: number; readonly meter: string | null }
  | { readonly code: 'bar.too-short' }
  | { readonly code: 'midi.no-head' }
  | { readonly code: 'midi.type'; readonly type: number }
  | { readonly code: 'midi.frames' }
  | { readonly code: 'recording.nothing' }
  | { readonly code: 'musicxml.no-tag' }
  | { readonly code: 'musicxml.no-score' }
  | { readonly code: 'musicxml.entities' }
  | { readonly code: 'musicxml.no-part' }
  | { readonly code: 'zip.too-large' }
  | { readonly code: 'zip.no-score' }
  | { readonly code: 'letters.nothing' }
  | { readonly code: 'letters.unnamed-line' }
  | { readonly code: 'letters.no-tune' }
  | { readonly code: 'letters.last-bar'; readonly counts: number }
  | { readonly code: 'letters.empty-header'; readonly name: string }
  | {
      readonly code: 'letters.value';
      readonly what: 'key' | 'time' | 'tempo' | 'pickup' | 'counts' | 'names';
      readonly text: string;
    }
  | { readonly code: 'letters.slices'; readonly slices: number }
  | { readonly code: 'letters.pickup-counts'; readonly counts: number; readonly expected: number }
  | { readonly code: 'letters.before-pickup' }
  | { readonly code: 'letters.hold' }
  | { readonly code: 'letters.not-a-note'; readonly text: string }
  | { readonly code: 'letters.key-twice'; readonly text: string }
  | { readonly code: 'letters.stack'; readonly notes: number }
  | { readonly code: 'letters.row-without-tune'; readonly row: 'chord' | 'words' | 'left' | 'inner' }
  | { readonly code: 'letters.row-bars'; readonly bars: number; readonly expected: number }
  | { readonly code: 'letters.syllable'; readonly text: string }
  | DataFault;

/** What is wrong with data that was checked against its schema. */
export type DataFault =
  | SongFault
  | { readonly code: 'data.too-large' }
  | { readonly code: 'data.missing' }
  | { readonly code: 'data.off-keyboard' }
  | { readonly code: 'data.not-a-pitch' }
  | { readonly code: 'data.steps' }
  | { readonly code: 'data.span' };

/** What to do about it. */
export type Remedy =
  | 'abc-lines'
  | 'write-chords-over'
  | 'smaller-book'
  | 'one-song'
  | 'shorter-song'
  | 'break-line'
  | 'close-graces'
  | 'write-voices'
  | 'usual-meter'
  | 'shorten-rest'
  | 'usual-symbol'
  | 'begin-tune-line'
  | 'name-line'
  | 'change-last-bar'
  | 'fill-header'
  | 'example-key'
  | 'example-time'
  | 'example-tempo'
  | 'example-pickup'
  | 'example-last-bar'
  | 'example-names'
  | 'fewer-slices'
  | 'fewer-notes'
  | 'change-either'
  | 'rest-or-pickup'
  | 'letter-or-rest'
  | 'write-note'
  | 'other-octave'
  | 'tune-line-first'
  | 'bar-for-bar'
  | 'fewer-counts'
  | 'fewer-counts-or-bar'
  | 'more-counts'
  | 'syllables'
  | 'fewer-repeats'
  | 'file-with-tune'
  | 'ending-numbers'
  | 'shorten-note'
  | 'lengthen-note'
  | 'press-key'
  | 'correct-chord'
  | 'correct-file'
  | 'export-midi'
  | 'export-musicxml'
  | 'save-again';

/** A refused input: where, why, and a way out. */
export interface Refusal {
  /** From the outermost part of the place inwards; null for the file as a whole. */
  readonly place: readonly RefusedAt[] | null;
  readonly cause: RefusalCause;
  readonly remedy: Remedy;
  /** Line of the text, from 1, for formats that are typed. */
  readonly line: number | null;
  /** First and last column of the trouble in its line, from 0, the last one not included. */
  readonly columns: readonly [number, number] | null;
}

/** How long a chord of words with chords is taken to last: they say where it changes, and not when. */
export const CHORD_LENGTHS = ['bar', 'half', 'two-bars'] as const;
export type ChordLength = (typeof CHORD_LENGTHS)[number];

/** Something that a file leaves open, such as which of its lines is the tune; it is asked with a sensible answer given. */
export interface Question {
  readonly id: 'tune' | 'voice' | 'line' | 'stacks' | 'chords' | 'grid' | 'length';
  readonly entries: readonly QuestionEntry[];
  /** The answer that was taken. */
  readonly value: string;
}

/** What is kept of notes that are struck together in the tune: all of them, or one. */
export const STACKS = ['all', 'top', 'lowest'] as const;
export type Stacks = (typeof STACKS)[number];

/** An answer that a question offers: what the file names itself, or one of ours. */
export interface QuestionEntry {
  readonly id: string;
  readonly fact:
    | { readonly code: 'entry.named'; readonly text: string }
    | { readonly code: 'entry.tune'; readonly number: number }
    | { readonly code: 'entry.voice'; readonly number: number }
    | { readonly code: 'entry.line'; readonly name: LineName; readonly notes: number; readonly sung: boolean }
    | { readonly code: 'entry.stacks'; readonly keep: Stacks }
    | { readonly code: 'entry.chords'; readonly named: boolean }
    | { readonly code: 'entry.length'; readonly lasts: ChordLength }
    /** How far played notes lie from a grid on average, in milliseconds. */
    | { readonly code: 'entry.grid'; readonly grid: GridName; readonly off: number };
}

/** What a line of a score is called: as the file names its part or track, with its staff or voice where it has several. */
export interface LineName {
  readonly of: 'part' | 'track';
  readonly name: string | null;
  /** From 1, in the order of the file. */
  readonly number: number;
  readonly staff: string | null;
  readonly voice: string | null;
}

/** Answers to questions, by their ids. What is not answered takes the sensible answer. */
export type Answers = Readonly<Record<string, string>>;

/** Things that a file may hold. */
export type CountedThing =
  | 'melody-notes'
  | 'syllables'
  | 'further-verses'
  | 'chord-symbols'
  | 'grace-notes'
  | 'slurs'
  | 'fermatas'
  | 'breaths'
  | 'ornaments'
  | 'rare-ornaments'
  | 'words'
  | 'playing-signs'
  | 'other-lines'
  | 'left-hand'
  | 'second-voice'
  | 'reminders'
  | 'other-parts'
  | 'accompaniment'
  | 'accompaniment-as-chords'
  | 'tempo-changes'
  | 'controls'
  | 'layout-lines'
  | 'dynamics'
  | 'swells'
  | 'pedal'
  | 'octave-signs'
  | 'articulations'
  | 'technical'
  | 'rolled'
  | 'glides'
  | 'tremolos'
  | 'figured-bass'
  | 'chord-diagrams'
  | 'cue-notes'
  | 'page-layout';

/** What a reader did that the pianist should know of. */
export type Notice =
  | {
      readonly code: 'notice.stacked';
      readonly measure: string;
      readonly notes: number;
      readonly kept: Stacks;
      readonly pitch: Pitch;
    }
  | { readonly code: 'notice.left-kept' }
  | { readonly code: 'notice.inner-kept' }
  /** What a file that was written has no place for. */
  | { readonly code: 'notice.not-written'; readonly counted: readonly Counted[] }
  | { readonly code: 'notice.order'; readonly order: string }
  | { readonly code: 'notice.voices'; readonly voice: number }
  | { readonly code: 'notice.key-changes'; readonly measure: string }
  | { readonly code: 'notice.transposed' };

/** Something that the file holds, how often, and what became of it. */
export interface Counted {
  readonly what: CountedThing;
  readonly count: number;
  readonly became: 'used' | 'kept' | 'left out';
}

/** What was found beside the song itself. */
export interface Found {
  readonly notices: readonly Notice[];
  readonly questions: readonly Question[];
  readonly counted: readonly Counted[];
  /** What the pianist wrote into the file to be reminded of; absent where the format has none. */
  readonly reminders?: readonly Reminder[];
}

/** A song that was read, with what was found on the way, or a refusal. */
export type Reading = ({ readonly ok: true; readonly song: Song } & Found) | { readonly ok: false; readonly refusal: Refusal };

/** Thrown inside readers only; every public reader turns it into a {@link Reading}. */
export class RefusedInput extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.cause.code);
  }
}

/** Stops a reader. What it quotes from the file is made one line, and short. */
export function refuse(
  place: readonly RefusedAt[] | null,
  cause: RefusalCause,
  remedy: Remedy,
  line: number | null = null,
  columns: readonly [number, number] | null = null,
): never {
  throw new RefusedInput({ place: place && place.map(short), cause: short(cause), remedy, line, columns });
}

/** Data with every text of it made one line of at most 80 letters: what is quoted from a file may hold anything. */
function short<T extends object>(data: T): T {
  const fields = Object.entries(data).map(([key, value]: [string, unknown]) => [
    key,
    typeof value === 'string' ? oneLine(value, 80) : value,
  ]);
  return Object.fromEntries(fields) as unknown as T;
}

/** Runs a reader: what it refuses becomes a value, what it yields is validated before anyone sees it. */
export function reading(read: () => { song: Song } & Partial<Found>): Reading {
  try {
    const { song, notices = [], questions = [], counted = [], reminders = [] } = read();
    const checked = SongSchema.safeParse(song);
    if (checked.success) return { ok: true, song: checked.data, notices, questions, counted, reminders };
    const [issue] = checked.error.issues;
    const index = issue.path[0] === 'melody' && typeof issue.path[1] === 'number' ? issue.path[1] : null;
    const note = index === null ? null : song.melody[index];
    const off = note !== null && issue.message === 'off-keyboard';
    return {
      ok: false,
      refusal: {
        place: index === null ? null : [{ note: index + 1 }],
        cause: off ? { code: 'note.off-keyboard', pitch: note.pitch } : dataFault(issue),
        remedy: 'correct-file',
        line: null,
        columns: null,
      },
    };
  } catch (error) {
    return { ok: false, refusal: refusalOf(error, null) };
  }
}

/** What a reader stopped with, as a refusal: one that it did not foresee says where it was. */
function refusalOf(error: unknown, place: Refusal['place']): Refusal {
  if (error instanceof RefusedInput) return error.refusal;
  return { place, cause: { code: 'file.unreadable-here' }, remedy: 'save-again', line: null, columns: null };
}

/** Runs a step of a reader; whatever it stops with becomes a refusal that names the place. */
export function inPlace<T>(place: () => readonly RefusedAt[], read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw error instanceof RefusedInput ? error : new RefusedInput(refusalOf(error, place()));
  }
}

const FAULTS: Readonly<Record<string, DataFault>> = {
  'off-keyboard': { code: 'data.off-keyboard' },
  'not-a-pitch': { code: 'data.not-a-pitch' },
  'unreadable-steps': { code: 'data.steps' },
  'comfortable-past-limit': { code: 'data.span' },
};

/** What a schema found, as a fault of ours. */
export function dataFault(issue: z.core.$ZodIssue): DataFault {
  if (issue.code === 'custom')
    return (issue.params?.fault as SongFault | undefined) ?? FAULTS[issue.message] ?? { code: 'data.missing' };
  return { code: issue.code === 'too_big' ? 'data.too-large' : 'data.missing' };
}

/** What an answer says of notes struck together; all are kept where it says nothing. */
export const stacksIn = (answers: Answers, usual: Stacks = 'all'): Stacks => STACKS.find((s) => s === answers['stacks']) ?? usual;

/** Asks what to keep of notes struck together, where there are any. */
export const stacksQuestion = (value: Stacks): Question => ({
  id: 'stacks',
  entries: STACKS.map((keep) => ({ id: keep, fact: { code: 'entry.stacks', keep } })),
  value,
});
