import type { Chord, ChordTone } from '../../harmony/symbol.js';
import { pitchClass } from '../../pitch/pitch.js';
import { CLOSE, type SchoolRules } from './school.js';
import { alone, free, over, type ShapePattern } from './shape-pattern.js';
import { fifthOf, rootOf, seventhOf, thirdOf } from './tones.js';

/**
 * What a pair of notes costs beside root and third under a fixed hand: third and seventh of a dominant, a sixth in place of a third,
 * what leaves out the root. Thirds and sevenths say which chord it is: a bare fifth or fourth is for where nothing else lies within reach.
 */
const PAIR_COSTS = { guide: 1, turned: 12, withoutRoot: 20, bare: 60 } as const;

function pairsOf(chord: Chord): ShapePattern[] {
  const [root, third, fifth, seventh] = [rootOf(chord), thirdOf(chord), fifthOf(chord), seventhOf(chord)];
  const bare = third.length === 0 ? 0 : PAIR_COSTS.bare;
  if (chord.bass !== null) {
    const isBass = (tones: readonly ChordTone[]) => tones.some((t) => pitchClass(t.name) === pitchClass(chord.bass as string));
    // Over its own third any note of the chord says which chord it is.
    const plain = isBass(third) ? 0 : bare;
    return [
      ...over(chord, 'two-note', third),
      ...over(chord, 'two-note', root, plain),
      ...over(chord, 'two-note', seventh, PAIR_COSTS.guide),
      ...over(chord, 'two-note', fifth, plain + PAIR_COSTS.withoutRoot),
    ];
  }
  const pair = (tones: readonly ChordTone[], price: number, rootBelow = false): ShapePattern[] =>
    tones.length < 2
      ? []
      : [{ ...free({ form: 'two-note', names: tones.map((t) => t.name) }, price), turns: rootBelow ? 'root' : 'any' }];
  return [
    ...pair([...root, ...third], 0, true),
    ...pair([...third, ...seventh], PAIR_COSTS.guide),
    ...pair([...root, ...third], PAIR_COSTS.turned),
    ...pair([...root, ...seventh], PAIR_COSTS.withoutRoot),
    ...pair([...third, ...fifth], PAIR_COSTS.withoutRoot),
    ...pair([...root, ...fifth], bare),
  ];
}

/** Two notes close to the hand, for a first year. */
export const twoNote: SchoolRules = {
  school: 'two-note',
  order: 30,
  notes: 2,
  ...CLOSE,
  patterns: (chord) => [...pairsOf(chord), alone(chord)],
};
