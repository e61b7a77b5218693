import * as z from 'zod';
import '../zod.js';

/**
 * What one attack of a texture plays, as degrees of the chord counted up from its root in the bass: "1", "5", "8", "10" (the third an
 * octave up) … with "5," for the fifth below the root; "c" the whole chord as it is voiced, "u" the same over a bass that was struck, "b" its lowest note and "r" the rest; "p" the
 * pedal note, the tonic that stays while chords change; "w" a step that leads to the next chord's bass; several joined with "+".
 * "^" before an attack has a small note a half step below its highest key; "-" holds what sounds, "." lets it go.
 */
const TEXTURE_TOKEN = /^(-|\.|w|\^?(?:c|u|b|r|p|5,|1|3|5|7|8|9|10|12|14)(?:\+(?:1|3|5|7|8|9|10|12|14))*)$/;

/** One meter's pattern: tokens that divide its bars evenly, a bar after another where it is longer than one. */
const Pattern = z.object({
  meter: z.string().regex(/^\d{1,2}\/(1|2|4|8|16)$/),
  /** Bars that it fills, each with as many tokens as the others, "|" between them. */
  steps: z.string().max(2000).refine(readable, { message: 'unreadable-steps' }),
});

/** An accompaniment texture: what the left hand makes of a chord, meter by meter. */
export const TextureSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]{1,40}$/),
  title: z.string().min(1).max(60),
  /** From 1, the quietest, to 5, the liveliest. */
  energy: z.number().int().min(1).max(5),
  patterns: z.array(Pattern).min(1).max(40),
});

export type Texture = z.infer<typeof TextureSchema>;

/** The bars of a pattern, each as its tokens. */
export function barsOf(steps: string): string[][] {
  return steps.split('|').map((bar) => bar.trim().split(/\s+/));
}

function readable(steps: string): boolean {
  const bars = barsOf(steps);
  return bars.every((bar) => bar.length === bars[0].length && bar.every((t) => TEXTURE_TOKEN.test(t)));
}
