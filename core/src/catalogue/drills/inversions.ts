import { parseChord } from '../../harmony/symbol.js';
import type { Hand, Hands } from '../../song/decisions.js';
import { drillKind, inversionsOf, type Drill, type DrillTask } from './drill.js';

/** Every inversion of a chord, up and down again. */
export function inversionsDrill(symbol: string, hand: Hand, hands: Hands): Drill | null {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord') return null;
  const up = inversionsOf(chord, hand, hands);
  const grips = [...up, ...up.slice(0, -1).reverse()];
  const task: DrillTask = {
    ask: { code: 'task.inversions', symbol: chord.text },
    grips,
    hand,
    anyOctave: true,
    shown: true,
    names: null,
  };
  return { id: `inversions:${symbol}:${hand}`, title: { code: 'drill.inversions', symbol }, tasks: [task] };
}

export const inversions = drillKind({
  order: 40,
  kind: 'inversions',
  wishes: ['chord', 'hand'],
  ofSong: false,
  make: ({ chord, hand }, { hands }) => inversionsDrill(chord, hand, hands),
});
