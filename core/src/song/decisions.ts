import { z } from 'zod';
import { isPitch } from '../pitch/pitch.js';
import { SongSchema } from './song.js';

const ticks = z.number().int().min(0);
const pitch = z.string().refine(isPitch, { message: 'is not a pitch' });

/** A stretch that the pianist made one part. Stretches never overlap; the rest of the song is divided around them. */
const PartChoice = z.object({ start: ticks, end: ticks.min(1) });

/**
 * What the pianist decided. Nothing else is stored: all that is not here is computed again whenever anything
 * changes, and what is here is never overridden silently.
 */
export const ChoicesSchema = z.object({
  partSize: z.enum(['smaller', 'usual', 'larger']).default('usual'),
  parts: z.array(PartChoice).default([]),
  names: z.array(z.object({ at: ticks, name: z.string().min(1).max(80) })).default([]),
  chords: z.array(z.object({ at: ticks, symbol: z.string().min(1).max(40) })).default([]),
  pins: z.array(z.object({ at: ticks, pitches: z.array(pitch).min(1).max(5) })).default([]),
});

export const HAND_PROFILES = ['child', 'small', 'medium', 'large'] as const;
export const KEYBOARD_SIZES = [49, 61, 76, 88] as const;

/** Who plays, on which keyboard. */
export const HandsSchema = z.object({
  profile: z.enum(HAND_PROFILES).default('medium'),
  keys: z.union([z.literal(49), z.literal(61), z.literal(76), z.literal(88)]).default(88),
});

/** The document: a song, the choices made on it and the hands that play it. Saved data carries its version. */
export const DocumentSchema = z.object({
  version: z.literal(1),
  song: SongSchema,
  choices: ChoicesSchema,
  hands: HandsSchema,
});

export type Choices = z.infer<typeof ChoicesSchema>;
export type Hands = z.infer<typeof HandsSchema>;
export type HandProfile = Hands['profile'];
export type KeyboardSize = Hands['keys'];
export type Document = z.infer<typeof DocumentSchema>;

/** Comfortable and greatest span of one hand, lowest to highest key, in semitones. */
export const SPANS: Record<HandProfile, { readonly comfortable: number; readonly limit: number }> = {
  child: { comfortable: 7, limit: 10 },
  small: { comfortable: 10, limit: 12 },
  medium: { comfortable: 12, limit: 14 },
  large: { comfortable: 14, limit: 16 },
};

/** Lowest and highest key of each keyboard, as MIDI numbers. */
export const KEYBOARDS: Record<KeyboardSize, { readonly low: number; readonly high: number }> = {
  49: { low: 36, high: 84 },
  61: { low: 36, high: 96 },
  76: { low: 28, high: 103 },
  88: { low: 21, high: 108 },
};

/** No choices made. */
export function noChoices(): Choices {
  return { partSize: 'usual', parts: [], names: [], chords: [], pins: [] };
}

/** A document for a song that was just brought in. */
export function newDocument(song: Document['song'], hands: Hands = { profile: 'medium', keys: 88 }): Document {
  return { version: 1, song, choices: noChoices(), hands };
}
