import type { PartChord, PartNote } from '@joined-hands/core/arrange';
import type { FillKind } from '@joined-hands/core/song';
import type { NameStand } from './sizes';
import type { Count } from './struck';

/** A melody note on the strip. Coordinates are pixels inside its line. */
export interface Stone {
  readonly note: PartNote;
  readonly letter: string;
  readonly x: number;
  readonly y: number;
  readonly r: number;
  /** Where the tail of a held note ends, or null for one that is not held. */
  readonly tail: number | null;
  readonly word: string | null;
  /** How far the word stands above the line of words, so that it does not touch the one before. */
  readonly lift: number;
  /** What is counted as it is struck and while it is held, for learning by counts. */
  readonly counted: string;
  /** True where the syllable before is still sung. */
  readonly sungOn: boolean;
  /** Struck ahead of the beat. */
  readonly ahead: boolean;
  /** True for a note under a fermata, and where a breath follows. */
  readonly held: boolean;
  readonly breath: boolean;
  /** Letters of the small notes before it. */
  readonly graces: readonly string[];
  /** Letters of what the right hand holds under the note, from the top down, each with its finger where it is struck with the note. */
  readonly under: readonly { readonly letter: string; readonly finger: number | null; readonly tail: number | null }[];
  /** True where they are notes of the song, struck with the tune. */
  readonly joined: boolean;
}

/** A line of text, from the place it is meant for. */
export interface WrittenLine {
  readonly x: number;
  /** As much of it as there is room for. */
  readonly shown: string;
  readonly whole: string;
}

/** One key of a chord on the strip, from the top down. */
export interface Block {
  readonly pitch: string;
  readonly letter: string;
  readonly finger: number | null;
  readonly y: number;
}

/** A left-hand chord on the strip. */
export interface Stack {
  readonly chord: PartChord;
  readonly x: number;
  /** Room to the right for the chord's name. */
  readonly room: number;
  readonly blocks: readonly Block[];
  /** Letters of the small notes that lead to the first attack. */
  readonly graces: readonly string[];
  /** What its texture strikes after the first, each attack at its place. */
  readonly later: readonly { readonly x: number; readonly blocks: readonly Block[]; readonly graces: readonly string[] }[];
  readonly bottom: number;
  /** Where the chord's name and its fingers stand when they stand below. */
  readonly nameY: number;
  readonly fingersY: number;
  /** "rolled", "broken" or nothing: how a chord wider than the hand is struck. */
  readonly struck: string;
  readonly stands: NameStand;
}

/** Where both hands strike together; `top` is null where the left hand strikes alone. */
export interface Clasp {
  readonly at: number;
  readonly x: number;
  readonly top: number | null;
  readonly count: string;
}

/** A count on the ruler. */
export interface CountMark extends Count {
  readonly x: number;
}

/** Free room for a fill. */
export interface RoomMark {
  readonly at: number;
  readonly x: number;
  readonly width: number;
  readonly y: number;
  readonly counts: number;
  /** What the pianist chose for it, or null. */
  readonly chosen: FillKind | null;
}

/** A note that the right hand plays beside the tune: of a fill, or of a chord under a sung tune. */
export interface Pebble {
  readonly id: string;
  readonly pitch: string;
  readonly letter: string;
  readonly finger: number | null;
  readonly x: number;
  readonly y: number;
  /** How far it is held, where it belongs to a second voice. */
  readonly tail: number | null;
}

/** A place of the right hand over the stones it plays. */
export interface PlaceMark {
  readonly from: number;
  readonly to: number;
  readonly y: number;
  /** The keys under the thumb and the fifth finger; none where their names would not fit. */
  readonly names: readonly string[];
  /** How the hand comes here, in a word, or nothing where the part begins or there is no room for it. */
  readonly move: string;
}

/** One line of the strip. */
export interface StripLine {
  readonly start: number;
  readonly end: number;
  readonly width: number;
  readonly height: number;
  /** Where a moment stands, and the moment at a pixel, for the playhead and for dragging. */
  readonly x: (at: number) => number;
  readonly at: (x: number) => number;
  readonly wordsY: number;
  readonly rulerY: number;
  readonly blocksY: number;
  readonly bars: readonly { readonly number: number; readonly x: number; readonly first: boolean }[];
  readonly counts: readonly CountMark[];
  readonly stones: readonly Stone[];
  readonly stacks: readonly Stack[];
  readonly clasps: readonly Clasp[];
  readonly rooms: readonly RoomMark[];
  readonly reminders: readonly WrittenLine[];
  /** Words of a song without a tune. */
  readonly words: readonly WrittenLine[];
  readonly pebbles: readonly Pebble[];
  readonly places: readonly PlaceMark[];
}

/** A part laid out, and how much larger than its own pixels it is drawn. */
export interface LaidStrip {
  readonly lines: readonly StripLine[];
  readonly zoom: number;
}
