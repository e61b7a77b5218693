import type { Hand, Loudness, Swell } from '../song/decisions.js';
import type { Ticks } from '../time/ticks.js';

/** Loudness of each dynamic as a share of the loudest, between the steps that keyboards and MIDI files know. */
const LOUDNESS: Readonly<Record<Loudness, number>> = { pp: 0.34, p: 0.46, mp: 0.58, mf: 0.72, f: 0.84, ff: 0.95 };

/** How far a swell goes from where it begins, as a share of the loudest. */
const SWELL = 0.14;

/** A dynamic sign over a place, or a swell over a stretch. */
export type DynamicMark =
  | { readonly kind: 'level'; readonly at: Ticks; readonly level: Loudness }
  | { readonly kind: 'swell'; readonly at: Ticks; readonly until: Ticks; readonly way: 'louder' | 'softer' };

/** A stretch with its wishes for loudness. */
export interface LoudStretch {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly loudness: Loudness;
  readonly swell: Swell;
}

/** How far a swell is on its way at a place, from 0 to 1. */
function swelled({ start, end, swell }: LoudStretch, at: Ticks): number {
  const share = Math.min(1, Math.max(0, (at - start) / Math.max(1, end - start)));
  switch (swell) {
    case 'none':
      return 0;
    case 'rise':
      return share;
    case 'fall':
      return -share;
    case 'arch':
      return 1 - Math.abs(2 * share - 1);
  }
}

/** Loudness of a note, 0 to 1: the tune as its stretch has it, all that accompanies it softer by the balance in percent. */
export function loudnessOf(
  note: { readonly at: Ticks; readonly hand: Hand; readonly role: string },
  stretch: LoudStretch,
  balance: number,
): number {
  const whole = LOUDNESS[stretch.loudness] + SWELL * swelled(stretch, note.at);
  const tune = note.hand === 'right' && note.role === 'melody';
  // Harmony and fills of the right hand lie between the tune and the left hand.
  const share = tune ? 1 : 1 - (note.hand === 'right' ? balance / 2 : balance) / 100;
  return Math.round(1000 * Math.min(1, Math.max(0.05, whole * share))) / 1000;
}

/** The signs that a row of stretches needs: none where nothing departs from the usual; each level where it is new. */
export function dynamicMarks(stretches: readonly LoudStretch[]): DynamicMark[] {
  if (stretches.every((s) => s.loudness === 'mf' && s.swell === 'none')) return [];
  const marks: DynamicMark[] = [];
  let level: Loudness | null = null;
  for (const { start, end, loudness, swell } of stretches) {
    if (loudness !== level) marks.push({ kind: 'level', at: start, level: loudness });
    // After a swell the level is said again, since the ear has lost it.
    level = swell === 'rise' || swell === 'fall' ? null : loudness;
    const middle = start + Math.round((end - start) / 2);
    if (swell === 'arch')
      marks.push(
        { kind: 'swell', at: start, until: middle, way: 'louder' },
        { kind: 'swell', at: middle, until: end, way: 'softer' },
      );
    else if (swell !== 'none') marks.push({ kind: 'swell', at: start, until: end, way: swell === 'rise' ? 'louder' : 'softer' });
  }
  return marks;
}
