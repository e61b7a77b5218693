import { parseChord, type Chord } from '../harmony/symbol.js';
import type { Key } from '../harmony/key.js';
import { CLEAR_OF_TUNE } from '../left-hand/costs.js';
import { midiOf, octaveUp, pitchAt, pitchClass, type Pitch } from '../pitch/pitch.js';
import { stepsFrom } from '../right-hand/positions.js';
import { KEYBOARDS, spanOf, type FillKind, type Hands } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import type { Meter } from '../time/meter.js';
import { countTicks } from '../time/meter.js';
import { toSeconds, type Ticks } from '../time/ticks.js';
import type { FillPlace } from './places.js';

/** A note of a fill, played by the right hand while it holds the tune or the tune rests. */
export interface FillNote {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  /** The note of the tune that is held meanwhile, or null. */
  readonly held: Pitch | null;
}

/** What a fill is made of. */
export type FillFact =
  | { readonly code: 'fill.broken'; readonly symbol: string; readonly from: Pitch }
  | { readonly code: 'fill.echo'; readonly notes: readonly Pitch[]; readonly higher: boolean }
  | { readonly code: 'fill.walk'; readonly to: Pitch }
  | { readonly code: 'fill.turn'; readonly around: Pitch };

/** What may be played at a place, and why it fits there. */
export interface Fill {
  readonly kind: Exclude<FillKind, 'none'>;
  readonly notes: readonly FillNote[];
  readonly why: FillFact;
}

/** Where a fill is to be found, and what surrounds it. */
export interface FillTask {
  readonly place: FillPlace;
  /** The tune up to the place, the note that leaves the room last. */
  readonly before: readonly MelodyNote[];
  readonly next: MelodyNote | null;
  readonly chord: string;
  readonly meter: Meter;
  readonly key: Key;
  readonly hands: Hands;
  /** Quarter notes a minute. */
  readonly tempo: number;
  /** The highest key of the left hand meanwhile, as a MIDI number. */
  readonly left: number;
}

/** Shortest time for a note of a fill, in seconds: fills are simple. */
const QUICKEST = 0.17;

/** Most notes of a fill. */
const MOST = 8;

/** Notes of the tune that are echoed. */
const ECHOED = 3;

/**
 * The fills that this hand can play at a place: a broken chord going up, an echo of the last notes, a walk to the next note, a turn.
 * While the tune is held its key stays down, so that every fill lies in one hand together with it; none enters the left
 * hand's space or leaves the keyboard.
 */
export function fillOffers(task: FillTask): Fill[] {
  const slots = slotsOf(task);
  const found = [brokenChord(task, slots), echo(task, slots), walk(task, slots), turn(task, slots)];
  return found.filter((f): f is Fill => f !== null && playable(f, task));
}

/** Moments in a place at which a note may be struck: half counts, or counts where those are too quick. */
function slotsOf({ place, meter, tempo }: FillTask): Ticks[] {
  const count = countTicks(meter);
  const half = meter.unit < 8 && toSeconds(count / 2, tempo) >= QUICKEST ? count / 2 : count;
  return Array.from({ length: Math.floor(place.length / half) }, (_, k) => place.at + k * half);
}

/** Pitches laid on moments, the last one lasting to the end of the room that it has. */
function laid(pitches: readonly Pitch[], slots: readonly Ticks[], from: number, { place, before }: FillTask): FillNote[] {
  const last = before[before.length - 1];
  const step = slots.length > 1 ? slots[1] - slots[0] : place.length;
  return pitches.map((pitch, k) => {
    const at = slots[from + k];
    return { at, length: step, pitch, held: at < last.at + last.length ? last.pitch : null };
  });
}

/** Notes of the chord above a key, as far as the hand reaches from it. */
function chordNotesAbove(chord: Chord, from: number, reach: number): Pitch[] {
  const notes: Pitch[] = [];
  for (let midi = from + 3; midi <= from + reach; midi++) {
    const tone = chord.tones.find((t) => pitchClass(t.name) === midi % 12);
    if (tone && tone.degree <= 7) notes.push(pitchAt(tone.name, midi));
  }
  return notes;
}

