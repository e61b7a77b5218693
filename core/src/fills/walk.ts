import type { Key } from '../harmony/key.js';
import { transposePitch, type Pitch } from '../pitch/pitch.js';
import { stepsFrom } from '../right-hand/positions.js';
import type { Walk } from '../song/decisions.js';

/** Counts that a chord must last before one step leads on from it, and before two do. */
const ROOM = { one: 2, two: 4 } as const;

/** Half steps away from a note, for one and for two of them. */
const HALF_STEPS = ['2m', '2M'] as const;

/** The note some steps, one or two, beside another: by the scale or by half steps, from below or above. */
export function stepBeside(target: Pitch, walk: Exclude<Walk, 'none'>, steps: 1 | 2, key: Key): Pitch {
  const below = walk.endsWith('below');
  if (walk.startsWith('scale')) return stepsFrom(target, below ? -steps : steps, key);
  return transposePitch(target, (below ? '-' : '') + HALF_STEPS[steps - 1]);
}

/** The steps that lead to a note from a chord that lasts some counts, the farthest first; none where there is no room. */
export function leadIn(target: Pitch, walk: Walk, counts: number, key: Key): Pitch[] {
  if (walk === 'none' || counts < ROOM.one) return [];
  const near = stepBeside(target, walk, 1, key);
  return counts < ROOM.two ? [near] : [stepBeside(target, walk, 2, key), near];
}
