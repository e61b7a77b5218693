import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { barTicks, beatTicks, metricStrength } from '../time/meter.js';
import { toSeconds, type Ticks } from '../time/ticks.js';
import type { HarmonicRhythm } from './vocabulary.js';

/** How often the chords of a part change: every two bars or fewer, by the bar, by half bars, on most beats; or as the pianist asks. */
export const PACES = ['vamp', 'bar', 'half', 'beat'] as const;
export type Pace = (typeof PACES)[number] | 'asked';

/** Where in the bar a chord comes. */
type Spot = 'bar' | 'middle' | 'beat';

interface PaceCosts extends Readonly<Record<Spot, number>> {
  /** For each bar spent at the pace. */
  readonly eachBar: number;
}

/**
 * What a change costs at each pace, in weighted beats of a note outside its chord. A pace that allows quicker changes costs more by the
 * bar: few changes are the rule, and a tune has to ask for them.
 */
const PACE_COSTS: Readonly<Record<Pace, PaceCosts>> = {
  vamp: { bar: 1.25, middle: 4, beat: 5, eachBar: 0 },
  bar: { bar: 0.2, middle: 2.5, beat: 5, eachBar: 0.25 },
  half: { bar: 0.35, middle: 0.35, beat: 4, eachBar: 1 },
  beat: { bar: 0.2, middle: 0.5, beat: 0.3, eachBar: 1 },
  asked: { bar: 0.35, middle: 0.5, beat: 1, eachBar: 0 },
};

/** What turns the costs of a pace. */
export const PACE_TERMS = {
  /** A part that changes at another pace than the one before. */
  turns: 1.4,
  /** The last bars of a part move faster: its inner changes cost this much of what they do elsewhere. */
  closing: 0.9,
  /** A chord that comes while a note of the tune goes on, other than on a bar line. */
  underNote: 0.6,
  /** Seconds between changes that are neither quick nor slow: by the square of what is missing a pace costs more. */
  easy: 1.2,
  least: 0.3,
  most: 6,
} as const;

/** The paces that a rhythm leaves to the search. */
export const pacesOf = (rhythm: HarmonicRhythm): readonly Pace[] => (rhythm === 'proposed' ? PACES : ['asked']);

/** Ticks from one place to the next where chords may change in a bar. */
export function placesIn(bar: Bar, rhythm: HarmonicRhythm): Ticks {
  const [whole, beat] = [barTicks(bar.meter), beatTicks(bar.meter)];
  if (rhythm === 'bar') return whole;
  if (rhythm === 'half') return (whole / beat) % 2 === 0 ? whole / 2 : whole;
  return beat;
}

/** What a change at a place costs at a pace. */
export function changeCost(pace: Pace, at: Ticks, bars: readonly Bar[], closes: boolean, begins: boolean): number {
  const bar = barAt(bars, at);
  const spot = spotOf(at, bar);
  const costs = PACE_COSTS[pace];
  if (spot === 'bar') return costs.bar;
  return costs[spot] * (closes ? PACE_TERMS.closing : 1) + (begins ? 0 : PACE_TERMS.underNote);
}

function spotOf(at: Ticks, bar: Bar): Spot {
  const strength = metricStrength(offsetInBar(bar, at), bar.meter);
  return strength === 4 ? 'bar' : strength === 3 ? 'middle' : 'beat';
}

/** What a pace costs over a bar, at a tempo in quarter notes a minute: chords that follow each other too fast to be grasped cost more. */
export function barCost(pace: Pace, bar: Bar, tempo: number): number {
  const { eachBar } = PACE_COSTS[pace];
  const each = pace === 'beat' ? beatTicks(bar.meter) : pace === 'half' ? barTicks(bar.meter) / 2 : barTicks(bar.meter);
  const hurry = (PACE_TERMS.easy / toSeconds(each, tempo)) ** 2;
  return eachBar * Math.min(PACE_TERMS.most, Math.max(PACE_TERMS.least, hurry));
}
