import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, type Pitch } from '../pitch/pitch.js';
import type { SoundingNote } from './collisions.js';

/** A chord note that the tune plays too, an octave or more above, and that could be left out. */
export interface Doubling {
  readonly chord: VoicedChord;
  readonly left: Pitch;
  readonly right: Pitch;
}

/** Notes in a chord from which one can be spared. */
const SPARE = 4;

/**
 * Notes that both hands play for no gain: an inner or top note of a chord of four or more, struck with the same note of the tune
 * that lasts as long. Notes are in order.
 */
export function findDoublings(chords: readonly VoicedChord[], tune: readonly SoundingNote[]): Doubling[] {
  let i = 0;
  return chords.flatMap((chord): Doubling[] => {
    while (i < tune.length && tune[i].at < chord.at) i++;
    const note = tune[i];
    if (!note || note.at !== chord.at || note.length < chord.length || chord.pitches.length < SPARE || chord.restruck) return [];
    const left = chord.pitches.slice(1).find((p) => (midiOf(note.pitch) - midiOf(p)) % 12 === 0);
    return left ? [{ chord, left, right: note.pitch }] : [];
  });
}
