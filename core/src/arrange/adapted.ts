import { grouped } from '../lists/grouped.js';
import { bottomUp, midiOf, type Pitch } from '../pitch/pitch.js';
import type { Hand } from '../song/decisions.js';
import type { Arrangement, ScoreNote } from './arrangement.js';

/** What becomes of a hand in a bar when another player plays it, the greatest change first. */
export const ADAPTATIONS = [
  'rests',
  'joins-in',
  'less-often',
  'one-by-one',
  'more-often',
  'thinner',
  'fuller',
  'turned',
  'octave',
  'other',
] as const;
export type AdaptationKind = (typeof ADAPTATIONS)[number];

/** What had to change in a song for a player, as against another. */
export type AdaptationFact =
  | { readonly code: 'adapted.nothing' }
  | {
      readonly code: 'adapted.hand';
      readonly hand: Hand;
      readonly kind: AdaptationKind;
      /** Numbers of the bars, in order, and how many the song has. */
      readonly bars: readonly number[];
      readonly of: number;
      /** The first place: its bar, and the keys bottom-up before and after. */
      readonly first: { readonly bar: number; readonly from: readonly Pitch[]; readonly to: readonly Pitch[] };
    }
  /** Notes that stay and are played with another finger. */
  | { readonly code: 'adapted.fingers'; readonly hand: Hand; readonly notes: number };

interface Change {
  readonly kind: AdaptationKind;
  readonly from: readonly Pitch[];
  readonly to: readonly Pitch[];
}

const HANDS = ['left', 'right'] as const;

/**
 * What had to change in a song for one player (`theirs`) as against another (`usual`): hand by hand, each kind of change with its bars,
 * then how many notes have another finger. Bars of which nothing is told are the same, key by key.
 */
export function adaptations(usual: Arrangement, theirs: Arrangement): AdaptationFact[] {
  const bars = usual.bars;
  const found: AdaptationFact[] = [];
  for (const hand of HANDS) {
    const [before, after] = [strikesByBar(usual, hand), strikesByBar(theirs, hand)];
    const changes = bars.flatMap(({ number }, i) => changesIn(before[i], after[i]).map((change) => ({ bar: number, ...change })));
    for (const kind of ADAPTATIONS) {
      const alike = changes.filter((c) => c.kind === kind);
      if (alike.length === 0) continue;
      const [{ bar, from, to }] = alike;
      const numbers = [...new Set(alike.map((c) => c.bar))];
      found.push({ code: 'adapted.hand', hand, kind, bars: numbers, of: bars.length, first: { bar, from, to } });
    }
    const notes = otherFingers(usual, theirs, hand);
    if (notes > 0) found.push({ code: 'adapted.fingers', hand, notes });
  }
  return found.length > 0 ? found : [{ code: 'adapted.nothing' }];
}

/** The keys that a hand strikes, moment by moment, of each bar. */
function strikesByBar({ bars, score }: Arrangement, hand: Hand): ReadonlyMap<number, readonly Pitch[]>[] {
  const notes = score.filter((n) => n.hand === hand);
  let n = 0;
  return bars.map((bar) => {
    const own: ScoreNote[] = [];
    for (; n < notes.length && notes[n].at < bar.end; n++) own.push(notes[n]);
    const moments = [...grouped(own, (note) => note.at)];
    return new Map(moments.map(([at, struck]) => [at, bottomUp(struck.map((s) => s.pitch))]));
  });
}

function changesIn(before: ReadonlyMap<number, readonly Pitch[]>, after: ReadonlyMap<number, readonly Pitch[]>): Change[] {
  if (before.size !== after.size || [...before.keys()].some((at) => !after.has(at))) {
    const [from, to] = [before, after].map((moments) => bottomUp([...moments.values()].flat()));
    return [{ kind: otherTimes(before.size, after.size, from.join(' ') === to.join(' ')), from, to }];
  }
  const changes = new Map<AdaptationKind, Change>();
  for (const [at, struck] of before) {
    const other = after.get(at) ?? [];
    const kind = kindOf(struck, other);
    if (kind && !changes.has(kind)) changes.set(kind, { kind, from: struck, to: other });
  }
  return [...changes.values()];
}

/** What became of a hand that strikes at other times, so often before and after; `same` where all its keys are the same. */
function otherTimes(before: number, after: number, same: boolean): AdaptationKind {
  if (after === 0) return 'rests';
  if (before === 0) return 'joins-in';
  if (after < before) return 'less-often';
  return same ? 'one-by-one' : 'more-often';
}

/** What became of the keys of one moment; null where they are the same. */
function kindOf(from: readonly Pitch[], to: readonly Pitch[]): AdaptationKind | null {
  if (from.join(' ') === to.join(' ')) return null;
  if (to.length < from.length) return 'thinner';
  if (to.length > from.length) return 'fuller';
  const classes = (pitches: readonly Pitch[]) => pitches.map((p) => midiOf(p) % 12);
  const [before, after] = [classes(from), classes(to)];
  const alike = [...before].sort((a, b) => a - b).join(' ') === [...after].sort((a, b) => a - b).join(' ');
  if (!alike) return 'other';
  return before[0] === after[0] ? 'octave' : 'turned';
}

/** How many notes of a hand are the same in both and have another finger. */
function otherFingers(usual: Arrangement, theirs: Arrangement, hand: Hand): number {
  const nameOf = (n: ScoreNote) => `${n.at} ${n.pitch}`;
  const fingers = new Map(usual.score.filter((n) => n.hand === hand).map((n) => [nameOf(n), n.finger]));
  return theirs.score.filter((n) => n.hand === hand && (fingers.get(nameOf(n)) ?? n.finger) !== n.finger).length;
}
