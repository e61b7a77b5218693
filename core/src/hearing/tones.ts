import { HEARING } from './figures.js';

/** What a model of notes makes of a recording, frame by frame: for each key from the lowest, from 0 to 1, how likely it sounds and begins. */
export interface NoteScores {
  readonly sounds: Float32Array;
  readonly begins: Float32Array;
  /** Keys of a frame, the first of them as a MIDI number. */
  readonly keys: number;
  readonly lowest: number;
  /** The second at which a frame lies. */
  readonly timeOf: (frame: number) => number;
}

/** A model that hears notes of any instrument in one channel of sound at its own rate. Another one can take its place. */
export interface NoteModel {
  readonly rate: number;
  /** Tells how far it is, from 0 to 1. */
  run(samples: Float32Array, told: (share: number) => void): Promise<NoteScores>;
}

/** A note of a recording: seconds, and how sure it is, from 0 to 1. */
export interface HeardTone {
  readonly at: number;
  readonly until: number;
  readonly midi: number;
  readonly sure: number;
}

const { begins: BEGINS, sounds: SOUNDS, shortest, gap, least: LEAST, sure: SURE } = HEARING.tones;

/** True for a tone that may well be none. */
export const isUnsure = (tone: HeardTone): boolean => tone.sure < SURE;

/**
 * The notes of a recording: a key is followed from where it begins until it has not sounded for a while. The latest are taken first, so that a key
 * that is struck again ends the one before.
 */
export function tonesIn({ sounds, begins, keys, lowest, timeOf }: NoteScores): HeardTone[] {
  const frames = sounds.length / keys;
  const left = sounds.slice();
  const tones: HeardTone[] = [];
  const at = (frame: number, key: number) => frame * keys + key;
  for (let frame = frames - 2; frame >= 1; frame--)
    for (let key = keys - 1; key >= 0; key--) {
      const here = begins[at(frame, key)];
      if (here <= BEGINS || here <= begins[at(frame - 1, key)] || here <= begins[at(frame + 1, key)]) continue;
      let end = frame + 1;
      let silent = 0;
      for (; end < frames - 1 && silent < gap; end++) silent = left[at(end, key)] < SOUNDS ? silent + 1 : 0;
      end -= silent;
      if (end - frame <= shortest) continue;
      let sum = 0;
      for (let i = frame; i < end; i++) {
        sum += sounds[at(i, key)];
        // A key and what spills over to its neighbours is no other note.
        for (const k of [key - 1, key, key + 1]) if (k >= 0 && k < keys) left[at(i, k)] = 0;
      }
      const sure = Math.min(here, sum / (end - frame));
      if (sure >= LEAST) tones.push({ at: timeOf(frame), until: timeOf(end), midi: lowest + key, sure });
    }
  return tones.sort((a, b) => a.at - b.at || a.midi - b.midi);
}

/** Tones in quarter notes from a beat at or before the first of them, where one beat is a quarter. */
export function inQuarters(tones: readonly HeardTone[], tempo: number, beat: number): HeardTone[] {
  const quarter = 60 / tempo;
  const first = tones.reduce((least, t) => Math.min(least, t.at), Infinity);
  const origin = beat + Math.floor((first - beat) / quarter + 0.25) * quarter;
  return tones.map((t) => ({ ...t, at: Math.max(0, (t.at - origin) / quarter), until: (t.until - origin) / quarter }));
}
