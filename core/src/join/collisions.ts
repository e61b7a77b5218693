import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, type Pitch } from '../pitch/pitch.js';
import type { HandPlace } from '../right-hand/positions.js';
import type { Ticks } from '../time/ticks.js';

/**
 * Two hands in each other's way: on one key, crossed, closer than a small third, or the left hand in the space that the right
 * one's fingers lie over.
 */
export interface Collision {
  readonly at: Ticks;
  readonly kind: 'same-key' | 'crossing' | 'close' | 'space';
  readonly left: Pitch;
  readonly right: Pitch;
  readonly chord: VoicedChord;
}

/** A note of the right hand. */
export interface SoundingNote {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
}

const CLOSE = 3;

/** Every place where a sounding left-hand note meets the right hand; one, the worst, for each chord. Notes are in order. */
export function findCollisions(chords: readonly VoicedChord[], right: readonly SoundingNote[]): Collision[] {
  const found: Collision[] = [];
  let from = 0;
  for (const chord of chords) {
    // What was written for a hand may come before the first chord and outlast its own.
    const start = Math.min(chord.at, ...chord.struck.map((s) => s.at));
    const end = Math.max(chord.at + chord.length, ...chord.struck.map((s) => s.at + s.length));
    while (from < right.length && right[from].at + right[from].length <= start) from++;
    const lefts = chord.struck.map((s) => ({ ...s, midi: midiOf(s.pitch) }));
    let worst: (Collision & { gap: number }) | null = null;
    for (let i = from; i < right.length && right[i].at < end; i++) {
      const note = right[i];
      for (const left of lefts) {
        const gap = midiOf(note.pitch) - left.midi;
        if (gap >= CLOSE || note.at >= left.at + left.length || left.at >= note.at + note.length) continue;
        const kind = gap === 0 ? 'same-key' : gap < 0 ? 'crossing' : 'close';
        const graver = worst === null || rank(kind) > rank(worst.kind) || (kind === worst.kind && gap < worst.gap);
        if (!graver) continue;
        worst = { at: Math.max(note.at, left.at), kind, left: left.pitch, right: note.pitch, chord, gap };
      }
    }
    if (worst) {
      const { gap: _gap, ...collision } = worst;
      found.push(collision);
    }
  }
  return found;
}

/** Chords whose keys reach into the place where the right hand lies, though no two notes meet. Places are in order. */
export function findCrowding(chords: readonly VoicedChord[], places: readonly HandPlace[]): Collision[] {
  let from = 0;
  return chords.flatMap((chord): Collision[] => {
    const end = chord.at + chord.length;
    while (from < places.length && places[from].end <= chord.at) from++;
    const left = chord.pitches[chord.pitches.length - 1];
    for (let i = from; i < places.length && places[i].start < end; i++) {
      const { start, thumb } = places[i];
      if (midiOf(left) >= midiOf(thumb)) return [{ at: Math.max(start, chord.at), kind: 'space', left, right: thumb, chord }];
    }
    return [];
  });
}

const rank = (kind: Collision['kind']): number => ['space', 'close', 'crossing', 'same-key'].indexOf(kind);
