import type { PianoKey } from './keys.js';
import type { PairSpan } from './spans.js';

/**
 * What a fingering is charged for. A hand has a place, one finger a key; staying in it is free, and what is charged is how far
 * it has to open there and every time it goes to another one. The stretches and crossings follow Parncutt and others (1997), Jacobs
 * (2001) and Balliauw and others (2015); the weights were set so that the scales and arpeggios of all keys come out as the manuals
 * print them and a tune on five neighbouring keys stays on them.
 */
export const FINGER_COSTS = {
  /** For each semitone outside the relaxed span of two fingers, by pair, when a key comes under a finger. */
  stretch: {
    '1-2': 0.02,
    '1-3': 0.17,
    '1-4': 0.33,
    '1-5': 0.07,
    '2-3': 0.26,
    '2-4': 0.05,
    '2-5': 0.15,
    '3-4': 0.12,
    '3-5': 0.04,
    '4-5': 0.21,
  },
  /** Squared semitones past the comfortable span, every time two fingers play so far apart. */
  wide: 0.03,
  /** At the very end of what two fingers can do. */
  edge: 0.2,
  /** For each step of the scale that two fingers lie nearer or farther than one finger a key, where the hand is not wide open. */
  open: 0.22,
  /** A finger leans over to the chromatic key beside its own. */
  lean: 1.17,
  /** The thumb passing under, or a finger over the thumb. */
  cross: 1.95,
  /** The long finger of a crossing on a white key: there is less room for the thumb. */
  crossWhite: 0.4,
  /** For each semitone of a crossing past the first. */
  crossWide: 0.32,
  /** A crossing made with the fourth finger in place of the third, and that over a third, where it reaches better. */
  crossFourth: 0.62,
  crossFourthThird: 0.23,
  /** The same with the second finger. */
  crossSecond: 0.5,
  /** The second finger in a crossing of a third or more, where it reaches best. */
  crossSecondWide: -0.07,
  /** The same over a fourth, where the hand has to turn. */
  crossSecondFar: 0.69,
  /** A crossing over a fifth with another finger than the second, which alone reaches so far. */
  crossFifth: 1,
  /** The thumb passing onto a black key from a white one. */
  crossOntoBlack: 6.6,
  /** The thumb on a black key after a crossing, for each neighbour in the line on a white one, and wherever they lie. */
  thumbBlack: 3,
  thumbBlackAnyway: 0.89,
  /** The fifth finger on a black key, likewise. */
  fifthBlack: 1.46,
  fifthBlackAnyway: 0.29,
  /** Share of these where the whole hand has come to lie there, over keys of the scale and over others. */
  settled: 0.01,
  settledChromatic: 0.3,
  /** The thumb of a crossing by step lies elsewhere than in the scale that was learned. */
  crossElsewhere: 1.34,
  /** Over a wide broken chord the thumb falls on another note than before. */
  otherThumb: 1,
  /** The note on which a wide broken chord began comes again with another finger than at first, neither of them the thumb. */
  otherFinger: 0.6,
  /** The hand moves to another place, and each step of the scale that it moves. */
  move: 8.51,
  moveWide: 0.1,
  /** Share of a move that is charged at a breath, after a long note, and on a key that is struck again. */
  atBreath: 0.15,
  atLong: 0.4,
  atRepeat: 0.22,
  /** The same finger on another key. */
  hop: 0.67,
  /** Another finger on a key that is held on: only where nothing else can be reached. */
  heldChange: 120,
  /** Repeated quickly, more than once, by the same finger. */
  repeatFast: 6,
  /** Another finger for a note of the melody than it was learned with, before chord notes or fills were added. */
  relearn: 3,
  /** What a stretch inside a chord weighs against one between notes. */
  inChord: 3,
  /** A chord of a fifth or more without the fifth finger on its outer key. */
  outerFinger: 0.05,
  /** The whole hand goes from chord to chord, and each semitone that it goes. */
  chordMove: 1,
  chordMoveWide: 0.15,
  /** Share of a move that is charged between a chord and a single note: the hand is set anew as a whole. */
  chordShare: 0.6,
  /** The weaker fingers, where all else is equal. */
  weak: [0, 0, 0, 0.01, 0.05, 0.1],
} as const;

/** Seconds of silence before a note within which a hand can move in peace, and from note to note after which one is long. */
export const BREATH = 0.3;
export const LONG = 1;

/** Seconds from one note to its repetition under which the finger changes, where it is struck again more than once. */
export const FAST_REPEAT = 0.14;

/** How the hand gets from one note to the next. */
export type Move = 'stay' | 'under' | 'over' | 'shift';

/** The time between two notes in seconds: from onset to onset, and of silence between them. */
export interface Pace {
  readonly apart: number;
  readonly rest: number;
}

export type Spans = (low: number, high: number) => PairSpan;

/** How far a hand goes in a phrase: its spans, and whether it lies wide open, as over a broken chord that is wider than an octave. */
export interface Reach {
  readonly spans: Spans;
  readonly wide: boolean;
}

/** Widest interval over which the thumb passes: a fourth or tritone in an arpeggio, a fifth where two fingers are enough. */
const CROSS_WIDEST = 7;

/** Half steps of an octave, a fifth, a fourth, and the smallest third. */
export const OCTAVE = 12;
export const FIFTH = 7;
const FOURTH = 5;
const THIRD = 3;

/** Names of keys that a broken chord has at most. */
const CHORD_NAMES = 4;

