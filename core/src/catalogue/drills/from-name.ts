import type { Hand, Hands } from '../../song/decisions.js';
import { chances } from '../../practice/stand-in-player.js';
import { chordsOf, drawn, drillKind, inversionsOf, type Drill, type DrillTask } from './drill.js';

/** Chords to be played from their names, in any inversion asked for. */
export function fromNameDrill(symbols: readonly string[], hand: Hand, hands: Hands, seed: number): Drill {
  const chance = chances(seed + 1);
  const tasks = drawn(chordsOf(symbols), seed).map((chord): DrillTask => {
    const all = inversionsOf(chord, hand, hands);
    const grip = all[Math.floor(chance() * all.length)];
    return { ask: { code: 'task.play', ...grip.label }, grips: [grip], hand, anyOctave: true, shown: false, names: null };
  });
  return { id: `from-name:${hand}`, title: { code: 'drill.from-names' }, tasks };
}

export const fromName = drillKind({
  order: 60,
  kind: 'from-name',
  wishes: ['hand'],
  ofSong: false,
  make: ({ hand, seed }, { symbols, hands }) => fromNameDrill(symbols, hand, hands, seed),
});
