import { isBlackKey } from '../pitch/pitch.js';
import type { PairSpan } from './spans.js';

/**
 * What a fingering is charged for, in the order of a teacher's corrections. The terms follow Parncutt and others (1997),
 * Jacobs (2001) and Balliauw and others (2015); the weights were set so that the scales and arpeggios of all keys come
 * out as the manuals print them.
 */
export const FINGER_COSTS = {
  /** For each semitone outside the relaxed span of two fingers, by pair. */
  stretch: {
    '1-2': 0.29,
    '1-3': 0.21,
    '1-4': 0.29,
    '1-5': 0.31,
    '2-3': 0.16,
    '2-4': 0.03,
    '2-5': 0.5,
    '3-4': 0.2,
    '3-5': 0.63,
    '4-5': 0.38,
  },
  /** Squared semitones past the comfortable span. */
  wide: 0.1,
  /** At the very end of what two fingers can do. */
  edge: 0.3,
  /** The thumb passing under, or a finger over the thumb. */
  cross: 2.45,
  /** The long finger of a crossing on a white key: there is less room for the thumb. */
  crossWhite: 0.43,
  /** For each semitone of a crossing past the first. */
  crossWide: 0.08,
  /** A crossing made with the fourth or the second finger in place of the third. */
  crossFourth: 0.19,
  /** The same from a black key, by step. */
  crossFourthBlack: 0.06,
  crossSecond: 0.1,
  /** The second finger in a crossing of a third or more, where it reaches best. */
  crossSecondWide: -0.04,
  /** The thumb passing onto a black key from a white one. */
  crossOntoBlack: 3.05,
  /** The thumb on a black key, for each neighbour in the line on a white one. */
  thumbBlack: 2.87,
  /** The same wherever its neighbours lie. */
  thumbBlackAnyway: 1,
  /** The fifth finger on a black key, likewise. */
  fifthBlack: 0.98,
  fifthBlackAnyway: 0.21,
  /** The thumb comes back to keys that it knows: charged for a third one. */
  anchor: 0.62,
  /** The hand lifts and moves, and each semitone that it moves. */
  shift: 7.36,
  shiftWide: 0.15,
  /** Share of a shift that is charged where there is time for it. */
  shiftInTime: 0.5,
  /** The same finger on another key. */
  hop: 4.98,
  /** Another finger on a key that is held on: only where nothing else can be reached. */
  heldChange: 120,
  /** Repeated quickly by the same finger, or slowly by another one. */
  repeatFast: 1.2,
  repeatSlow: 1.73,
  /** What a stretch inside a chord weighs against one between notes. */
  inChord: 3,
  /** A chord of a fifth or more without the fifth finger on its outer key. */
  outerFinger: 0.05,
  /** The whole hand goes from chord to chord, and each semitone that it goes. */
  chordMove: 1,
  chordMoveWide: 0.15,
  /** The weaker fingers in a line, where all else is equal. */
  weak: [0, 0, 0, 0, 0.43, 0.26],
} as const;

/** Seconds of silence or holding before a note within which a hand can move in peace. */
const TIME_TO_SHIFT = 0.5;

/** Seconds from one note to its repetition under which the finger changes. */
const FAST_REPEAT = 0.18;

/** A key as one hand meets it: its place counted from the thumb's side to the fifth finger's, and its colour. */
export interface PianoKey {
  /** The MIDI number for the right hand, less than 0 for the left: the left hand is the right one mirrored. */
  readonly place: number;
  readonly black: boolean;
}

/** A key as a hand meets it. */
export function keyFor(midi: number, hand: 'left' | 'right'): PianoKey {
  return { place: hand === 'right' ? midi : -midi, black: isBlackKey(midi) };
}

/** How the hand gets from one note to the next. */
export type Move = 'stay' | 'under' | 'over' | 'shift';

/** The time between two notes in seconds: from onset to onset, and of silence between them. */
export interface Pace {
  readonly apart: number;
  readonly rest: number;
}

