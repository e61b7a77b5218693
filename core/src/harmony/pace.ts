import { barAt, firstAtOrAfter, offsetInBar, type Bar } from '../time/bars.js';
import { barTicks, beatTicks, metricStrength } from '../time/meter.js';
import { toSeconds, type Ticks } from '../time/ticks.js';
import { isInsideRun, isLeap, type TuneNote } from './fit.js';
import type { HarmonicRhythm } from './wishes.js';

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
  /** A chord that comes while a note of the tune goes on, and one that comes inside a run of quick steps, other than on a bar line. */
  underNote: 0.6,
  insideRun: 0.4,
  /** A chord that comes with a note that is leapt to is that much cheaper: leaps go from chord note to chord note. */
  byLeap: 0.1,
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

/** What the tune does at a place: a note begins there, is leapt to, or goes on, or a run of quick steps passes through. */
export type TuneThere = 'begins' | 'leaps' | 'goes-on' | 'runs';

/** What that adds to a change elsewhere than on a bar line; a run passes through the beats of a bar, and may well turn at its middle. */
const thereCost = (there: TuneThere, spot: Spot): number => {
  switch (there) {
    case 'begins':
      return 0;
    case 'leaps':
      return -PACE_TERMS.byLeap;
    case 'goes-on':
      return PACE_TERMS.underNote;
    case 'runs':
      return spot === 'beat' ? PACE_TERMS.insideRun : 0;
  }
};

/** What the tune does at a place. */
export function tuneThere(tune: readonly TuneNote[], at: Ticks, bars: readonly Bar[]): TuneThere {
  const i = firstAtOrAfter(tune, at);
  if (tune[i]?.at !== at) return 'goes-on';
  if (isInsideRun(tune, i, bars)) return 'runs';
  return i > 0 && isLeap(tune[i - 1], tune[i]) ? 'leaps' : 'begins';
}

/** What a change at a place costs at a pace. */
export function changeCost(pace: Pace, at: Ticks, bars: readonly Bar[], closes: boolean, there: TuneThere): number {
  const bar = barAt(bars, at);
  const spot = spotOf(at, bar);
  const costs = PACE_COSTS[pace];
  if (spot === 'bar') return costs.bar;
  return costs[spot] * (closes ? PACE_TERMS.closing : 1) + thereCost(there, spot);
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

/** A tune, divided, at a tempo in quarter notes a minute. */
export interface PacedTune {
  readonly tune: readonly TuneNote[];
  readonly bars: readonly Bar[];
  readonly tempo: number;
  /** Where parts end, in order. */
  readonly ends: readonly Ticks[];
}

/** How often the chords of a part change, and what a change at one of its places costs for it. */
export interface PartPace {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly pace: (typeof PACES)[number];
  readonly change: (at: Ticks) => number;
}

/** The pace of every part at which the chords that stand in it cost the least. */
export function pacesOfParts({ tune, bars, tempo, ends }: PacedTune, chords: readonly { readonly at: Ticks }[]): PartPace[] {
  // What the tune does at a place is the same at every pace.
  const known = new Map<Ticks, TuneThere>();
  const there = (at: Ticks): TuneThere => {
    const found = known.get(at) ?? tuneThere(tune, at, bars);
    known.set(at, found);
    return found;
  };
  return ends.map((end, part) => {
    const start = ends[part - 1] ?? 0;
    const within = bars.filter((b) => b.start < end && b.end > start && b.number > 0);
    const inside = chords.filter((c) => c.at >= start && c.at < end).map((c) => c.at);
    const last = inside[inside.length - 1] ?? start;
    const change = (pace: Pace) => (at: Ticks) =>
      changeCost(pace, at, bars, at > last - barTicks(barAt(bars, at).meter), there(at));
    const cost = (pace: Pace) =>
      within.reduce((sum, bar) => sum + barCost(pace, bar, tempo), 0) +
      inside.reduce((sum, at) => (at === 0 ? sum : sum + change(pace)(at)), 0);
    const pace = PACES.reduce((best, next) => (cost(next) < cost(best) - 1e-9 ? next : best));
    return { start, end, pace, change: change(pace) };
  });
}
