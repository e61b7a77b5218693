import type { Chord, ChordTone } from '../../harmony/symbol.js';
import { pitchClass, type NoteName } from '../../pitch/pitch.js';
import type { SchoolRules } from './school.js';
import { alone, bassOf, over, type ShapePattern } from './shape-pattern.js';
import { fifthOf, rootOf, seventhOf, thirdOf } from './tones.js';

/** What is charged for a plain fifth in place of the tenth. */
const NO_TENTH = 40;

/** Half steps from the bass to the middle note: nearer ones would not be open. */
const LEAST_MIDDLE = 5;

/** The bass, the fifth or seventh over it, and the third a tenth above. */
function tenths(chord: Chord): ShapePattern[] {
  const bass = bassOf(chord);
  const [root] = rootOf(chord);
  const above = (name: NoteName, octaves: number) => ((pitchClass(name) - pitchClass(bass) + 12) % 12 || 12) + 12 * octaves;
  const found: ShapePattern[] = [];
  const add = (middle: ChordTone | undefined, top: ChordTone | undefined, price: number) => {
    if (!middle || !top || [middle, top].some((t) => pitchClass(t.name) === pitchClass(bass))) return;
    const low = above(middle.name, 0);
    if (low < LEAST_MIDDLE) return;
    // The top lies past the octave; over a foreign bass it keeps clear of the middle note all the same.
    const high = above(top.name, 1);
    found.push({ form: 'full', names: [bass, middle.name, top.name], turns: null, gaps: [low, high], price });
  };
  const [third] = thirdOf(chord);
  const [fifth] = fifthOf(chord);
  const [seventh] = seventhOf(chord);
  if (chord.bass === null) {
    add(fifth, third, seventh ? 1 : 0);
    add(seventh, third, 0);
  } else {
    // Over its third or fifth the root in the middle, what is left a tenth or more above; a foreign bass has root and third over it.
    const rest = [fifth, third].filter((t) => t && pitchClass(t.name) !== pitchClass(bass));
    for (const top of rest) add(root, top, 0);
    add(third, root, 0);
  }
  return found;
}

/** Wide and warm: the bass, its fifth or seventh, and the third a tenth above. */
export const open: SchoolRules = {
  school: 'open',
  order: 60,
  notes: 3,
  register: { low: 36, high: 67 },
  home: { low: 45, high: 57 },
  patterns: (chord) => [...tenths(chord), ...over(chord, 'two-note', fifthOf(chord), NO_TENTH), alone(chord)],
};
