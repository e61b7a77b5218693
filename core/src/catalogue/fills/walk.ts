import { midiOf, type Pitch } from '../../pitch/pitch.js';
import { stepsFrom } from '../../right-hand/positions.js';
import { laid, type FillMaker } from './fill.js';

/** Steps of the scale that lead to the next note. */
export const walk: FillMaker = {
  kind: 'walk',
  order: 30,
  make: (task, slots) => {
    const { next, before, key } = task;
    if (!next || slots.length < 1) return null;
    const from = midiOf(before[before.length - 1].pitch);
    const to = midiOf(next.pitch);
    const up = to > from;
    const steps: Pitch[] = [];
    for (let k = 1; k <= Math.min(4, slots.length); k++) {
      const pitch = stepsFrom(next.pitch, up ? -k : k, key);
      // Only what lies on the way; beside the next note one step from the far side will do.
      if (up ? midiOf(pitch) <= from : midiOf(pitch) <= to || (to < from && midiOf(pitch) >= from)) break;
      steps.unshift(pitch);
    }
    if (steps.length === 0) steps.push(stepsFrom(next.pitch, up ? 1 : -1, key));
    return {
      notes: laid(steps, slots, slots.length - steps.length, task),
      why: { code: 'fill.walk', to: next.pitch },
    };
  },
};
