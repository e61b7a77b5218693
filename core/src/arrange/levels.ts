import { parseChord } from '../harmony/symbol.js';
import { triadSymbol } from '../harmony/simplify.js';
import { SCHOOL_RULES } from '../left-hand/schools.js';
import type { Document, Level, School } from '../song/decisions.js';
import type { HarmonisedChord } from './harmonise.js';
import { levelAt } from './layers.js';

/** The school that a simpler level allows in place of the one that was asked for. */
export function schoolWithin(level: Level, school: School): School {
  if (level === 'bass' && SCHOOL_RULES[school].notes > 1) return 'single-bass';
  if (level === 'two-note' && SCHOOL_RULES[school].notes > 2) return 'two-note';
  return school;
}

/** The chords as a level plays them: triads where nothing richer is allowed. */
export function chordsWithin(doc: Document, chords: readonly HarmonisedChord[]): HarmonisedChord[] {
  return chords.map((chord) => {
    if (levelAt(doc, chord.at) !== 'triads') return chord;
    const parsed = parseChord(chord.symbol);
    const symbol = parsed.kind === 'chord' ? triadSymbol(parsed) : chord.symbol;
    return symbol === chord.symbol
      ? chord
      : { ...chord, symbol, why: [{ code: 'chord.as-triad', symbol: chord.symbol } as const, ...chord.why] };
  });
}
