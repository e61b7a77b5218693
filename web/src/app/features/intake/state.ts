import type { Arrangement } from '@joined-hands/core/arrange';
import type { Answers, Found, Question, Recording, Refusal } from '@joined-hands/core/formats';
import type { Document, SongFacts } from '@joined-hands/core/song';

/** Ways in that are typed or pasted. */
export type Typing = 'letters' | 'abc' | 'words';

export type Way = Typing | 'file' | 'play';

/** What is read: a text as it stands, a file, or keys as they were played. */
export type Source =
  | { readonly kind: 'text'; readonly way: Typing; readonly text: string }
  | { readonly kind: 'file'; readonly file: File }
  | { readonly kind: 'recording'; readonly recording: Recording };

/** A song that could be read, arranged, with what was found beside it. */
export interface ReadSong extends Pick<Found, 'notices' | 'questions' | 'counted'> {
  readonly document: Document;
  readonly arrangement: Arrangement;
}

/** How far the reading has come. */
export type Step =
  | { readonly is: 'waiting' }
  /** It takes long: what is being read, as pianists name it. */
  | { readonly is: 'reading'; readonly what: string }
  | { readonly is: 'refused'; readonly sentence: string; readonly refusal: Refusal | null }
  | { readonly is: 'read' };

/** Bringing a song in, at any moment. */
export interface IntakeState {
  readonly way: Way;
  /** What was read last, or is being read: it is read again where a question is answered otherwise. */
  readonly source: Source | null;
  /** What the pianist answered to the questions of this source. */
  readonly answers: Answers;
  /** What the pianist put right in the song as it was read. */
  readonly facts: Partial<SongFacts>;
  readonly step: Step;
  /** The last song that could be read. It stays while a slip is mended. */
  readonly song: ReadSong | null;
}

export type IntakeEvent =
  | { readonly type: 'choose'; readonly way: Way }
  | { readonly type: 'begin'; readonly source: Source }
  | { readonly type: 'wait'; readonly what: string }
  | { readonly type: 'refuse'; readonly sentence: string; readonly refusal?: Refusal }
  | { readonly type: 'show'; readonly song: ReadSong }
  | { readonly type: 'answer'; readonly question: Question['id']; readonly value: string }
  | { readonly type: 'correct'; readonly facts: Partial<SongFacts> }
  /** There is nothing to read any more. */
  | { readonly type: 'empty' };

export const atFirst = (way: Way): IntakeState => ({
  way,
  source: null,
  answers: {},
  facts: {},
  step: { is: 'waiting' },
  song: null,
});

/** The state after an event. */
export function after(state: IntakeState, event: IntakeEvent): IntakeState {
  switch (event.type) {
    case 'choose':
      return { ...atFirst(event.way), song: event.way === state.way ? state.song : null };
    case 'begin':
      // What was said of the source before stays until there is something else to say: it would only flicker.
      return { ...state, source: event.source };
    case 'wait':
      return { ...state, step: { is: 'reading', what: event.what } };
    case 'refuse':
      return { ...state, step: { is: 'refused', sentence: event.sentence, refusal: event.refusal ?? null } };
    case 'show':
      return { ...state, step: { is: 'read' }, song: event.song };
    case 'answer':
      return { ...state, answers: { ...state.answers, [event.question]: event.value } };
    case 'correct':
      return { ...state, facts: { ...state.facts, ...event.facts } };
    case 'empty':
      return { ...state, source: null, step: { is: 'waiting' }, song: null };
  }
}

/** The song that may be put on the desk: one that was read, with no fault in what stands there since. */
export const keepable = ({ step, song }: IntakeState): ReadSong | null => (step.is === 'refused' ? null : song);
