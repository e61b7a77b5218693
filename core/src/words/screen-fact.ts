import type { Key } from '../harmony/key.js';
import type { HeardRecording } from '../hearing/recording.js';
import type { StepKind } from '../log/step.js';
import type { Pitch } from '../pitch/pitch.js';

/** What screens say with a number in it: a language has its own plurals, and its own order of the words around them. */
export type ScreenFact =
  | { readonly code: 'screen.bars'; readonly bars: number }
  | { readonly code: 'screen.signature'; readonly signature: number }
  | { readonly code: 'screen.notes-and-chords'; readonly notes: number; readonly chords: number }
  | { readonly code: 'screen.room'; readonly counts: number }
  | { readonly code: 'screen.more-places'; readonly places: number }
  | { readonly code: 'screen.shapes-to-learn'; readonly shapes: number; readonly places: number }
  /** How far the left hand moves in all, and would in root position; in half steps. */
  | { readonly code: 'screen.travel'; readonly halfSteps: number; readonly inRootPosition: number }
  | { readonly code: 'screen.span'; readonly halfSteps: number }
  /** How many keys a chord has, to whom writes fingers for another number. */
  | { readonly code: 'screen.fingers-wanted'; readonly keys: number }
  /** The counts to which chords of a part move. */
  | { readonly code: 'screen.chords-move'; readonly counts: readonly string[] }
  /** Notes that a figure has on another chord in place of some that the chord does not have. */
  | { readonly code: 'screen.stands-in'; readonly notes: readonly Pitch[] }
  /** Key, beat and pitch of a recording. */
  | { readonly code: 'screen.recording'; readonly recording: HeardRecording }
  /** A melody that was sung: how many of its notes were not clear, and by how many octaves it is written higher. */
  | { readonly code: 'screen.sung'; readonly notes: number; readonly unsure: number; readonly octaves: number }
  /** What was made of a recording. */
  | { readonly code: 'screen.draft'; readonly name: string; readonly notes: number; readonly unsure: number }
  | { readonly code: 'screen.notes-ahead'; readonly notes: number }
  | { readonly code: 'screen.bar-list'; readonly bars: readonly number[] }
  /** A drill that was done: seconds, wrong tries, and how many of its questions were shown. */
  | {
      readonly code: 'screen.drilled';
      readonly clean: boolean;
      readonly seconds: number;
      readonly wrong: number;
      readonly shown: number;
      readonly of: number;
    }
  /** Kinds of signs in a file for which there is no place. */
  | { readonly code: 'screen.found-in-file'; readonly leftOut: number }
  | { readonly code: 'screen.in-bin'; readonly songs: number }
  | { readonly code: 'screen.binned'; readonly songs: number }
  | { readonly code: 'screen.put-back'; readonly songs: number }
  | { readonly code: 'screen.songs-added'; readonly songs: number }
  | { readonly code: 'screen.saved-automatically'; readonly times: number }
  /** Minutes on so many days of the last fortnight, and how many days in a row. */
  | { readonly code: 'screen.fortnight'; readonly minutes: number; readonly days: number; readonly inARow: number }
  /** How often a song was practised. */
  | { readonly code: 'screen.passes'; readonly passes: number }
  /** Work on a part or several, up to a tempo. */
  | { readonly code: 'screen.asked'; readonly kind: StepKind; readonly from: number; readonly to: number; readonly tempo: number }
  /** A song in a line: its key, parts and tempo. */
  | { readonly code: 'screen.song'; readonly key: Key; readonly parts: number; readonly tempo: number }
  | { readonly code: 'screen.passes-removed'; readonly passes: number }
  | { readonly code: 'screen.passes-added'; readonly passes: number; readonly known: number };
