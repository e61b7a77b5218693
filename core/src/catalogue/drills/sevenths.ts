import { hasMinorThird, keyName, scaleOf, type Key } from '../../harmony/key.js';
import { parseChord } from '../../harmony/symbol.js';
import type { Hand, Hands } from '../../song/decisions.js';
import { drillKind, inversionsOf, type Drill, type DrillTask } from './drill.js';

/** The seventh chords on each degree of a major key, or of a minor one with its raised dominant. */
export function diatonicDrill(key: Key, hand: Hand, hands: Hands): Drill {
  const scale = scaleOf(key);
  const kinds = hasMinorThird(key)
    ? ['m7', 'm7b5', 'maj7', 'm7', '7', 'maj7', '7']
    : ['maj7', 'm7', 'm7', 'maj7', '7', 'm7', 'm7b5'];
  const tasks = scale.flatMap((root, i): DrillTask[] => {
    const chord = parseChord(root + kinds[i]);
    if (chord.kind !== 'chord') return [];
    return [
      {
        ask: { code: 'task.seventh', symbol: chord.text },
        grips: [inversionsOf(chord, hand, hands)[0]],
        hand,
        anyOctave: true,
        shown: false,
        names: null,
      },
    ];
  });
  return { id: `sevenths:${keyName(key)}:${hand}`, title: { code: 'drill.sevenths', key }, tasks };
}

export const sevenths = drillKind({
  order: 50,
  kind: 'sevenths',
  wishes: ['key', 'hand'],
  ofSong: false,
  make: ({ key, hand }, { hands }) => diatonicDrill(key, hand, hands),
});
