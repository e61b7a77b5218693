import type { Arrangement } from '../../arrange/arrangement.js';
import type { Hands } from '../../song/decisions.js';
import { drillKind, gripOf, type Drill, type DrillTask } from './drill.js';
import { runDrill } from './runs.js';

/** What a song is warmed up with: its scale and arpeggio in both hands, and the shapes of its own chords. */
export function warmUpDrills(arrangement: Arrangement, hands: Hands): Drill[] {
  const { key } = arrangement.song;
  const seen = new Set<string>();
  const grips = arrangement.parts
    .flatMap((p) => p.chords)
    .filter((c) => !seen.has(c.pitches.join()) && seen.add(c.pitches.join()))
    .map(gripOf);
  const shapes: DrillTask = {
    ask: { code: 'task.song-chords' },
    grips: grips.slice(0, 12),
    hand: 'left',
    anyOctave: false,
    shown: true,
    names: null,
  };
  const runs = (['right', 'left'] as const).flatMap((hand): Drill[] =>
    (['scale', 'arpeggio'] as const).map((kind) => runDrill(kind, key, hand, hands)),
  );
  return grips.length > 0 ? [...runs, { id: 'shapes', title: { code: 'drill.song-chords' }, tasks: [shapes] }] : runs;
}

/** All of a song's warm-up, one after another. */
export function warmUpDrill(arrangement: Arrangement, hands: Hands): Drill {
  const tasks = warmUpDrills(arrangement, hands).flatMap((d) => d.tasks);
  return { id: 'warm-up', title: { code: 'drill.warm-up', song: arrangement.song.title }, tasks };
}

export const warmUp = drillKind({
  order: 10,
  kind: 'warm-up',
  wishes: [],
  ofSong: true,
  make: (_, { arrangement, hands }) => arrangement && warmUpDrill(arrangement, hands),
});
