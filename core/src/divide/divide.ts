import type { Choices } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { firstAtOrAfter, type Bar } from '../time/bars.js';
import { barTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import { findBoundaries, type Boundary, type BoundaryFact, type BoundaryTerm } from './boundaries.js';

/** A stretch of the song, in ticks; `end` is where the next one begins. */
export interface Stretch {
  readonly start: Ticks;
  readonly end: Ticks;
  /** What speaks for beginning here and against it; empty for the start of the song. */
  readonly reasons: readonly BoundaryFact[];
}

/** Figures for the three sizes of part: bars aimed at, notes a hand can hold in mind, bars past which a part is long. */
const PART_SIZES = {
  smaller: { bars: 2, notes: 9, longest: 2 },
  usual: { bars: 4, notes: 16, longest: 4 },
  larger: { bars: 8, notes: 32, longest: 8 },
} as const;

/** What a part costs by its own size, against the strength of the boundaries it is cut at. */
const PART_COSTS = {
  /** Squared share of the bars it misses its aim by. */
  lengthFit: 3.5,
  /** For each bar over the longest. */
  barOver: 1,
  /** For each note over what is held in mind: enough for a cut where the tune breathes. */
  noteOver: 0.4,
  /** For each note short of four. */
  noteShort: 0.5,
  /** For every cut: keeps weak boundaries from being used. */
  cut: 1.6,
} as const;

const FEWEST_NOTES = 4;

interface Place {
  readonly at: Ticks;
  readonly strength: number;
  readonly notesBefore: number;
  readonly terms: readonly BoundaryTerm[];
}

/**
 * Divides the song into numbered parts: the exact minimum of {@link PART_COSTS} less the boundary strengths,
 * around the parts that the pianist made. The parts tile the song.
 */
export function divide(song: Song, bars: readonly Bar[], choices: Pick<Choices, 'partSize' | 'parts'>): Stretch[] {
  const boundaries = findBoundaries(song, bars);
  const fixed = choices.parts.filter((p) => p.start < p.end && p.end <= song.length).sort((a, b) => a.start - b.start);
  const stretches: Stretch[] = [];
  let at = 0;
  for (const part of [...fixed, { start: song.length, end: song.length }]) {
    if (part.start < at) continue;
    if (part.start > at) stretches.push(...divideGap(song, boundaries, at, part.start, choices.partSize));
    if (part.end > part.start) stretches.push({ ...part, reasons: [{ code: 'boundary.yours' }] });
    at = part.end;
  }
  return stretches;
}

/** The places of a gap: its start, the boundaries inside, its end. */
export function placesOf(song: Song, boundaries: readonly Boundary[], start: Ticks, end: Ticks): Place[] {
  const before = (at: Ticks) => firstAtOrAfter(song.melody, at);
  const edge = (at: Ticks) => ({ at, strength: 0, notesBefore: before(at), terms: [] });
  return [edge(start), ...boundaries.filter((b) => b.at > start && b.at < end), edge(end)];
}

function divideGap(song: Song, boundaries: readonly Boundary[], start: Ticks, end: Ticks, size: Choices['partSize']): Stretch[] {
  const places = placesOf(song, boundaries, start, end);
  const bar = barTicks(song.meters[0]);
  const widest = PART_SIZES[size].bars * 4 * bar;
  const best = [0];
  const from = [0];
  for (let j = 1; j < places.length; j++) {
    best[j] = Infinity;
    for (let i = j - 1; i >= 0; i--) {
      // A part four times its aim never wins against a cut; the nearest place is always tried.
      if (places[j].at - places[i].at > widest && i < j - 1) break;
      const cost = best[i] + stretchCost(places[i], places[j], bar, size);
      if (cost < best[j]) {
        best[j] = cost;
        from[j] = i;
      }
    }
  }
  const cuts: number[] = [];
  for (let j = places.length - 1; j > 0; j = from[j]) cuts.unshift(j);
  return cuts.map((j) => ({ start: places[from[j]].at, end: places[j].at, reasons: factsOf(places[from[j]]) }));
}

/** The signs at a place, the strongest first. */
function factsOf({ terms }: Place): BoundaryFact[] {
  return terms.toSorted((a, b) => b.worth - a.worth).map((t) => ({ code: 'boundary.sign', ...t }));
}

/** What a part between two places is charged for by its size: the strength of the boundary at its end is taken off. */
export interface PartTerm {
  readonly term: 'lengthFit' | 'barOver' | 'noteOver' | 'noteShort' | 'cut';
  readonly cost: number;
}

/** The cost of one part between two places, the boundary at its end included. */
export function stretchCost(start: Place, end: Place, bar: Ticks, size: Choices['partSize']): number {
  return sizeTerms(start, end, bar, size).reduce((sum, t) => sum + t.cost, 0) - end.strength;
}

function sizeTerms(start: Place, end: Place, bar: Ticks, size: Choices['partSize']): PartTerm[] {
  const { bars: aim, notes: most, longest } = PART_SIZES[size];
  const bars = (end.at - start.at) / bar;
  const notes = end.notesBefore - start.notesBefore;
  return [
    { term: 'lengthFit', cost: PART_COSTS.lengthFit * ((bars - aim) / aim) ** 2 },
    { term: 'barOver', cost: PART_COSTS.barOver * Math.max(0, bars - longest - 0.5) },
    { term: 'noteOver', cost: PART_COSTS.noteOver * Math.max(0, notes - most) },
    { term: 'noteShort', cost: PART_COSTS.noteShort * Math.max(0, FEWEST_NOTES - notes) },
    { term: 'cut', cost: PART_COSTS.cut },
  ];
}

/** A cut of the search: what speaks for it and against it, what its part costs by its size, and what the song would cost more without it. */
export interface ExplainedCut {
  readonly at: Ticks;
  readonly signs: readonly BoundaryTerm[];
  readonly size: readonly PartTerm[];
  readonly more: number;
  /** Where the song would be cut in its stead, nearest to it; null where it would not be cut. */
  readonly instead: Ticks | null;
}

/** Why a part begins at a place; null where the pianist cut there, or nothing is cut. */
export function explainCut(
  song: Song,
  bars: readonly Bar[],
  choices: Pick<Choices, 'partSize' | 'parts'>,
  at: Ticks,
): ExplainedCut | null {
  const cuts = divide(song, bars, choices);
  const index = cuts.findIndex((c) => c.start === at);
  if (index <= 0 || cuts[index].reasons.some((r) => r.code === 'boundary.yours')) return null;
  const all = findBoundaries(song, bars);
  const boundary = all.find((b) => b.at === at);
  const fixed = choices.parts.filter((p) => p.start < p.end && p.end <= song.length);
  if (!boundary || fixed.some((p) => p.start === at || p.end === at)) return null;
  const from = Math.max(0, ...fixed.filter((p) => p.end <= at).map((p) => p.end));
  const to = Math.min(song.length, ...fixed.filter((p) => p.start > at).map((p) => p.start));
  const priced = (among: readonly Boundary[]) => {
    const parts = divideGap(song, among, from, to, choices.partSize);
    const places = placesOf(song, among, from, to);
    const place = (tick: Ticks) => places.find((p) => p.at === tick) as Place;
    const bar = barTicks(song.meters[0]);
    return { parts, cost: parts.reduce((sum, p) => sum + stretchCost(place(p.start), place(p.end), bar, choices.partSize), 0) };
  };
  const without = priced(all.filter((b) => b.at !== at));
  const others = without.parts.map((p) => p.start).filter((s) => s > from && !cuts.some((c) => c.start === s));
  const places = placesOf(song, all, from, to);
  const [start, end] = [at, cuts[index].end].map((tick) => places.find((p) => p.at === tick) as Place);
  return {
    at,
    signs: boundary.terms,
    size: sizeTerms(start, end, barTicks(song.meters[0]), choices.partSize),
    more: without.cost - priced(all).cost,
    instead: others.length > 0 ? others.reduce((a, b) => (Math.abs(b - at) < Math.abs(a - at) ? b : a)) : null,
  };
}
