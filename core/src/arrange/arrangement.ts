import type { Homes } from '../left-hand/problem.js';
import type { ChordChoice, ChordFact } from '../harmony/choices.js';
import type { Key } from '../harmony/key.js';
import type { Difficulty, Hardest } from '../difficulty/difficulty.js';
import type { BoundaryFact } from '../divide/boundaries.js';
import type { RepeatOf } from '../divide/repeats.js';
import type { DynamicMark } from '../fills/dynamics.js';
import type { FillNote } from '../catalogue/fills/fill.js';
import type { PedalPoint } from '../fills/pedal.js';
import type { ShortTouch } from '../song/touch.js';
import type { SungChord } from '../fills/sing-along.js';
import type { Section } from '../divide/sections.js';
import type { Jump } from '../join/jumps.js';
import type { Together } from '../join/together.js';
import type { Strike } from '../left-hand/strikes.js';
import type { VoicedChord } from '../left-hand/voice.js';
import type { Pitch } from '../pitch/pitch.js';
import type { HandPlace } from '../right-hand/positions.js';
import type { UnderNote } from '../right-hand/under-melody.js';
import type { MelodyNote, Song, SungWords } from '../song/song.js';
import type { Reminder, PlayMode, Stop } from '../song/decisions.js';
import type { Bar } from '../time/bars.js';
import type { TempoPoint } from '../time/tempo.js';
import type { Ticks } from '../time/ticks.js';
import type { Finding } from './finding.js';
import type { HarmonisedChord } from './harmonise.js';
import type { FillSlot } from './rooms.js';
import type { TexturedChord } from './texture-plan.js';

/** A chord of a part, with what the tune on top makes of it. */
export interface PartChord extends VoicedChord {
  /** "F7/A" for F/A under E flat; null where the tune makes nothing with a name. */
  readonly withMelody: string | null;
  /** Whether the song brought the chord, the pianist wrote it, or it was suggested. */
  readonly source: HarmonisedChord['source'];
  /** The key it is heard in. */
  readonly key: Key;
  /** What the chord does for the tune and where it leads. */
  readonly chordWhy: readonly ChordFact[];
  /** Three other chords for the place, the best first. */
  readonly otherChords: readonly ChordChoice[];
  /** Where the symbol stands that this strike belongs to. */
  readonly symbolAt: Ticks;
  /** What its texture makes of it, with fingers; null where it is played plainly. */
  readonly dressed: TexturedChord | null;
}

/** A note of the tune with the finger that plays it. */
export interface PartNote extends MelodyNote {
  readonly finger: number | null;
  /** Where time stops: a fermata on it, a breath after it. */
  readonly stops: readonly Stop[];
}

/** One numbered part. */
export interface Part {
  readonly number: number;
  /** The form letter: parts that repeat each other share it. */
  readonly label: string;
  /** The pianist's own name for it, or null. */
  readonly name: string | null;
  readonly start: Ticks;
  readonly end: Ticks;
  /** Numbers of the first and last bar. */
  readonly bars: { readonly from: number; readonly to: number };
  readonly repeats: RepeatOf | null;
  /** What spoke for cutting at its start. */
  readonly reasons: readonly BoundaryFact[];
  readonly melody: readonly PartNote[];
  readonly chords: readonly PartChord[];
  readonly together: readonly Together[];
  /** What the right hand holds beside the tune: notes of the song that are struck with it, chord notes under it; each with its finger. */
  readonly under: readonly (UnderNote & { readonly fingers: readonly (number | null)[] })[];
  /** Where the tune leaves room, with the fills that fit. */
  readonly rooms: readonly FillSlot[];
  /** The fills that are played. */
  readonly fills: readonly (FillNote & { readonly finger: number | null })[];
  /** The right hand's chords where the tune is sung instead of played. */
  readonly sung: readonly SungChord[];
  /** What the right hand plays where the tune rests and the hands share the chords. */
  readonly interludes: readonly SungChord[];
  /** Where the right hand lies, place after place. */
  readonly places: readonly HandPlace[];
  /** Jumps of both hands within the part and into it. */
  readonly jumps: readonly Jump[];
  /** What is sung in it where the song has words and no tune to carry them. */
  readonly words: readonly SungWords[];
  /** What the pianist wants to be reminded of, place by place. */
  readonly reminders: readonly Reminder[];
  readonly difficulty: Difficulty;
}

/** A note that is played. */
export interface ScoreNote {
  readonly hand: 'left' | 'right';
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  readonly finger: number | null;
  readonly role: 'melody' | 'chord' | 'bass' | 'harmony' | 'fill';
  readonly part: number;
  /** From 0 to 1, the loudest that the piano goes. */
  readonly loudness: number;
  /** Small notes that lead to it. */
  readonly graces?: readonly Pitch[];
  /** Where its key is let go before its time; absent where it is held. */
  readonly touch?: ShortTouch;
}

/** All that is computed from a song, the choices made on it and the hands that play it. */
export interface Arrangement {
  /** The song as it is played: with the pianist's chords, and with the tune on the keyboard's keys. */
  readonly song: Song;
  readonly bars: readonly Bar[];
  readonly parts: readonly Part[];
  /** Named sections; empty where nothing is named. */
  readonly sections: readonly Section[];
  /** The hardest part, or null where no part stands out. */
  readonly hardest: Hardest | null;
  readonly score: readonly ScoreNote[];
  /** Moves of the pedal, in order; empty where it is not used. */
  readonly pedal: readonly PedalPoint[];
  /** Dynamic signs and swells, in order; empty where everything is as loud as usual. */
  readonly dynamics: readonly DynamicMark[];
  /** How the tempo goes: steady, or slowing at the end. */
  readonly tempo: readonly TempoPoint[];
  /** The share of a quarter that the first of two eighths takes: a half where they are even. */
  readonly swing: number;
  readonly playMode: PlayMode;
  /** What the left hand is asked to strike. */
  readonly strikes: readonly Strike[];
  /** The keys that each symbol has through the song. */
  readonly homes: Homes;
  readonly findings: readonly Finding[];
  readonly totals: {
    readonly leftTravel: number;
    readonly leftTravelRoot: number;
    readonly pathCost: number;
    readonly motionWeight: number;
  };
}
