import { reachableBy } from '../fingers/chords.js';
import { scaleOf, type Key } from '../harmony/key.js';
import { midiOf, pitchClass, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, type Hands } from '../song/decisions.js';

/** An interval at which a hand strikes another note with the tune: steps of the scale below it, counted as musicians do. */
export const BESIDE_INTERVALS = ['third', 'fourth', 'sixth', 'octave'] as const;
export type BesideInterval = (typeof BESIDE_INTERVALS)[number];

/** Half steps that each may have; the one that lies in the scale is taken. */
const SIZES: Readonly<Record<BesideInterval, readonly number[]>> = { third: [3, 4], fourth: [5], sixth: [8, 9], octave: [12] };

/** What may be struck with a note of the tune, in half steps below it: notes of the scale that this hand reaches on this keyboard. */
export function besideOffers(
  tune: Pitch,
  key: Key,
  hands: Hands,
): { readonly interval: BesideInterval; readonly below: number }[] {
  const scale = new Set(scaleOf(key).map(pitchClass));
  const reachable = reachableBy(hands, 'right');
  const top = midiOf(tune);
  return BESIDE_INTERVALS.flatMap((interval) => {
    const below = SIZES[interval].find((by) => scale.has((top - by + 120) % 12));
    if (below === undefined || top - below < KEYBOARDS[hands.keys].low || !reachable([top - below, top])) return [];
    return [{ interval, below }];
  });
}
