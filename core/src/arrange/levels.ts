import { parseChord } from '../harmony/symbol.js';
import { triadSymbol } from '../harmony/simplify.js';
import type { HarmonisedChord } from './harmonise.js';
import { stretchAt, type Settings } from './settings.js';

/**
 * The chords as their level has them: triads where nothing richer is allowed. A seventh keeps its name and is played as root, third and
 * seventh, which say more of it than its triad would.
 */
export function chordsWithin(settings: Settings, chords: readonly HarmonisedChord[]): HarmonisedChord[] {
  return chords.map((chord) => {
    if (stretchAt(settings, chord.at).level !== 'triads') return chord;
    const parsed = parseChord(chord.symbol);
    const richer = parsed.kind === 'chord' && parsed.quality.seventh === null;
    const symbol = richer ? triadSymbol(parsed) : chord.symbol;
    return symbol === chord.symbol
      ? chord
      : { ...chord, symbol, why: [{ code: 'chord.as-triad', symbol: chord.symbol } as const, ...chord.why] };
  });
}
