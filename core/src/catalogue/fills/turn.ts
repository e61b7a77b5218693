import { parseChord } from '../../harmony/symbol.js';
import { midiOf } from '../../pitch/pitch.js';
import { stepsFrom } from '../../right-hand/positions.js';
import { spanOf } from '../../song/decisions.js';
import { chordNotesAbove, laid, type FillMaker } from './fill.js';

/** A turn around a note: itself, above, itself, below, itself. */
export const turn: FillMaker = {
  kind: 'turn',
  order: 40,
  make: (task, slots) => {
    const chord = parseChord(task.chord);
    const last = task.before[task.before.length - 1];
    if (chord.kind !== 'chord' || slots.length < 4) return null;
    const free = last.at + last.length <= task.place.at;
    const middle = free ? last.pitch : chordNotesAbove(chord, midiOf(last.pitch), spanOf(task.hands, 'right').comfortable - 2)[0];
    if (!middle) return null;
    const [above, below] = [stepsFrom(middle, 1, task.key), stepsFrom(middle, -1, task.key)];
    return {
      notes: laid([middle, above, middle, below, middle].slice(0, Math.min(5, slots.length)), slots, 0, task),
      why: { code: 'fill.turn', around: middle },
    };
  },
};
