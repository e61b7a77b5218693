import type { WrittenLeft } from '../left-hand/written.js';
import type { NoOctave } from '../fills/harmony.js';
import type { Collision, SoundingNote } from '../join/collisions.js';
import type { ConflictFacts } from '../join/conflicts.js';
import type { Jump } from '../join/jumps.js';
import type { Form } from '../catalogue/schools/thinned.js';
import type { ThinCause } from '../left-hand/reasons.js';
import type { VoicedChord } from '../left-hand/voice.js';
import type { NoteName, Pitch } from '../pitch/pitch.js';
import type { HandPlace } from '../right-hand/positions.js';
import type { MelodyNote, Song } from '../song/song.js';
import { lastFrom, type Bar, type Place } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { EndingObstacle } from './endings.js';
import type { Fix } from './fixes.js';
import type { HarmonisedChord } from './harmonise.js';
import type { Settings } from './settings.js';

interface AtChord {
  readonly symbol: string;
  readonly place: Place;
}

/** What a finding says, in figures, pitches and places. Widths are in semitones, times in seconds. */
export type FindingFact =
  | ({
      readonly code: 'finding.spread';
      readonly width: number;
      readonly limit: number;
      readonly spread: 'broken' | 'rolled';
    } & AtChord)
  | ({ readonly code: 'finding.reach'; readonly width: number; readonly limit: number } & AtChord)
  | ({ readonly code: 'finding.stretch'; readonly width: number; readonly comfortable: number } & AtChord)
  | ({ readonly code: 'finding.keyboard'; readonly keys: number } & AtChord)
  | ({ readonly code: 'finding.low' } & AtChord)
  | ({ readonly code: 'finding.thinned'; readonly form: Form; readonly cause: ThinCause } & AtChord)
  | ({ readonly code: 'finding.fast'; readonly seconds: number } & AtChord)
  | { readonly code: 'finding.pin-lost'; readonly pitches: readonly Pitch[]; readonly place: Place }
  | ({ readonly code: 'finding.pin-foreign'; readonly names: readonly NoteName[] } & AtChord)
  | ({ readonly code: 'finding.conflict' } & ConflictFacts & AtChord)
  | {
      readonly code: 'finding.collision';
      readonly place: Place;
      readonly kind: Collision['kind'];
      readonly left: Pitch;
      readonly right: Pitch;
    }
  | { readonly code: 'finding.jump'; readonly place: Place; readonly jump: Jump }
  | ({ readonly code: 'finding.doubled'; readonly left: Pitch; readonly right: Pitch } & AtChord)
  | { readonly code: 'finding.no-octave'; readonly pitch: Pitch; readonly place: Place; readonly cause: NoOctave['cause'] }
  | { readonly code: 'finding.octave-kept'; readonly pitch: Pitch; readonly place: Place; readonly keys: number }
  /** Notes struck together that are wider than the hand or off the keyboard, and those of them that are left out. */
  | {
      readonly code: 'finding.wide-stack';
      readonly pitches: readonly Pitch[];
      readonly left: readonly Pitch[];
      readonly place: Place;
    }
  /** A key of the right hand's second voice that the hand does not hold beside the rest, or the keyboard does not have. */
  | { readonly code: 'finding.wide-inner'; readonly pitch: Pitch; readonly place: Place }
  /** Keys of a written left hand that are left out or moved, and why. */
  | {
      readonly code: 'finding.left-bent';
      readonly pitches: readonly Pitch[];
      readonly why: WrittenLeft['bent'][number]['why'];
      readonly place: Place;
    }
  | ({ readonly code: 'finding.chord-unread' } & AtChord)
  | { readonly code: 'finding.chords-suggested'; readonly chords: number }
  | { readonly code: 'finding.no-chords' }
  | { readonly code: 'finding.ending-left-out'; readonly place: Place; readonly obstacle: EndingObstacle }
  | {
      readonly code: 'finding.tune-moved';
      readonly pitch: Pitch;
      readonly place: Place;
      readonly keys: number;
      readonly octaves: number;
    }
  | { readonly code: 'finding.tune-folded'; readonly pitch: Pitch; readonly place: Place; readonly keys: number };

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
  readonly fact: FindingFact;
  /** What it concerns, the same for findings of a rule that would only repeat each other. */
  readonly concerns?: string;
  /** How often the same comes again later in the song. */
  readonly again?: number;
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
  readonly settings: Settings;
  readonly song: Song;
  readonly bars: readonly Bar[];
  readonly chords: readonly VoicedChord[];
  readonly harmony: readonly HarmonisedChord[];
  readonly tune: readonly MelodyNote[];
  /** All that the right hand plays, in order. */
  readonly right: readonly SoundingNote[];
  /** Notes of the tune that were to be doubled an octave below and cannot be. */
  readonly withoutOctave: readonly NoOctave[];
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
  fact: FindingFact,
  fixes: readonly Fix[],
  chordAt = at,
): Finding => ({ rule, severity, at, part: partOf(chordAt), chordAt, fact, fixes });
