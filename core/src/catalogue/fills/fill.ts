import type { Key } from '../../harmony/key.js';
import type { Chord } from '../../harmony/symbol.js';
import { CLEAR_OF_TUNE } from '../../left-hand/costs.js';
import { midiOf, pitchAt, pitchClass, type Pitch } from '../../pitch/pitch.js';
import { KEYBOARDS, spanOf, type FillKind, type Hands } from '../../song/decisions.js';
import type { MelodyNote } from '../../song/song.js';
import type { Meter } from '../../time/meter.js';
import type { Ticks } from '../../time/ticks.js';

/** Room for a fill: a stretch where the tune holds or rests. */
export interface FillPlace {
  readonly at: Ticks;
  readonly length: Ticks;
  /** Whole counts that are free. */
  readonly counts: number;
}

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

/** A kind of fill: what it plays at the moments of a place, or null where it does not fit. */
export interface FillMaker {
  readonly kind: Fill['kind'];
  /** Its place in the order in which fills are offered. */
  readonly order: number;
  readonly make: (task: FillTask, slots: readonly Ticks[]) => Omit<Fill, 'kind'> | null;
}

/** Pitches laid on moments, the last one lasting to the end of the room that it has. */
export function laid(pitches: readonly Pitch[], slots: readonly Ticks[], from: number, { place, before }: FillTask): FillNote[] {
  const last = before[before.length - 1];
  const step = slots.length > 1 ? slots[1] - slots[0] : place.length;
  return pitches.map((pitch, k) => {
    const at = slots[from + k];
    return { at, length: step, pitch, held: at < last.at + last.length ? last.pitch : null };
  });
}

/** Notes of the chord above a key, as far as the hand reaches from it. */
export function chordNotesAbove(chord: Chord, from: number, reach: number): Pitch[] {
  const notes: Pitch[] = [];
  for (let midi = from + 3; midi <= from + reach; midi++) {
    const tone = chord.tones.find((t) => pitchClass(t.name) === midi % 12);
    if (tone && tone.degree <= 7) notes.push(pitchAt(tone.name, midi));
  }
  return notes;
}

/** True where the hand reaches every note, together with the tune that it holds, on free keys of the keyboard. */
export function playable({ notes }: Pick<Fill, 'notes'>, { hands, left }: FillTask): boolean {
  const { low, high } = KEYBOARDS[hands.keys];
  const { comfortable } = spanOf(hands, 'right');
  const floor = Math.max(low, left + CLEAR_OF_TUNE);
  return notes.every(({ pitch, held }) => {
    const midi = midiOf(pitch);
    const apart = held === null ? 1 : Math.abs(midi - midiOf(held));
    return midi >= floor && midi <= high && apart >= 1 && apart <= comfortable;
  });
}
