import type { Chord, ChordTone } from '../../harmony/symbol.js';

/** The notes of a chord on some degrees, in the order in which these are asked for. */
export const byDegree = (chord: Chord, ...degrees: number[]): ChordTone[] =>
  degrees.map((d) => chord.tones.find((t) => t.degree === d)).filter((t): t is ChordTone => t !== undefined);

export const rootOf = (chord: Chord) => byDegree(chord, 1);
/** The third, or what stands in its place. */
export const thirdOf = (chord: Chord) => byDegree(chord, 3, 4, 2).slice(0, 1);
export const fifthOf = (chord: Chord) => byDegree(chord, 5);
export const seventhOf = (chord: Chord) => byDegree(chord, 7, 6).slice(0, 1);
