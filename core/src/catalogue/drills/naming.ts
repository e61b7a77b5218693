import { positionOf } from '../../harmony/naming.js';
import { parseChord, type Chord } from '../../harmony/symbol.js';
import { nameOf, pitchClass, transposeName } from '../../pitch/pitch.js';
import { chances } from '../../practice/stand-in-player.js';
import type { Hands } from '../../song/decisions.js';
import { chordsOf, drawn, drillKind, inversionsOf, type Drill, type DrillGrip, type DrillTask, type TaskFact } from './drill.js';

/** Keys that lie under a hand, to be called by name or by inversion. */
export function namingDrill(symbols: readonly string[], what: 'name' | 'inversion', hands: Hands, seed: number): Drill {
  const chance = chances(seed + 2);
  const chords = chordsOf(symbols);
  const tasks = drawn(chords, seed).map((chord): DrillTask => {
    const all = inversionsOf(chord, 'left', hands);
    const grip = all[Math.floor(chance() * all.length)];
    const names = what === 'name' ? nameChoices(chord, chords, chance) : positions(chord, grip);
    const ask: TaskFact = what === 'name' ? { code: 'task.which-chord' } : { code: 'task.which-position', symbol: chord.text };
    return { ask, grips: [grip], hand: 'left', anyOctave: false, shown: true, names };
  });
  return { id: `from-keys:${what}`, title: { code: what === 'name' ? 'drill.to-names' : 'drill.positions' }, tasks };
}

function nameChoices(chord: Chord, others: readonly Chord[], chance: () => number): NonNullable<DrillTask['names']> {
  // Chords that hold the same keys have another name for them, and would be right as well.
  const keys = (c: Chord) => [...new Set(c.tones.slice(0, 4).map((t) => pitchClass(t.name)))].sort((a, b) => a - b).join();
  const near = [chord.root, transposeName(chord.root, '5P'), transposeName(chord.root, '2M')].flatMap((root) =>
    ['', 'm', '7', 'm7', 'maj7'].map((kind) => parseChord(root + kind)),
  );
  const pool = [...others, ...near.filter((c): c is Chord => c.kind === 'chord')];
  const wrong = new Map(pool.filter((c) => keys(c) !== keys(chord)).map((c) => [keys(c), c.text]));
  const picked = drawn([...wrong.values()], Math.floor(chance() * 1e6), 3);
  const all = drawn([chord.text, ...picked], Math.floor(chance() * 1e6));
  return { right: all.indexOf(chord.text), all: all.map((symbol) => ({ symbol })) };
}

function positions(chord: Chord, grip: DrillGrip): NonNullable<DrillTask['names']> {
  const positions = new Map(
    chord.tones.slice(0, 4).map(({ name }) => {
      const position = positionOf(chord, name);
      return [JSON.stringify(position), position];
    }),
  );
  const right = [...positions.keys()].indexOf(JSON.stringify(positionOf(chord, nameOf(grip.pitches[0]))));
  return { right, all: [...positions.values()].map((position) => ({ position })) };
}

export const name = drillKind({
  order: 70,
  kind: 'name',
  wishes: [],
  ofSong: false,
  make: ({ seed }, { symbols, hands }) => namingDrill(symbols, 'name', hands, seed),
});

export const inversion = drillKind({
  order: 80,
  kind: 'inversion',
  wishes: [],
  ofSong: false,
  make: ({ seed }, { symbols, hands }) => namingDrill(symbols, 'inversion', hands, seed),
});