/** True for a phrase, as MIDI numbers, that goes over the notes of one chord and over more than an octave. */
export function liesWide(midis: readonly number[]): boolean {
  const names = new Set(midis.map((m) => m % 12)).size;
  const [low, high] = midis.reduce(([l, h], m) => [Math.min(l, m), Math.max(h, m)], [Infinity, -Infinity]);
  return names <= CHORD_NAMES && high - low > OCTAVE;
}

/** What a crossing from one key to another costs; Infinity where the fingers do not cross or cannot. */
export function crossingCost(from: PianoKey, first: number, to: PianoKey, second: number): number {
  const C = FINGER_COSTS;
  const up = to.place - from.place;
  const wide = Math.abs(up);
  if (first === second || wide === 0 || wide > CROSS_WIDEST || (first !== 1 && second !== 1)) return Infinity;
  if ((second > first ? up : -up) > 0) return Infinity;
  const long = Math.max(first, second);
  const [thumb, finger] = first === 1 ? [from, to] : [to, from];
  return (
    C.cross +
    (finger.black ? 0 : C.crossWhite) +
    C.crossWide * (wide - 1) +
    (thumb.thumb || Math.abs(to.degree - from.degree) > 1 ? 0 : C.crossElsewhere) +
    longFingerCost(long, wide) +
    (long === 5 || (thumb.black && !finger.black) ? C.crossOntoBlack : 0)
  );
}

/** What a crossing over so many semitones costs by the long finger that makes it, the third being the usual one up to a fourth. */
function longFingerCost(finger: number, wide: number): number {
  const C = FINGER_COSTS;
  if (wide > FOURTH) return finger === 2 ? 0 : C.crossFifth;
  if (finger === 4) return wide >= THIRD && wide < FOURTH ? C.crossFourthThird : C.crossFourth;
  if (finger === 2) return wide < THIRD ? C.crossSecond : wide < FOURTH ? C.crossSecondWide : C.crossSecondFar;
  return 0;
}

/** What it costs to take the hand from one place to another between two single keys, by how far and by the time there is. */
export function moveCost(from: PianoKey, first: number, to: PianoKey, second: number, pace: Pace): number {
  const C = FINGER_COSTS;
  const by = Math.abs(to.degree - second - (from.degree - first));
  const same = from.place === to.place;
  const share = pace.rest >= BREATH ? C.atBreath : pace.apart >= LONG ? C.atLong : same && first !== second ? C.atRepeat : 1;
  return (C.move + C.moveWide * by + (first === second && !same ? C.hop : 0)) * share;
}

/** What it costs to open or close the hand until two fingers lie on two keys. The span is within the practical one. */
export function spreadCost(low: PianoKey, lower: number, high: PianoKey, higher: number, reach: Reach): number {
  const C = FINGER_COSTS;
  const pair = reach.spans(lower, higher);
  const span = high.place - low.place;
  const rate = C.stretch[`${lower}-${higher}` as keyof typeof C.stretch];
  const off = Math.max(0, span - pair.relaxedMax, pair.relaxedMin - span);
  const edge = span > pair.comfortableMax && span >= pair.practicalMax ? C.edge : 0;
  const apart = reach.wide ? 0 : Math.abs(high.degree - low.degree - (higher - lower));
  return rate * off + edge + C.open * apart;
}

/** What it costs to strike two keys in turn that lie farther apart than is comfortable. */
export function wideCost(span: number, pair: PairSpan): number {
  const past = Math.max(0, span - pair.comfortableMax);
  return FINGER_COSTS.wide * past * past;
}

/** What a thumb or fifth finger costs on a black key, by the colour of the keys before and after it in the line or beside it in a chord. */
export function blackCost(key: PianoKey, finger: number, before: PianoKey | null, after: PianoKey | null): number {
  const C = FINGER_COSTS;
  if (!key.black || (finger !== 1 && finger !== 5)) return 0;
  const sides = [before, after].filter((k) => k !== null);
  const whites = sides.length === 0 ? 2 : sides.filter((k) => !k.black).length * (2 / sides.length);
  return finger === 1 ? C.thumbBlackAnyway + whites * C.thumbBlack : C.fifthBlackAnyway + whites * C.fifthBlack;
}

/** What the fingers of a chord cost among themselves; Infinity where two of them do not reach. Keys rise by place. */
export function gripCost(keys: readonly PianoKey[], fingers: readonly number[], reach: Reach): number {
  const whole = keys[keys.length - 1].place - keys[0].place;
  let cost = whole >= FIFTH && fingers[fingers.length - 1] < 5 ? FINGER_COSTS.outerFinger : 0;
  for (let i = 0; i < keys.length; i++)
    for (let j = i + 1; j < keys.length; j++) {
      const pair = reach.spans(fingers[i], fingers[j]);
      const span = keys[j].place - keys[i].place;
      if (span > pair.practicalMax) return Infinity;
      if (j === i + 1 || (i === 0 && j === keys.length - 1)) {
        const lies = spreadCost(keys[i], fingers[i], keys[j], fingers[j], reach) + wideCost(span, pair);
        cost += FINGER_COSTS.inChord * lies;
      }
    }
  return cost;
}

/** What it costs to lean over from the key under a finger to one beside it; Infinity where that is not a chromatic key a half step away. */
export const leanCost = (own: PianoKey, to: PianoKey): number =>
  Math.abs(own.place - to.place) === 1 && (to.chromatic || own.chromatic) ? FINGER_COSTS.lean : Infinity;
