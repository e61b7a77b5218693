import { parseChord } from '../../harmony/symbol.js';
import { midiOf } from '../../pitch/pitch.js';
import { spanOf } from '../../song/decisions.js';
import { chordNotesAbove, laid, type FillMaker } from './fill.js';

/** Most notes of a fill. */
const MOST = 8;

/** The chord over the last note, going up. */
export const broken: FillMaker = {
  kind: 'broken',
  order: 10,
  make: (task, slots) => {
    const chord = parseChord(task.chord);
    const last = task.before[task.before.length - 1];
    if (chord.kind !== 'chord' || slots.length < 2) return null;
    const notes = chordNotesAbove(chord, midiOf(last.pitch), spanOf(task.hands, 'right').comfortable);
    if (notes.length < 2) return null;
    // Up, and back down where there is time for more; the last moment is left free for the tune to breathe.
    const wave = [...notes, ...notes.slice(1, -1).reverse()];
    const most = Math.min(MOST, slots.length, Math.max(notes.length, slots.length - 1));
    const row = Array.from({ length: most }, (_, k) => wave[k % wave.length]);
    return {
      notes: laid(row, slots, 0, task),
      why: { code: 'fill.broken', symbol: chord.text, from: last.pitch },
    };
  },
};
