import { reachableBy } from '../fingers/chords.js';
import { CLEAR_OF_TUNE, isMuddy } from '../left-hand/costs.js';
import { midiOf, nameOf, transposePitch, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf, type Hands } from '../song/decisions.js';
import type { Ticks } from '../time/ticks.js';

/** Where a texture gives way to the hand, the keyboard or the tune. */
export type BendFact =
  | { readonly code: 'bend.pedal-note'; readonly pitch: Pitch; readonly symbol: string }
  | { readonly code: 'bend.off-keyboard'; readonly pitch: Pitch }
  /** The whole pattern of a chord, where the tune comes down to it: an octave lower, its first half held, or without some of its notes. */
  | { readonly code: 'bend.lower'; readonly symbol: string }
  | { readonly code: 'bend.first-half'; readonly symbol: string }
  | { readonly code: 'bend.left-out'; readonly pitch: Pitch; readonly cause: 'reach' | 'muddy' | 'melody' }
  /** A chord shorter than its pattern. */
  | { readonly code: 'bend.short'; readonly symbol: string }
  | { readonly code: 'bend.no-octave'; readonly pitch: Pitch };

/** Bends as they are met, each once: the same note bent twice for the same reason is one. */
export class Bends {
  private readonly met = new Map<string, BendFact>();

  add(bend: BendFact): void {
    const what = 'pitch' in bend ? nameOf(bend.pitch) : bend.symbol;
    this.met.set(`${bend.code} ${what} ${'cause' in bend ? bend.cause : ''}`, bend);
  }

  all(): BendFact[] {
    return [...this.met.values()];
  }
}

/** What a pattern strikes at a place, bottom-up; nothing where it was bent away and what sounds is held on. */
export interface Laid {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly token: string;
  readonly pitches: readonly Pitch[];
  /** True where a small note leads to its highest key. */
  readonly graced?: boolean;
}

/** An attack on the keyboard, in the hand, and clear where it is low. Of an octave too wide for the hand the upper note stays. */
export function inHand(pitches: readonly Pitch[], hands: Hands, bends: Bends): Pitch[] {
  const { low, high } = KEYBOARDS[hands.keys];
  const { limit } = spanOf(hands, 'left');
  let kept = pitches.map((pitch) => {
    let bent = pitch;
    while (midiOf(bent) < low) bent = transposePitch(bent, '8P');
    while (midiOf(bent) > high) bent = transposePitch(bent, '-8P');
    if (bent !== pitch) bends.add({ code: 'bend.off-keyboard', pitch });
    return bent;
  });
  kept = [...new Map(kept.map((p) => [midiOf(p), p])).values()].sort((a, b) => midiOf(a) - midiOf(b));
  const drop = (index: number, cause: 'reach' | 'muddy') => {
    bends.add({ code: 'bend.left-out', pitch: kept[index], cause });
    kept = kept.filter((_, i) => i !== index);
  };
  const reachable = reachableBy(hands, 'left');
  const reaches = () => midiOf(kept[kept.length - 1]) - midiOf(kept[0]) <= limit && reachable(kept.map(midiOf));
  const isOctave = kept.length === 2 && nameOf(kept[0]) === nameOf(kept[1]);
  while (kept.length > 1 && !reaches()) drop(isOctave ? 0 : kept.length - 1, 'reach');
  while (kept.length > 1 && isMuddy(kept.map(midiOf))) drop(1, 'muddy');
  return kept;
}

/** The lowest key on which a pattern may begin that moves down an octave: A1. */
const LOWEST_MOVED = 33;

/**
 * A pattern that the tune leaves no room for, bent for the whole of its chord: an octave lower, where it is no shape that was learned and
 * does not growl there; else its first half, held; else without the notes that are in the way. A pattern that has room stays as it is.
 */
export function underTune(
  attacks: readonly Laid[],
  symbol: string,
  { ceiling, shaped, tells }: Room,
  hands: Hands,
  bends: Bends,
): readonly Laid[] {
  const clear = (row: readonly Laid[]) => row.every((a) => topOf(a) <= ceiling(a.at, a.at + a.length) - CLEAR_OF_TUNE);
  if (clear(attacks)) return attacks;
  const { low } = KEYBOARDS[hands.keys];
  const lower = attacks.map((a) => ({ ...a, pitches: a.pitches.map((p) => transposePitch(p, '-8P')) }));
  const grounded = lower.every(
    (a) => a.pitches.every((p) => midiOf(p) >= Math.max(low, LOWEST_MOVED)) && !isMuddy(a.pitches.map(midiOf)),
  );
  if (!shaped && grounded && clear(lower)) {
    bends.add({ code: 'bend.lower', symbol });
    return lower;
  }
  const half = firstHalf(attacks);
  if (half.length < attacks.length && clear(half) && (half.some(tells) || !attacks.some(tells))) {
    bends.add({ code: 'bend.first-half', symbol });
    return half;
  }
  const [from, to] = [attacks[0].at, attacks[attacks.length - 1].at + attacks[attacks.length - 1].length];
  const most = ceiling(from, to) - CLEAR_OF_TUNE;
  return attacks.map((a) => {
    for (const pitch of a.pitches) if (midiOf(pitch) > most) bends.add({ code: 'bend.left-out', pitch, cause: 'melody' });
    return { ...a, pitches: a.pitches.filter((p) => midiOf(p) <= most) };
  });
}

/** What a pattern is fitted to. */
interface Room {
  /** The lowest key of the right hand that sounds in a stretch. */
  readonly ceiling: (from: Ticks, to: Ticks) => number;
  /** True for a pattern that strikes the chord as it was learned. */
  readonly shaped: boolean;
  /** True for an attack that tells which chord it is. */
  readonly tells: (attack: Pick<Laid, 'token'>) => boolean;
}

const topOf = ({ pitches }: Laid): number => (pitches.length === 0 ? -Infinity : midiOf(pitches[pitches.length - 1]));

/** The attacks of a pattern's first half, the last of them held to its end. */
function firstHalf(attacks: readonly Laid[]): readonly Laid[] {
  const [first, last] = [attacks[0], attacks[attacks.length - 1]];
  const end = last.at + last.length;
  const middle = first.at + (end - first.at) / 2;
  const kept = attacks.filter((a) => a.at < middle);
  return kept.map((a, i) => (i === kept.length - 1 ? { ...a, length: end - a.at } : a));
}
