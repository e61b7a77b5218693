import { capital } from '../time/bars.js';
import { SongSchema, type Song } from '../song/song.js';
import { oneLine } from '../song/text.js';

/** A refused input: one sentence with the place and the cause, and a way out. */
export interface Refusal {
  /** "bar 12, count 3", "line 4", or null for the file as a whole. */
  readonly place: string | null;
  readonly cause: string;
  readonly wayOut: string;
  /** Line of the text, from 1, for formats that are typed. */
  readonly line: number | null;
  /** First and last column of the trouble in its line, from 0, the last one not included. */
  readonly columns: readonly [number, number] | null;
}

/** Something that a file leaves open, such as which of its lines is the tune; it is asked with a sensible answer given. */
export interface Question {
  readonly id: string;
  readonly label: string;
  readonly entries: readonly { readonly id: string; readonly text: string }[];
  /** The answer that was taken. */
  readonly value: string;
}

/** Answers to questions, by their ids. What is not answered takes the sensible answer. */
export type Answers = Readonly<Record<string, string>>;

/** Something that the file holds, how often, and what became of it. */
export interface Counted {
  /** In the plural: "grace notes". */
  readonly what: string;
  readonly count: number;
  readonly became: 'used' | 'kept' | 'left out';
}

/** What was found beside the song itself. */
export interface Found {
  readonly notices: readonly string[];
  readonly questions: readonly Question[];
  readonly counted: readonly Counted[];
}

/** A song that was read, with what was found on the way, or a refusal. */
export type Reading = ({ readonly ok: true; readonly song: Song } & Found) | { readonly ok: false; readonly refusal: Refusal };

/** Thrown inside readers only; every public reader turns it into a {@link Reading}. */
export class RefusedInput extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusalSentence(refusal));
  }
}

/** Stops a reader with a sentence for the user. */
export function refuse(
  place: string | null,
  cause: string,
  wayOut: string,
  line: number | null = null,
  columns: readonly [number, number] | null = null,
): never {
  // What is quoted from a file may hold anything, its line ends too.
  throw new RefusedInput({ place: place && oneLine(place, 80), cause: oneLine(cause, 300), wayOut, line, columns });
}

/** The refusal as it is shown: "Bar 3: the bar has 4 counts where 3 are expected. Add a bar line …" */
export function refusalSentence(refusal: Refusal): string {
  const start = refusal.place ? `${capital(refusal.place)}: ` : '';
  return `${start}${refusal.cause} ${refusal.wayOut}`;
}

/** Runs a reader: what it refuses becomes a value, what it yields is validated before anyone sees it. */
export function reading(read: () => { song: Song } & Partial<Found>): Reading {
  try {
    const { song, notices = [], questions = [], counted = [] } = read();
    const checked = SongSchema.safeParse(song);
    if (!checked.success) {
      const fault = checked.error.issues[0];
      const note = fault.path[0] === 'melody' && typeof fault.path[1] === 'number' ? song.melody[fault.path[1]] : null;
      const cause = note ? `The note ${note.pitch} ${fault.message}.` : plainFault(fault.message);
      return refusal(
        note ? `melody note ${Number(fault.path[1]) + 1}` : null,
        cause,
        'Correct it in the file and open it again.',
      );
    }
    return { ok: true, song: checked.data, notices, questions, counted };
  } catch (error) {
    return { ok: false, refusal: refusalOf(error, null) };
  }
}

/** What a reader stopped with, as a refusal: one that it did not foresee says where it was. */
function refusalOf(error: unknown, place: string | null): Refusal {
  if (error instanceof RefusedInput) return error.refusal;
  return {
    place,
    cause: 'Something here cannot be read.',
    wayOut: 'Save the file again in the program it came from, or choose another file.',
    line: null,
    columns: null,
  };
}

/** Runs a step of a reader; whatever it stops with becomes a refusal that names the place. */
export function inPlace<T>(place: () => string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw error instanceof RefusedInput ? error : new RefusedInput(refusalOf(error, place()));
  }
}

/** A fault that data was checked for, in plain words: sentences of our own stay, those of the checker are put simply. */
export function plainFault(message: string): string {
  if (message.startsWith('Too big')) return 'it is larger or longer than any song needs.';
  return /^(Invalid|Too small|Unrecognized|Expected)/.test(message)
    ? 'something is missing there, or is not what it should be.'
    : message;
}

function refusal(place: string | null, cause: string, wayOut: string): Reading {
  return { ok: false, refusal: { place, cause, wayOut, line: null, columns: null } };
}
