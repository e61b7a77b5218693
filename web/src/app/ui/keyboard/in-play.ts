import type { Part } from '@joined-hands/core/arrange';
import { midiOf } from '@joined-hands/core/pitch';

/** The lowest and the highest key that a part asks for, and some others beside it, as MIDI numbers; null where there are none. */
export function keysInPlay(part: Part, others: readonly string[] = []): readonly [low: number, high: number] | null {
  const pitches = [
    ...part.chords.flatMap((c) => c.pitches),
    ...part.melody.map((n) => n.pitch),
    ...part.under.flatMap((u) => u.pitches),
    ...others,
  ];
  const keys = pitches.map(midiOf);
  return keys.length === 0 ? null : [Math.min(...keys), Math.max(...keys)];
}
