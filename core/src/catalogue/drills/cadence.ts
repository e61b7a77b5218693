import { arrange } from '../../arrange/arrange.js';
import { hasMinorThird, keysOf, scaleOf, type Key } from '../../harmony/key.js';
import { newDocument, type Hands } from '../../song/decisions.js';
import { emptySong } from '../../song/song.js';
import { TICKS_PER_QUARTER } from '../../time/ticks.js';
import type { Cadence } from './cadences.js';
import { drillKind, gripOf, type Drill, type DrillGrip, type DrillTask } from './drill.js';

/** The chords of a cadence as degrees of the scale, from 1, with their kinds in a major and in a minor key. */
const CADENCE_CHORDS: Readonly<Record<Cadence, readonly (readonly [degree: number, major: string, minor: string])[]>> = {
  'ii–V–I': [
    [2, 'm7', 'm7b5'],
    [5, '7', '7'],
    [1, 'maj7', 'm7'],
  ],
  'IV–V–I': [
    [4, '', 'm'],
    [5, '', ''],
    [1, '', 'm'],
  ],
  'I–vi–ii–V': [
    [1, 'maj7', 'm7'],
    [6, 'm7', 'maj7'],
    [2, 'm7', 'm7b5'],
    [5, '7', '7'],
  ],
  'I–IV–iv–I': [
    [1, '', 'm'],
    [4, '', ''],
    [4, 'm6', 'm6'],
    [1, '', 'm'],
  ],
};

/** A row of chords as the left hand plays it with the nearest voicing. */
function nearest(symbols: readonly string[], key: Key, hands: Hands): DrillGrip[] {
  const bar = 4 * TICKS_PER_QUARTER;
  const song = { ...emptySong(key), tempo: 60, length: symbols.length * bar };
  const chords = symbols.map((symbol, i) => ({ at: i * bar, symbol }));
  const { parts } = arrange({ ...newDocument({ ...song, chords }), hands });
  return parts.flatMap((p) => p.chords).map(gripOf);
}

/** The symbols of a cadence in a key: "Dm7 G7 Cmaj7". */
function cadenceSymbols(cadence: Cadence, key: Key): string[] {
  const scale = scaleOf(key);
  return CADENCE_CHORDS[cadence].map(([degree, major, minor]) => scale[degree - 1] + (hasMinorThird(key) ? minor : major));
}

/** A cadence with the nearest voicings, in the left hand, in each of some keys. */
export function cadenceDrill(cadence: Cadence, keys: readonly Key[], hands: Hands): Drill {
  const tasks = keys.map((key): DrillTask => {
    const symbols = cadenceSymbols(cadence, key);
    return {
      ask: { code: 'task.cadence', cadence, key, symbols },
      grips: nearest(symbols, key, hands),
      hand: 'left',
      anyOctave: true,
      shown: true,
      names: null,
    };
  });
  return { id: `cadence:${cadence}:${keys[0]?.mode ?? 'major'}`, title: { code: 'drill.cadence', cadence }, tasks };
}

/** The keys of a mode by falling fifths, so that each close leads on to the next. */
function roundFifths(mode: Key['mode']): Key[] {
  const keys = keysOf(mode);
  return keys.map((_, i) => keys[(i * 5) % keys.length]);
}

export const cadence = drillKind({
  order: 30,
  kind: 'cadence',
  wishes: ['cadence', 'mode'],
  ofSong: false,
  make: (wishes, { hands }) => cadenceDrill(wishes.cadence, roundFifths(wishes.key.mode), hands),
});
