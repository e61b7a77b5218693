import { grouped } from '../lists/grouped.js';
import { midiOf, type Pitch } from '../pitch/pitch.js';
import { TICKS_PER_QUARTER, type Ticks } from '../time/ticks.js';
import type { Voicing } from './candidates.js';
import type { Strike } from './strikes.js';

/** How the notes of a chord are struck: at once, the lowest a beat before the rest, or quickly one after another. */
export type Spread = 'together' | 'broken' | 'rolled';

/** One key of a chord as it is struck and let go. */
export interface StruckNote {
  readonly pitch: Pitch;
  readonly at: Ticks;
  readonly length: Ticks;
}

/** Fewest beats a chord must last to be broken; a shorter one is rolled. */
const BEATS_TO_BREAK = 2;

/** Longest time from one note of a roll to the next. */
const ROLL = TICKS_PER_QUARTER / 8;

/** How a voicing is struck in the time that it has. */
export function spreadOf(voicing: Pick<Voicing, 'spread'>, strike: Pick<Strike, 'length' | 'beat'>): Spread {
  if (!voicing.spread) return 'together';
  return strike.length >= BEATS_TO_BREAK * strike.beat ? 'broken' : 'rolled';
}

/** The keys of a chord in time. Where it is wider than the hand, the lowest is let go as the next is struck. */
export function struckNotes(
  pitches: readonly Pitch[],
  spread: Spread,
  strike: Pick<Strike, 'at' | 'length' | 'beat'>,
): StruckNote[] {
  const end = strike.at + strike.length;
  const late = (k: number): Ticks => {
    if (spread === 'together' || k === 0) return 0;
    if (spread === 'broken') return strike.beat;
    return k * Math.min(ROLL, Math.floor(strike.length / (2 * pitches.length)));
  };
  return pitches.map((pitch, k) => {
    const at = strike.at + late(k);
    return { pitch, at, length: k === 0 && spread !== 'together' ? late(1) : end - at };
  });
}

/** Keys that are struck together, bottom-up. */
export interface Moment {
  readonly at: Ticks;
  readonly pitches: readonly Pitch[];
}

/** What is struck moment by moment, in order. */
export const momentsOf = (struck: readonly Pick<StruckNote, 'at' | 'pitch'>[]): Moment[] =>
  [...grouped(struck, (n) => n.at)]
    .sort(([a], [b]) => a - b)
    .map(([at, notes]) => ({ at, pitches: notes.map((n) => n.pitch).sort((a, b) => midiOf(a) - midiOf(b)) }));
