import { midiOf, pitchClass, type Pitch } from '../pitch/pitch.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import { scaleOf, type Key } from './key.js';
import type { Chord } from './symbol.js';
import { remembered } from '../lists/remembered.js';

/** A note of the tune. Notes are in order and do not overlap. */
export interface TuneNote {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
}

/** How much each note of the tune asks to be in the chord: by its beats, where it falls, and whether it only passes. */
const FIT = {
  /** Added to each beat for each grade of metric strength (0–4) of the note's onset. */
  strength: 0.75,
  /** A note that sounds on from before weighs this much. */
  heldOver: 0.8,
  /** A short note that comes or goes by step between the strong places. */
  passing: 0.3,
  /** A note of a beat or less between two steps the same way, off the first count: it passes too, if more slowly. */
  between: 0.6,
  /** A note of a strong place that is struck again there and then falls by step. */
  suspended: 0.35,
  /** A note of a strong place that is leapt to and leans by step, the other way, on one as long: an appoggiatura. */
  leaning: 0.6,
  /** For each weighted beat outside the chord; a half step above one of its notes it grates. */
  outside: 1,
  grating: 1.6,
  /** For each weighted beat outside the scale of the key. */
  offScale: 0.5,
} as const;

/** A stretch under one chord: what the tune weighs there, for each pitch class. */
export interface Slot {
  readonly from: Ticks;
  readonly to: Ticks;
  readonly weights: Float64Array;
}

/** Half steps that count as a step. */
export const STEP = 2;

/** True where the tune goes from one note to another by more than a step. */
export const isLeap = (from: TuneNote, to: TuneNote): boolean => Math.abs(midiOf(to.pitch) - midiOf(from.pitch)) > STEP;

/** True for a note that only passes: shorter than a beat, off the strong places, and next to a neighbour by step. */
export function isPassing(tune: readonly TuneNote[], i: number, bars: readonly Bar[]): boolean {
  const note = tune[i];
  const bar = barAt(bars, note.at);
  if (note.length >= beatTicks(bar.meter) || metricStrength(offsetInBar(bar, note.at), bar.meter) >= 3) return false;
  const midi = midiOf(note.pitch);
  const near = (other: TuneNote | undefined) => other !== undefined && Math.abs(midiOf(other.pitch) - midi) <= STEP;
  return near(tune[i - 1]) || near(tune[i + 1]);
}

/** True for a note inside a figure: it and the one before it are shorter than a beat, and the line goes through it by step. */
export function isInsideRun(tune: readonly TuneNote[], i: number, bars: readonly Bar[]): boolean {
  const [before, note, after] = [tune[i - 1], tune[i], tune[i + 1]];
  if (!before || !after) return false;
  const beat = beatTicks(barAt(bars, note.at).meter);
  const apart = (a: TuneNote, b: TuneNote) => Math.abs(midiOf(a.pitch) - midiOf(b.pitch));
  return before.length < beat && note.length < beat && apart(before, note) <= STEP && apart(note, after) <= STEP;
}

/** What each note of the tune weighs for each beat that it sounds. */
function noteWeights(tune: readonly TuneNote[], bars: readonly Bar[]): Float64Array {
  return Float64Array.from(tune, (note, i) => {
    const bar = barAt(bars, note.at);
    const strength = metricStrength(offsetInBar(bar, note.at), bar.meter);
    const figure = isPassing(tune, i, bars) ? FIT.passing : figured(tune, i, strength, beatTicks(bar.meter));
    return (1 + FIT.strength * strength) * figure;
  });
}

/** What is left of the weight of a note that figures in its line without belonging to the chord for sure; 1 for all others. */
function figured(tune: readonly TuneNote[], i: number, strength: number, beat: Ticks): number {
  const [before, note, after] = [tune[i - 1], tune[i], tune[i + 1]];
  if (!before || !after || note.length > 2 * beat || after.at > note.at + note.length) return 1;
  const from = midiOf(note.pitch) - midiOf(before.pitch);
  const to = midiOf(after.pitch) - midiOf(note.pitch);
  const steps = (by: number) => by !== 0 && Math.abs(by) <= STEP;
  if (note.length <= beat && strength < 4 && steps(from) && steps(to) && from > 0 === to > 0) return FIT.between;
  if (strength < 3 || !steps(to) || after.length < note.length) return 1;
  if (from === 0) return to < 0 ? FIT.suspended : 1;
  return note.length <= beat && Math.abs(from) > STEP && from > 0 !== to > 0 ? FIT.leaning : 1;
}

/** Weighs the tune in stretches that are in order and do not overlap. */
export function weighSlots(
  tune: readonly TuneNote[],
  bars: readonly Bar[],
  stretches: readonly { readonly from: Ticks; readonly to: Ticks }[],
): Slot[] {
  const each = noteWeights(tune, bars);
  let first = 0;
  return stretches.map(({ from, to }) => {
    const weights = new Float64Array(12);
    while (first < tune.length && tune[first].at + tune[first].length <= from) first++;
    for (let i = first; i < tune.length && tune[i].at < to; i++) {
      const { at, length, pitch } = tune[i];
      const beats = (Math.min(to, at + length) - Math.max(from, at)) / beatTicks(barAt(bars, at).meter);
      weights[midiOf(pitch) % 12] += beats * each[i] * (at < from ? FIT.heldOver : 1);
    }
    return { from, to, weights };
  });
}

/** What a weighted beat of each pitch class costs over a chord: nothing for its own notes, most a half step above one. */
export const misfitOf: (chord: Chord) => Float64Array = remembered(
  4000,
  (chord) => chord.text,
  ({ tones, bass }) => {
    const inside = new Set([...tones.map((t) => pitchClass(t.name)), ...(bass ? [pitchClass(bass)] : [])]);
    return Float64Array.from({ length: 12 }, (_, pc) =>
      inside.has(pc) ? 0 : inside.has((pc + 11) % 12) ? FIT.grating : FIT.outside,
    );
  },
);

/** What a weighted beat of each pitch class costs in a key; a minor key also owns its raised sixth and seventh. */
export function offScaleOf(key: Key): Float64Array {
  const scale = new Set(scaleOf(key).map(pitchClass));
  if (key.mode === 'minor') for (const up of [9, 11]) scale.add((pitchClass(key.tonic) + up) % 12);
  return Float64Array.from({ length: 12 }, (_, pc) => (scale.has(pc) ? 0 : FIT.offScale));
}

/** The sum of weights times costs. */
export function weigh(weights: Float64Array, costs: Float64Array): number {
  let sum = 0;
  for (let pc = 0; pc < 12; pc++) sum += weights[pc] * costs[pc];
  return sum;
}