function brokenChord(task: FillTask, slots: readonly Ticks[]): Fill | null {
  const chord = parseChord(task.chord);
  const last = task.before[task.before.length - 1];
  if (chord.kind !== 'chord' || slots.length < 2) return null;
  const notes = chordNotesAbove(chord, midiOf(last.pitch), spanOf(task.hands, 'right').comfortable);
  if (notes.length < 2) return null;
  // Up, and back down where there is time for more; the last moment is left free for the tune to breathe.
  const wave = [...notes, ...notes.slice(1, -1).reverse()];
  const most = Math.min(MOST, slots.length, Math.max(notes.length, slots.length - 1));
  const row = Array.from({ length: most }, (_, k) => wave[k % wave.length]);
  return {
    kind: 'broken',
    notes: laid(row, slots, 0, task),
    why: { code: 'fill.broken', symbol: chord.text, from: last.pitch },
  };
}

function echo(task: FillTask, slots: readonly Ticks[]): Fill | null {
  const sung = task.before.slice(-ECHOED).map((n) => n.pitch);
  if (sung.length < 2 || slots.length < sung.length) return null;
  for (const octaves of [1, -1]) {
    const fill: Fill = {
      kind: 'echo',
      notes: laid(
        sung.map((p) => octaveUp(p, octaves)),
        slots,
        0,
        task,
      ),
      why: { code: 'fill.echo', notes: sung, higher: octaves > 0 },
    };
    if (playable(fill, task)) return fill;
  }
  return null;
}

function walk(task: FillTask, slots: readonly Ticks[]): Fill | null {
  const { next, before, key } = task;
  if (!next || slots.length < 1) return null;
  const from = midiOf(before[before.length - 1].pitch);
  const to = midiOf(next.pitch);
  const up = to > from;
  const steps: Pitch[] = [];
  for (let k = 1; k <= Math.min(4, slots.length); k++) {
    const pitch = stepsFrom(next.pitch, up ? -k : k, key);
    // Only what lies on the way; beside the next note one step from the far side will do.
    if (up ? midiOf(pitch) <= from : midiOf(pitch) <= to || (to < from && midiOf(pitch) >= from)) break;
    steps.unshift(pitch);
  }
  if (steps.length === 0) steps.push(stepsFrom(next.pitch, up ? 1 : -1, key));
  return {
    kind: 'walk',
    notes: laid(steps, slots, slots.length - steps.length, task),
    why: { code: 'fill.walk', to: next.pitch },
  };
}

function turn(task: FillTask, slots: readonly Ticks[]): Fill | null {
  const chord = parseChord(task.chord);
  const last = task.before[task.before.length - 1];
  if (chord.kind !== 'chord' || slots.length < 4) return null;
  const free = last.at + last.length <= task.place.at;
  const middle = free ? last.pitch : chordNotesAbove(chord, midiOf(last.pitch), spanOf(task.hands, 'right').comfortable - 2)[0];
  if (!middle) return null;
  const [above, below] = [stepsFrom(middle, 1, task.key), stepsFrom(middle, -1, task.key)];
  return {
    kind: 'turn',
    notes: laid([middle, above, middle, below, middle].slice(0, Math.min(5, slots.length)), slots, 0, task),
    why: { code: 'fill.turn', around: middle },
  };
}

/** True where the hand reaches every note, together with the tune that it holds, on free keys of the keyboard. */
function playable({ notes }: Fill, { hands, left }: FillTask): boolean {
  const { low, high } = KEYBOARDS[hands.keys];
  const { comfortable } = spanOf(hands, 'right');
  const floor = Math.max(low, left + CLEAR_OF_TUNE);
  return notes.every(({ pitch, held }) => {
    const midi = midiOf(pitch);
    const apart = held === null ? 1 : Math.abs(midi - midiOf(held));
    return midi >= floor && midi <= high && apart >= 1 && apart <= comfortable;
  });
}
