import { capital } from '../time/bars.js';
import { SongSchema, type Song } from '../song/song.js';

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

/** A song that was read, with what had to be said on the way, or a refusal. */
export type Reading =
  | { readonly ok: true; readonly song: Song; readonly notices: readonly string[] }
  | { readonly ok: false; readonly refusal: Refusal };

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
  throw new RefusedInput({ place, cause, wayOut, line, columns });
}

/** The refusal as it is shown: "Bar 3: the bar has 4 counts where 3 are expected. Add a bar line …" */
export function refusalSentence(refusal: Refusal): string {
  const start = refusal.place ? `${capital(refusal.place)}: ` : '';
  return `${start}${refusal.cause} ${refusal.wayOut}`;
}

/** Runs a reader: what it refuses becomes a value, what it yields is validated before anyone sees it. */
export function reading(read: () => { song: Song; notices?: readonly string[] }): Reading {
  try {
    const { song, notices } = read();
    const checked = SongSchema.safeParse(song);
    if (!checked.success) {
      const fault = checked.error.issues[0];
      const note = fault.path[0] === 'melody' && typeof fault.path[1] === 'number' ? song.melody[fault.path[1]] : null;
      const cause = note ? `The note ${note.pitch} ${fault.message}.` : fault.message;
      return refusal(
        note ? `melody note ${Number(fault.path[1]) + 1}` : null,
        cause,
        'Mend it in the file and bring it in again.',
      );
    }
    return { ok: true, song: checked.data, notices: notices ?? [] };
  } catch (error) {
    if (error instanceof RefusedInput) return { ok: false, refusal: error.refusal };
    throw error;
  }
}

function refusal(place: string | null, cause: string, wayOut: string): Reading {
  return { ok: false, refusal: { place, cause, wayOut, line: null, columns: null } };
}
