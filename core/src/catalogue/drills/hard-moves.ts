import type { Arrangement } from '../../arrange/arrangement.js';
import { isHardJump } from '../../join/jumps.js';
import { drillKind, gripOf, type Drill, type DrillTask, type TaskFact } from './drill.js';

/** Chord changes and jumps of the song that ask most of the hands, each as a move to repeat. */
export function hardMovesDrill({ parts, song }: Arrangement, most = 6): Drill {
  const chords = parts.flatMap((p) => p.chords);
  const moves = chords
    .flatMap((chord, i) => (i > 0 && chord.motion > 0 ? [{ from: chords[i - 1], to: chord }] : []))
    .sort((a, b) => b.to.motion - a.to.motion);
  const seen = new Set<string>();
  const tasks: DrillTask[] = [];
  for (const { from, to } of moves) {
    const print = `${from.pitches.join()} ${to.pitches.join()}`;
    if (seen.has(print) || tasks.length >= most) continue;
    seen.add(print);
    const ask: TaskFact = { code: 'task.change', from: from.symbol, to: to.symbol, semitones: to.motion };
    tasks.push({ ask, grips: [gripOf(from), gripOf(to)], hand: 'left', anyOctave: false, shown: true, names: null });
  }
  const jumps = parts.flatMap((p) => p.jumps.filter((j) => j.hand === 'right' && j.distance >= 5));
  for (const jump of jumps.sort((a, b) => Number(isHardJump(b)) - Number(isHardJump(a)) || b.distance - a.distance).slice(0, 2)) {
    const grips = [jump.from, jump.to].map((pitch) => ({ pitches: [pitch], fingers: [], label: { pitch } }));
    const ask: TaskFact = { code: 'task.jump', from: jump.from, to: jump.to, semitones: jump.distance };
    tasks.push({ ask, grips, hand: 'right', anyOctave: false, shown: true, names: null });
  }
  return { id: 'hard-moves', title: { code: 'drill.hard-moves', song: song.title }, tasks };
}

export const hardMoves = drillKind({
  order: 20,
  kind: 'hard-moves',
  wishes: [],
  ofSong: true,
  make: (_, { arrangement }) => {
    const drill = arrangement && hardMovesDrill(arrangement);
    return drill && drill.tasks.length > 0 ? drill : null;
  },
});
