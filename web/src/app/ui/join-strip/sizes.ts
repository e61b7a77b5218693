import { ENGLISH } from '@joined-hands/core/words';
import type { PartChord } from '@joined-hands/core/arrange';

/** Sizes of the strip in pixels. */
export const SIZE = {
  left: 34,
  right: 14,
  top: 59,
  stone: 20,
  smallStone: 15,
  /** Height of a note that the right hand holds under a stone. */
  under: 17,
  /** Half of what a stone, a note beside the tune, a stack and a later attack of one take up beside their neighbours. */
  aroundStone: 1,
  aroundPebble: 13.5,
  aroundStack: 28.5,
  aroundDressed: 20.5,
  aroundLater: 13.25,
  /** What is left after the last of them. */
  close: 22,
  /** Half of a count, and of the clasp around one. */
  aroundCount: 8.5,
  aroundClasp: 20,
  /** The word over a pick-up. */
  pickUp: 64,
  /** Narrowest and widest that a quarter note is drawn. */
  narrowestQuarter: 28.5,
  widestQuarter: 118,
  step: 11,
  /** Least from one staff step to the next: a rise is seen where there is little height. */
  leastStep: 4,
  tallest: 150,
  shortest: 54,
  /** Most pixels by which stones are spread over spare room. */
  mostSpread: 130,
  /** Most pixels by which they draw together where there is too little. */
  mostTight: 56,
  words: 28,
  ruler: 34,
  /** A row of reminders. */
  reminder: 22,
  block: 29,
  /** Between the low note of a spread chord and the rest. */
  spread: 9,
} as const;

/** Widths of a letter, in pixels: of a word, of the position of a chord, of fingers. */
const LETTER = { word: 7.6, position: 7.2, finger: 8.2 } as const;

/** Type sizes of the name of a chord, in pixels: beside its stack, and below it. */
const NAME = { beside: 20, below: 16 } as const;

/** Widths of the letters in names of chords that are no usual width, in parts of the type size: as the title's face has them. */
const WIDE: Readonly<Record<string, number>> = { m: 0.8, D: 0.72, G: 0.7, N: 0.68, B: 0.65, C: 0.64, A: 0.63, a: 0.46, s: 0.4 };
const NARROW: Readonly<Record<string, number>> = { j: 0.24, i: 0.24, '1': 0.38, '/': 0.33, '(': 0.32, ')': 0.31, '.': 0.2 };
const USUAL = 0.58;

/** How wide the name of a chord is, in parts of its type size. */
const nameEms = (symbol: string): number =>
  Array.from(symbol, (c) => WIDE[c] ?? NARROW[c] ?? USUAL).reduce((sum, ems) => sum + ems, 0);

/** Pixels that a word takes up. */
export const wordWidth = (word: string): number => word.length * LETTER.word;

/** Pixels that the name of a chord takes up below its stack. */
export const nameWidth = (symbol: string): number => nameEms(symbol) * NAME.below;

/** Pixels that fingers take up below what they strike, "5-3-1". */
export const fingersWidth = (fingers: readonly number[]): number => (2 * fingers.length - 1) * LETTER.finger;

/** The position of a chord on two lines: "first", "inversion". */
export const positionLines = (position: string): [string, string] => {
  const [first, ...rest] = position.split(' ');
  return [first, rest.join(' ')];
};

/** Where the name of a chord stands: beside its stack with the position on two lines, beside it alone, or below it. */
export type NameStand = 'whole' | 'alone' | 'below';

/** Where the name of a chord fits, with pixels from the chord to the end of its bed. What a texture strikes takes that room. */
export function nameStand({ symbol, position, spread, pinned, dressed }: PartChord, room: number): NameStand {
  if (dressed) return 'below';
  const named = 46 + nameEms(symbol) * NAME.beside + (pinned ? 12 : 0);
  const words = [spread === 'together' ? '' : spread, ...positionLines(ENGLISH.position(position))].map(
    (w) => 44 + w.length * LETTER.position,
  );
  if (room >= Math.max(named, ...words)) return 'whole';
  return room >= Math.max(named, words[0]) ? 'alone' : 'below';
}
