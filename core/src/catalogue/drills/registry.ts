import type { Arrangement } from '../../arrange/arrangement.js';
import { keyName, keysOf, type Key } from '../../harmony/key.js';
import type { Hands } from '../../song/decisions.js';
import { CADENCES } from './cadences.js';
import type { Drill, DrillMaker, DrillWishes } from './drill.js';
import { ALL_DRILLS } from './list.js';

export type DrillKind = (typeof ALL_DRILLS)[number]['kind'];

export const DRILLS: readonly DrillMaker<DrillKind>[] = ALL_DRILLS;

/** Chords that are asked for where no song is open. */
const COMMON = 'C F G Am Dm Em D A E Bb Eb Gm Bm G7 D7 C7 Dm7 Am7 Cmaj7 Fmaj7 Bm7b5 Bdim'.split(' ');
/** The song's own chords are enough to ask for from so many different ones on. */
const ENOUGH = 5;

/** The drill of a kind as it is wished for; null where it needs a song and none is open, or the chord cannot be read. */
export function drillOf(kind: DrillKind, wishes: DrillWishes, arrangement: Arrangement | null, hands: Hands): Drill | null {
  const own = [...new Set(arrangement?.parts.flatMap((p) => p.chords.map((c) => c.symbol)) ?? [])];
  const symbols = own.length >= ENOUGH ? own : [...own, ...COMMON];
  return DRILLS.find((d) => d.kind === kind)?.make(wishes, { arrangement, symbols, hands }) ?? null;
}

/** All keys that are offered, the major ones first. */
export const ALL_KEYS: readonly Key[] = [...keysOf('major'), ...keysOf('minor')];

/** What a kept drill was of, read from the name it was kept by; null for one that is not known any more. */
export function parseDrillId(id: string, before: DrillWishes): { kind: DrillKind; wishes: DrillWishes } | null {
  const [head, ...rest] = id.split(':');
  const kind = DRILLS.find((e) => e.kind === (head === 'from-keys' ? rest[0] : head))?.kind;
  if (!kind) return null;
  const hand = rest.find((r) => r === 'left' || r === 'right') ?? before.hand;
  const key = ALL_KEYS.find((k) => keyName(k) === rest[0]) ?? before.key;
  const close = CADENCES.find((c) => c === rest[0]) ?? before.cadence;
  const mode = rest[1] === 'minor' || rest[1] === 'major' ? rest[1] : key.mode;
  const chord = kind === 'inversions' ? rest.slice(0, -1).join(':') : before.chord;
  return { kind, wishes: { ...before, hand, key: key.mode === mode ? key : { ...key, mode }, cadence: close, chord } };
}
