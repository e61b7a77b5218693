import { momentsOf, type Moment } from '../left-hand/spread.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, type Pitch } from '../pitch/pitch.js';
import type { HandPlace } from '../right-hand/positions.js';
import { toSeconds, type Ticks } from '../time/ticks.js';

/**
 * A jump of the hand between two strikes. The left hand goes from key to key; the right hand moves its five-finger place, which is
 * another distance than that of the two notes around the move.
 */
export interface Jump {
  readonly at: Ticks;
  readonly hand: 'left' | 'right';
  readonly from: Pitch;
  readonly to: Pitch;
  /** Half steps. */
  readonly distance: number;
  /** From the strike before, in seconds. */
  readonly seconds: number;
}

/** A jump is worth a word from this distance, in half steps, and this speed, in half steps a second. */
export const JUMP = { distance: 7, speed: 14, far: 12 } as const;

/** True for a jump that is far and fast enough to be hard. */
export function isHardJump({ distance, seconds }: Jump): boolean {
  return distance >= JUMP.distance && distance / seconds >= JUMP.speed;
}

/** Keys that the left hand strikes together. */
interface LeftStrike extends Moment {
  /** True where it belongs to a pattern, whose notes may lie under one hand. */
  readonly patterned: boolean;
}

/**
 * Every move of the left hand as a whole: how far its nearer edge goes from strike to strike. Notes of a pattern that lie under the hand
 * together with those before them are no jump.
 */
export function leftJumps(chords: readonly VoicedChord[], tempo: number, limit: number): Jump[] {
  const strikes = chords.flatMap(strikesIn);
  return strikes.slice(1).flatMap((strike, i): Jump[] => {
    const before = strikes[i];
    if (strike.patterned && before.patterned && spanOf([...before.pitches, ...strike.pitches]) <= limit) return [];
    const edges = ({ pitches }: LeftStrike) => [pitches[0], pitches[pitches.length - 1]] as const;
    const [low, high] = [0, 1].map((k) => ({ from: edges(before)[k], to: edges(strike)[k] }));
    const far = ({ from, to }: { from: Pitch; to: Pitch }) => Math.abs(midiOf(to) - midiOf(from));
    const edge = far(low) <= far(high) ? low : high;
    return far(edge) === 0
      ? []
      : [{ at: strike.at, hand: 'left', ...edge, distance: far(edge), seconds: toSeconds(strike.at - before.at, tempo) }];
  });
}

const spanOf = (pitches: readonly Pitch[]): number => {
  const midis = pitches.map(midiOf);
  return Math.max(...midis) - Math.min(...midis);
};

/** What a chord strikes: its keys at once, or those of its pattern moment by moment. */
function strikesIn({ at, pitches, struck, spread }: VoicedChord): LeftStrike[] {
  const moments = spread === 'together' ? momentsOf(struck) : [];
  return moments.length === 0
    ? [{ at, pitches, patterned: false }]
    : moments.map((m) => ({ ...m, patterned: moments.length > 1 }));
}

/** Every move of the right hand to another place that no finger bridges. */
export function rightJumps(places: readonly HandPlace[], tempo: number): Jump[] {
  return places.slice(1).flatMap((place, i): Jump[] => {
    const before = places[i];
    const distance = Math.abs(place.by);
    if ((place.move !== 'shift' && place.move !== 'fresh') || distance === 0) return [];
    return [
      {
        at: place.start,
        hand: 'right',
        from: before.last,
        to: place.first,
        distance,
        seconds: toSeconds(place.start - before.lastAt, tempo),
      },
    ];
  });
}
