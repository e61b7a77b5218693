import type { Position } from '../harmony/naming.js';
import { midiOf, type NoteName, type Pitch } from '../pitch/pitch.js';
import type { BassWish } from '../song/decisions.js';
import type { Form } from '../catalogue/schools/thinned.js';
import type { TermCost } from './problem.js';

/** What one voice does at a chord change. `from` or `to` is null where a voice begins or ends. */
export interface VoiceMove {
  readonly from: Pitch | null;
  readonly to: Pitch | null;
  /** Semitones, up above 0. */
  readonly semitones: number;
}

/** The voices of a change, top-down, as a pianist reads a chord. */
export function voiceMoves(from: readonly Pitch[], to: readonly Pitch[]): VoiceMove[] {
  const pairs: [Pitch | null, Pitch | null][] = [];
  if (from.length === to.length) from.forEach((p, i) => pairs.push([p, to[i]]));
  else {
    const [many, few] = from.length > to.length ? [from, to] : [to, from];
    const partner = nearestPartners(many.map(midiOf), few.map(midiOf));
    many.forEach((p, i) => {
      const other = partner[i] === null ? null : few[partner[i]];
      pairs.push(from.length > to.length ? [p, other] : [other, p]);
    });
  }
  return pairs
    .map(([a, b]): VoiceMove => {
      const semitones = a !== null && b !== null ? midiOf(b) - midiOf(a) : 0;
      return { from: a, to: b, semitones };
    })
    .reverse();
}

/** For every voice of the larger chord its voice in the smaller one, or null for those left over. */
function nearestPartners(many: readonly number[], few: readonly number[]): (number | null)[] {
  // Monotone matching of all of `few`, least motion: a small table over (i, j).
  const cost: number[][] = [];
  for (let i = 0; i <= many.length; i++) {
    cost.push([]);
    for (let j = 0; j <= few.length; j++) {
      if (j === 0) cost[i].push(0);
      else if (i < j) cost[i].push(Infinity);
      else cost[i].push(Math.min(cost[i - 1][j], cost[i - 1][j - 1] + Math.abs(many[i - 1] - few[j - 1])));
    }
  }
  const partner: (number | null)[] = many.map(() => null);
  let j = few.length;
  for (let i = many.length; i > 0 && j > 0; i--) {
    if (cost[i][j] === cost[i - 1][j]) continue;
    partner[i - 1] = --j;
  }
  return partner;
}

/** Why a chord is not played in full: the hand does not reach it, the tune leaves no room, or it has too many notes. */
export type ThinCause = 'hand' | 'tune' | 'notes';

/** What a voicing is called beside others: by its bottom note, or by its shape where that says more. */
export type VoicingShape =
  | { readonly kind: 'one-note' }
  | { readonly kind: 'octave' }
  | { readonly kind: 'two-notes'; readonly bottom: NoteName }
  | { readonly kind: 'open' }
  | { readonly kind: 'close'; readonly position: Position; readonly form: 'full' | 'no-fifth' | 'rootless' };

/** What one term costs the chosen voicing less than another, in semitones of motion and their equals; below 0 it costs more. */
export interface TermDifference extends TermCost {
  readonly saved: number;
}

/** Why a chord is played the way it is. */
export type VoicingFact =
  | { readonly code: 'voicing.yours' }
  | { readonly code: 'voicing.starts'; readonly position: Position }
  | { readonly code: 'voicing.same-again' }
  | { readonly code: 'voicing.change'; readonly moves: readonly VoiceMove[] }
  | { readonly code: 'voicing.bass-line'; readonly rises: boolean; readonly asked: BassWish; readonly followed: boolean }
  | { readonly code: 'voicing.thinned'; readonly form: Form; readonly cause: ThinCause }
  /** A dominant seventh of third, seventh and root, after triads. */
  | { readonly code: 'voicing.three-notes'; readonly fifth: NoteName }
  | { readonly code: 'voicing.spread'; readonly spread: 'broken' | 'rolled'; readonly width: number; readonly limit: number }
  /** What decided: the nearest alternative, what it would cost more, and the terms in which the two differ most. */
  | {
      readonly code: 'voicing.decided';
      readonly against: VoicingShape;
      readonly more: number;
      readonly terms: readonly TermDifference[];
    }
  | { readonly code: 'voicing.shape'; readonly shape: VoicingShape; readonly notes: number };
