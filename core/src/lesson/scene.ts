import type { FillFact } from '../catalogue/fills/fill.js';
import type { DifficultyFact } from '../difficulty/difficulty.js';
import type { Position } from '../harmony/naming.js';
import type { Key } from '../harmony/key.js';
import type { Together } from '../join/together.js';
import type { NoteName, Pitch } from '../pitch/pitch.js';
import type { MoveFact, StartFact } from '../right-hand/positions.js';
import type { PracticeRange } from '../log/step.js';
import type { RepeatPlace } from '../sheet/chart.js';
import type { Meter } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** What a teacher says, as data. */
export type LessonFact =
  | { readonly code: 'lesson.opens'; readonly title: string; readonly key: Key; readonly meter: Meter; readonly parts: number }
  | {
      readonly code: 'lesson.part';
      readonly number: number;
      readonly name: string | null;
      readonly bars: { readonly from: number; readonly to: number };
      /** True where only some bars of the part are meant. */
      readonly piece: boolean;
    }
  | { readonly code: 'lesson.repeats'; readonly part: number; readonly as: RepeatPlace }
  | { readonly code: 'lesson.by-name'; readonly hand: 'right' | 'left' }
  | { readonly code: 'lesson.note'; readonly name: NoteName; readonly beside: readonly NoteName[] }
  | { readonly code: 'lesson.alone'; readonly hand: 'right' | 'left' }
  | {
      readonly code: 'lesson.chord';
      readonly symbol: string;
      readonly position: Position;
      readonly notes: readonly NoteName[];
      readonly fingers: readonly number[];
      /** True where an earlier part has taught it. */
      readonly again: boolean;
    }
  | { readonly code: 'lesson.meet'; readonly bar: number; readonly point: Together; readonly by: 'words' | 'counts' }
  | { readonly code: 'lesson.together' }
  | { readonly code: 'lesson.so-far'; readonly from: number; readonly to: number }
  | {
      readonly code: 'lesson.hardest';
      readonly part: number;
      readonly bars: { readonly from: number; readonly to: number };
      readonly reasons: readonly DifficultyFact[];
    }
  | { readonly code: 'lesson.once-more'; readonly time: number }
  | {
      readonly code: 'lesson.pattern';
      readonly part: number;
      readonly title: string;
      readonly symbol: string;
      readonly over: readonly string[];
    }
  | { readonly code: 'lesson.strike'; readonly count: string; readonly notes: readonly NoteName[] }
  /** Room that the melody leaves, and what fills it. */
  | { readonly code: 'lesson.fill'; readonly bar: number; readonly why: FillFact }
  | { readonly code: 'lesson.dressed'; readonly part: number; readonly pattern: boolean; readonly fills: boolean }
  | { readonly code: 'lesson.ending' }
  | { readonly code: 'lesson.whole' };

/** What a chapter is called. */
export type ChapterFact =
  | { readonly code: 'chapter.opening' }
  /** `bars` where only some of a part's bars are meant. */
  | {
      readonly code: 'chapter.part';
      readonly number: number;
      readonly bars: { readonly from: number; readonly to: number } | null;
    }
  | { readonly code: 'chapter.so-far'; readonly from: number; readonly to: number }
  | { readonly code: 'chapter.hardest' }
  | { readonly code: 'chapter.dressing'; readonly number: number }
  | { readonly code: 'chapter.whole' };

/** One thing that is said, with the keys that are struck while it is; at a place of the song where it belongs to one. */
export interface LessonLine {
  readonly says: LessonFact | StartFact | MoveFact;
  readonly strikes: readonly Pitch[];
  readonly at: Ticks | null;
}

/** A stretch that is played, by one hand or both, at a share of the song's tempo. */
export interface Passage extends PracticeRange {
  readonly share: number;
}

export const SCENE_KINDS = [
  'opening',
  'repeat',
  'place',
  'names',
  'right',
  'chords',
  'left',
  'meet',
  'together',
  'so-far',
  'hardest',
  'pattern',
  'fill',
  'dressed',
  'ending',
  'whole',
] as const;
export type SceneKind = (typeof SCENE_KINDS)[number];

/** One step of a lesson: lines that are said, then a passage that is played, and played after it where it is asked for. */
export interface Scene {
  /** The same for the same stretch and work, however the rest of the lesson changes. */
  readonly id: string;
  readonly kind: SceneKind;
  /** The number of the part that is shown. */
  readonly part: number;
  readonly lines: readonly LessonLine[];
  readonly plays: Passage | null;
  /** True where the pianist plays it next. */
  readonly asks: boolean;
}

/** What belongs together in a lesson: a part, or a piece of one where it is long; parts one after another; the hardest spot. */
export interface Chapter {
  readonly id: string;
  readonly title: ChapterFact;
  readonly scenes: readonly Scene[];
  /** Seconds that it takes at the tempi it names, with the pianist's turns. */
  readonly seconds: number;
}

/** A lesson that plays itself, scene by scene. */
export interface LessonScript {
  readonly chapters: readonly Chapter[];
}
