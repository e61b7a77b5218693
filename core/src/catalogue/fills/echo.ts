import { octaveUp } from '../../pitch/pitch.js';
import { laid, playable, type FillMaker } from './fill.js';

/** Notes of the tune that are echoed. */
const ECHOED = 3;

/** The last notes of the tune, an octave higher or lower. */
export const echo: FillMaker = {
  kind: 'echo',
  order: 20,
  make: (task, slots) => {
    const sung = task.before.slice(-ECHOED).map((n) => n.pitch);
    if (sung.length < 2 || slots.length < sung.length) return null;
    for (const octaves of [1, -1]) {
      const fill: ReturnType<FillMaker['make']> = {
        notes: laid(
          sung.map((p) => octaveUp(p, octaves)),
          slots,
          0,
          task,
        ),
        why: { code: 'fill.echo', notes: sung, higher: octaves > 0 },
      };
      if (playable(fill, task)) return fill;
    }
    return null;
  },
};
