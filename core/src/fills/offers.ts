import { FILLS } from '../catalogue/fills/list.js';
import { playable, type Fill, type FillTask } from '../catalogue/fills/fill.js';
import { countTicks } from '../time/meter.js';
import { toSeconds, type Ticks } from '../time/ticks.js';

/** Shortest time for a note of a fill, in seconds: fills are simple. */
const QUICKEST = 0.17;

/**
 * The fills that this hand can play at a place: a broken chord going up, an echo of the last notes, a walk to the next note, a turn.
 * While the tune is held its key stays down, so that every fill lies in one hand together with it; none enters the left
 * hand's space or leaves the keyboard.
 */
export function fillOffers(task: FillTask): Fill[] {
  const slots = slotsOf(task);
  return FILLS.flatMap(({ kind, make }) => {
    const made = make(task, slots);
    return made && playable(made, task) ? [{ kind, ...made }] : [];
  });
}

/** Moments in a place at which a note may be struck: half counts, or counts where those are too quick. */
function slotsOf({ place, meter, tempo }: FillTask): Ticks[] {
  const count = countTicks(meter);
  const half = meter.unit < 8 && toSeconds(count / 2, tempo) >= QUICKEST ? count / 2 : count;
  return Array.from({ length: Math.floor(place.length / half) }, (_, k) => place.at + k * half);
}
