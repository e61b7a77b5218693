import { keyName, practisedScale, type Key } from '../../harmony/key.js';
import { pitchAt, pitchClass } from '../../pitch/pitch.js';
import { fingerLine } from '../../fingers/line.js';
import { KEYBOARDS, type Hand, type Hands } from '../../song/decisions.js';
import { TICKS_PER_QUARTER } from '../../time/ticks.js';
import { drillKind, nextUp, type Drill, type DrillGrip, type DrillTask, type TaskFact } from './drill.js';

/** A scale or an arpeggio over two octaves, up and down, with the usual fingers; lower where the keyboard ends. */
export function runDrill(kind: 'scale' | 'arpeggio', key: Key, hand: Hand, hands: Hands): Drill {
  const scale = practisedScale(key);
  const names = kind === 'scale' ? scale : [scale[0], scale[2], scale[4]];
  const usual = (hand === 'right' ? 60 : 36) + pitchClass(key.tonic);
  const start = usual + 24 > KEYBOARDS[hands.keys].high ? usual - 12 : usual;
  let last = start - 1;
  const up = [...names, ...names, names[0]].map((name) => {
    last = nextUp(name, last);
    return pitchAt(name, last);
  });
  const half = TICKS_PER_QUARTER / 2;
  const row = fingerLine(
    up.map((pitch, i) => ({ at: i * half, length: half, pitches: [pitch] })),
    { hands, hand, tempo: 80, key },
  );
  const rising = up.map((pitch, i): DrillGrip => ({ pitches: [pitch], fingers: row[i].fingers, label: { pitch } }));
  // Down with the fingers of the way up, as it is taught.
  const grips = [...rising, ...rising.slice(0, -1).reverse()];
  const ask: TaskFact = { code: 'task.run', run: kind, key, hand };
  const task: DrillTask = { ask, grips, hand, anyOctave: true, shown: true, names: null };
  return { id: `${kind}:${keyName(key)}:${hand}`, title: { code: 'drill.run', run: kind, key, hand }, tasks: [task] };
}

export const scale = drillKind({
  order: 90,
  kind: 'scale',
  wishes: ['key', 'hand'],
  ofSong: false,
  make: ({ key, hand }, { hands }) => runDrill('scale', key, hand, hands),
});

export const arpeggio = drillKind({
  order: 100,
  kind: 'arpeggio',
  wishes: ['key', 'hand'],
  ofSong: false,
  make: ({ key, hand }, { hands }) => runDrill('arpeggio', key, hand, hands),
});
