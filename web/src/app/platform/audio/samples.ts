import { midiOf } from '@joined-hands/core/pitch';

/** Sampled notes of the piano: every third key from A0 to C8. */
export const SAMPLED: readonly string[] = [
  'A0',
  ...[1, 2, 3, 4, 5, 6, 7].flatMap((octave) => ['C', 'D#', 'F#', 'A'].map((name) => `${name}${octave}`)),
  'C8',
];

/** Seconds in which a key that is let go dies away. */
export const RELEASE = 0.6;

/** The sampled key that is nearest to a key. */
export const nearest = <T extends { readonly midi: number }>(sampled: readonly T[], midi: number): T =>
  sampled.reduce((best, s) => (Math.abs(s.midi - midi) < Math.abs(best.midi - midi) ? s : best));

/** The sampled keys that sounds need, each once. */
export function samplesNeeded(midis: readonly (number | null)[]): readonly { readonly name: string; readonly midi: number }[] {
  const all = SAMPLED.map((name) => ({ name, midi: midiOf(name) }));
  const needed = new Set(midis.flatMap((midi) => (midi === null ? [] : [nearest(all, midi)])));
  return all.filter((s) => needed.has(s));
}

/** Where the samples lie, and the file of each. */
export const SAMPLES_AT = 'samples/piano/';
export const sampleFile = (name: string): string => `${name.replace('#', 's')}.mp3`;
