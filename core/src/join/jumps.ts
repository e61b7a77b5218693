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

/** Every move of the left hand as a whole: how far its nearer edge goes from chord to chord. */
export function leftJumps(chords: readonly VoicedChord[], tempo: number): Jump[] {
  return chords.slice(1).flatMap((chord, i): Jump[] => {
    const before = chords[i];
    const edges = (c: VoicedChord) => [c.pitches[0], c.pitches[c.pitches.length - 1]] as const;
    const [low, high] = [0, 1].map((k) => ({ from: edges(before)[k], to: edges(chord)[k] }));
    const far = ({ from, to }: { from: Pitch; to: Pitch }) => Math.abs(midiOf(to) - midiOf(from));
    const edge = far(low) <= far(high) ? low : high;
    return far(edge) === 0
      ? []
      : [{ at: chord.at, hand: 'left', ...edge, distance: far(edge), seconds: toSeconds(chord.at - before.at, tempo) }];
  });
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