/** What it costs to play one key after another with two fingers, and how the hand moves. Fingers are 1 to 5. */
export function stepCost(
  from: PianoKey,
  first: number,
  to: PianoKey,
  second: number,
  pace: Pace,
  spans: (low: number, high: number) => PairSpan,
): { readonly cost: number; readonly move: Move } {
  const up = to.place - from.place;
  const wide = Math.abs(up);
  const C = FINGER_COSTS;
  const shift = (C.shift + C.shiftWide * wide) * (pace.rest >= TIME_TO_SHIFT ? C.shiftInTime : 1);
  if (first === second) {
    if (wide === 0) return { cost: pace.apart < FAST_REPEAT ? C.repeatFast : 0, move: 'stay' };
    return { cost: Math.max(C.hop, shift), move: 'shift' };
  }
  if (wide === 0) return { cost: pace.apart < FAST_REPEAT ? 0.1 * Math.abs(first - second) : C.repeatSlow, move: 'stay' };
  const rising = second > first;
  const span = rising ? up : -up;
  const pair = spans(Math.min(first, second), Math.max(first, second));
  const withThumb = first === 1 || second === 1;
  if (span < 0) {
    // The fingers cross: only the thumb can pass.
    if (!withThumb || wide > CROSS_WIDEST) return { cost: shift, move: 'shift' };
    const long = Math.max(first, second);
    const [thumb, finger] = first === 1 ? [from, to] : [to, from];
    const fourth = C.crossFourth + (finger.black && wide < 3 ? C.crossFourthBlack : 0);
    const cost =
      C.cross +
      (finger.black ? 0 : C.crossWhite) +
      C.crossWide * (wide - 1) +
      (long === 4 ? fourth : long !== 2 ? 0 : wide >= 3 ? C.crossSecondWide : C.crossSecond) +
      (long === 5 ? C.crossOntoBlack : 0) +
      (thumb.black && !finger.black ? C.crossOntoBlack : 0);
    return cost <= shift ? { cost, move: second === 1 ? 'under' : 'over' } : { cost: shift, move: 'shift' };
  }
  if (span > pair.practicalMax || span < pair.practicalMin) return { cost: shift, move: 'shift' };
  const cost = spreadCost(span, pair, Math.min(first, second), Math.max(first, second));
  return cost <= shift ? { cost, move: 'stay' } : { cost: shift, move: 'shift' };
}

/** Widest interval over which the thumb passes: a fourth or tritone in an arpeggio, a fifth where two fingers are enough. */
const CROSS_WIDEST = 7;

/** What two fingers of one hand place cost, by how far they are from lying relaxed. The span is within the practical one. */
function spreadCost(span: number, pair: PairSpan, low: number, high: number): number {
  const C = FINGER_COSTS;
  const rate = C.stretch[`${low}-${high}` as keyof typeof C.stretch];
  const off = Math.max(0, span - pair.relaxedMax, pair.relaxedMin - span);
  const past = Math.max(0, span - pair.comfortableMax);
  return rate * off + C.wide * past * past + (past > 0 && span >= pair.practicalMax ? C.edge : 0);
}

/** What a finger costs on its key, by the colour of the keys before and after it in the line or beside it in a chord. */
export function ownCost(key: PianoKey, finger: number, before: PianoKey | null, after: PianoKey | null): number {
  const C = FINGER_COSTS;
  if (!key.black || (finger !== 1 && finger !== 5)) return 0;
  const sides = [before, after].filter((k) => k !== null);
  const whites = sides.length === 0 ? 2 : sides.filter((k) => !k.black).length * (2 / sides.length);
  return finger === 1 ? C.thumbBlackAnyway + whites * C.thumbBlack : C.fifthBlackAnyway + whites * C.fifthBlack;
}

const FIFTH = 7;

/** What the fingers of a chord cost among themselves; Infinity where two of them do not reach. Keys rise by place. */
export function gripCost(
  keys: readonly PianoKey[],
  fingers: readonly number[],
  spans: (low: number, high: number) => PairSpan,
): number {
  const whole = keys[keys.length - 1].place - keys[0].place;
  let cost = whole >= FIFTH && fingers[fingers.length - 1] < 5 ? FINGER_COSTS.outerFinger : 0;
  for (let i = 0; i < keys.length; i++)
    for (let j = i + 1; j < keys.length; j++) {
      const pair = spans(fingers[i], fingers[j]);
      const span = keys[j].place - keys[i].place;
      if (span > pair.practicalMax) return Infinity;
      if (j === i + 1 || (i === 0 && j === keys.length - 1))
        cost += FINGER_COSTS.inChord * spreadCost(span, pair, fingers[i], fingers[j]);
    }
  return cost;
}
