import type { Chord, ChordTone } from '../../harmony/symbol.js';
import { CLOSE, type SchoolRules } from './school.js';
import { alone, free, over, type ShapePattern } from './shape-pattern.js';
import { fifthOf, rootOf, seventhOf, thirdOf } from './tones.js';

/** Thirds and sevenths say which chord it is; two notes without either cost this much more. */
const BARE = 2;

function pairsOf(chord: Chord): ShapePattern[] {
  const [root, third, fifth, seventh] = [rootOf(chord), thirdOf(chord), fifthOf(chord), seventhOf(chord)];
  if (chord.bass !== null) return [third, root, seventh, fifth].flatMap((tones, k) => over(chord, 'two-note', tones, k / 2));
  const pairs: [ChordTone[], number][] = [
    [[...third, ...seventh], 0],
    [[...root, ...third], 0],
    [[...root, ...seventh], 1],
    [[...third, ...fifth], 1],
    [[...root, ...fifth], BARE],
  ];
  return pairs
    .filter(([p]) => p.length === 2)
    .map(([p, price]) => free({ form: 'two-note', names: p.map((t) => t.name) }, price));
}

/** Two notes close to the hand, for a first year. */
export const twoNote: SchoolRules = {
  school: 'two-note',
  notes: 2,
  ...CLOSE,
  patterns: (chord) => [...pairsOf(chord), alone(chord)],
};
