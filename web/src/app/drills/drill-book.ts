import type { Arrangement } from '@joined-hands/core/arrange';
import { keyName, keysOf, type Key } from '@joined-hands/core/harmony';
import {
  CADENCES,
  cadenceDrill,
  diatonicDrill,
  fromNameDrill,
  hardMovesDrill,
  inversionsDrill,
  namingDrill,
  runDrill,
  warmUpDrill,
  type Cadence,
  type Drill,
} from '@joined-hands/core/practice';
import type { Hand, Hands } from '@joined-hands/core/song';

/** What may be wished for in a drill. */
export type DrillWish = 'key' | 'mode' | 'hand' | 'cadence' | 'chord';

export interface DrillWishes {
  readonly key: Key;
  readonly hand: Hand;
  readonly cadence: Cadence;
  /** A chord symbol, "Dm7". */
  readonly chord: string;
  /** Draws the questions where they are drawn. */
  readonly seed: number;
}

export type DrillKind =
  'warm-up' | 'hard-moves' | 'cadence' | 'inversions' | 'sevenths' | 'from-name' | 'name' | 'inversion' | 'scale' | 'arpeggio';

/** A kind of drill as the list shows it. */
export interface BookEntry {
  readonly kind: DrillKind;
  readonly title: string;
  readonly what: string;
  readonly wishes: readonly DrillWish[];
  /** It is made of a song, and needs one that is open. */
  readonly ofSong: boolean;
}

const entry = (kind: DrillKind, title: string, what: string, wishes: readonly DrillWish[], ofSong = false): BookEntry => ({
  ...{ kind, title, what, wishes, ofSong },
});

export const DRILL_BOOK: readonly BookEntry[] = [
  entry('warm-up', 'Warm up', 'The scale and arpeggio in both hands, then each chord shape of the song.', [], true),
  entry('hard-moves', 'Hard moves', 'The changes that take your hands furthest, one at a time.', [], true),
  entry('cadence', 'Cadences', 'A cadence in all twelve keys, each chord as close as possible to the last.', ['cadence', 'mode']),
  entry('inversions', 'Inversions', 'One chord through its inversions, up and down.', ['chord', 'hand']),
  entry('sevenths', 'Seventh chords of a key', 'The seventh chord on each degree, from its name.', ['key', 'hand']),
  entry('from-name', 'Chords from their names', 'You see a name and an inversion; find the keys.', ['hand']),
  entry('name', 'Names from keys', 'Keys are held down: which chord is it?', []),
  entry('inversion', 'Inversions from keys', 'A chord is held down: which inversion is it?', []),
  entry('scale', 'Scales', 'Two octaves up and down, with the usual fingers.', ['key', 'hand']),
  entry('arpeggio', 'Arpeggios', 'Two octaves up and down, with the usual fingers.', ['key', 'hand']),
];

export const ALL_KEYS: readonly { readonly name: string; readonly key: Key }[] = (['major', 'minor'] as const).flatMap((mode) =>
  keysOf(mode).map((key) => ({ name: keyName(key), key })),
);

/** Chords that are asked for where no song is open. */
const COMMON = [
  'C',
  'F',
  'G',
  'Am',
  'Dm',
  'Em',
  'D',
  'A',
  'E',
  'Bb',
  'Eb',
  'Gm',
  'Bm',
  'G7',
  'D7',
  'C7',
  'Dm7',
  'Am7',
  'Cmaj7',
  'Fmaj7',
  'Bm7b5',
  'Bdim',
];
/** The song's own chords are enough to ask for from so many different ones on. */
const ENOUGH = 5;

/** The drill of a kind as it is wished for; null where it needs a song and none is open, or the chord cannot be read. */
export function drillOf(kind: DrillKind, wishes: DrillWishes, arrangement: Arrangement | null, hands: Hands): Drill | null {
  const own = [...new Set(arrangement?.parts.flatMap((p) => p.chords.map((c) => c.symbol)) ?? [])];
  const symbols = own.length >= ENOUGH ? own : [...own, ...COMMON];
  switch (kind) {
    case 'warm-up':
      return arrangement && warmUpDrill(arrangement, hands);
    case 'hard-moves': {
      const drill = arrangement && hardMovesDrill(arrangement);
      return drill && drill.tasks.length > 0 ? drill : null;
    }
    case 'cadence':
      return cadenceDrill(wishes.cadence, roundFifths(wishes.key.mode), hands);
    case 'inversions':
      return inversionsDrill(wishes.chord, wishes.hand);
    case 'sevenths':
      return diatonicDrill(wishes.key, wishes.hand);
    case 'from-name':
      return fromNameDrill(symbols, wishes.hand, wishes.seed);
    case 'name':
    case 'inversion':
      return namingDrill(symbols, kind, wishes.seed);
    case 'scale':
    case 'arpeggio':
      return runDrill(kind, wishes.key, wishes.hand, hands);
  }
}

/** The keys of a mode by falling fifths, so that each close leads on to the next. */
function roundFifths(mode: Key['mode']): Key[] {
  const keys = keysOf(mode);
  return keys.map((_, i) => keys[(i * 5) % keys.length]);
}

/** What a kept drill was of, from the name it was kept by; null for one that is not known any more. */
export function wishedBy(id: string, before: DrillWishes): { kind: DrillKind; wishes: DrillWishes } | null {
  const [head, ...rest] = id.split(':');
  const kind = DRILL_BOOK.find((e) => e.kind === (head === 'from-keys' ? rest[0] : head))?.kind;
  if (!kind) return null;
  const hand = rest.find((r) => r === 'left' || r === 'right') ?? before.hand;
  const key = ALL_KEYS.find((k) => k.name === rest[0])?.key ?? before.key;
  const cadence = CADENCES.find((c) => c === rest[0]) ?? before.cadence;
  const mode = rest[1] === 'minor' || rest[1] === 'major' ? rest[1] : key.mode;
  const chord = kind === 'inversions' ? rest.slice(0, -1).join(':') : before.chord;
  return { kind, wishes: { ...before, hand, key: key.mode === mode ? key : { ...key, mode }, cadence, chord } };
}
