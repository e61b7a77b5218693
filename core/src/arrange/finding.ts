import type { SoundingNote } from '../join/collisions.js';
import type { Jump } from '../join/jumps.js';
import type { VoicedChord } from '../left-hand/voice.js';
import type { Pitch } from '../pitch/pitch.js';
import type { HandPlace } from '../right-hand/positions.js';
import type { Document } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import { lastFrom, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Fix } from './fixes.js';
import type { HarmonisedChord } from './harmonise.js';

/** Something the pianist should know, with its place and ways out. */
export interface Finding {
  /** A stable name for the rule, such as "reach" or "collision-crossing". */
  readonly rule: string;
  /** fix: it cannot be played as it stands. warn: it will trouble. note: good to know. */
  readonly severity: 'fix' | 'warn' | 'note';
  readonly at: Ticks | null;
  readonly part: number | null;
  /** The chord it speaks of, or null. */
  readonly chordAt: Ticks | null;
  readonly message: string;
  /** The keys it speaks of, to be shown on strip and keyboard. */
  readonly keys?: readonly Pitch[];
  readonly fixes: readonly Fix[];
}

interface PartRange {
  readonly number: number;
  readonly start: Ticks;
  readonly end: Ticks;
}

/** Finds the number of the part that holds a place. */
export function partFinder(parts: readonly Pick<PartRange, 'number' | 'start'>[]): (at: Ticks) => number | null {
  return (at) => lastFrom(parts, at)?.number ?? null;
}

/** What the findings are drawn from. */
export interface Examined {
  readonly doc: Document;
  readonly bars: readonly Bar[];
  readonly chords: readonly VoicedChord[];
  readonly harmony: readonly HarmonisedChord[];
  readonly tune: readonly MelodyNote[];
  /** All that the right hand plays, in order. */
  readonly right: readonly SoundingNote[];
  /** Where the right hand lies, place after place. */
  readonly places: readonly HandPlace[];
  readonly jumps: readonly Jump[];
  readonly parts: readonly PartRange[];
  readonly partOf: (at: Ticks) => number | null;
}

/** A finding at a place; what it offers speaks of the chord struck there unless another is named. */
export const finding = (
  { partOf }: Examined,
  at: Ticks,
  rule: string,
  severity: Finding['severity'],
  message: string,
  fixes: readonly Fix[],
  chordAt = at,
): Finding => ({ rule, severity, at, part: partOf(chordAt), chordAt, message, fixes });
