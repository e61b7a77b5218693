import type { Arrangement } from '@joined-hands/core/arrange';
import { midiOf } from '@joined-hands/core/pitch';
import { TICKS_PER_QUARTER as Q } from '@joined-hands/core/time';
import type { StripMark } from '../../ui/join-strip/join-strip';

/** A note as it was heard, in quarter notes, and whether it was heard clearly. */
interface Heard {
  readonly at: number;
  readonly midi: number;
  readonly unsure: boolean;
}

/** Ticks within which a note of the song is the one that was heard: it was moved to the grid. */
const NEAR = Q / 2;

/** Marks at what was not heard clearly: the note of the melody that it became, or the chord in which it sounds. */
export function unsureMarks(heard: readonly Heard[], { song, parts }: Pick<Arrangement, 'song' | 'parts'>): StripMark[] {
  if (heard.length === 0 || song.melody.length === 0) return [];
  const chords = parts.flatMap((p) => p.chords.map((c) => c.at));
  // Silence before the first bar may have been taken off.
  const [first] = song.melody;
  const tune = heard.find((h) => h.midi % 12 === midiOf(first.pitch) % 12) ?? heard[0];
  const shift = first.at - Math.round(tune.at * Q);
  const marks = new Map<string, StripMark>();
  for (const { at, midi, unsure } of heard) {
    if (!unsure) continue;
    const ticks = Math.round(at * Q) + shift;
    const near = song.melody
      .filter((n) => midiOf(n.pitch) % 12 === midi % 12 && Math.abs(n.at - ticks) <= NEAR)
      .sort((a, b) => Math.abs(a.at - ticks) - Math.abs(b.at - ticks))
      .at(0);
    const chord = chords.findLast((c) => c <= ticks + NEAR);
    const mark: StripMark | null = near
      ? { hand: 'right', place: near.at, verdict: 'unsure' }
      : chord === undefined
        ? null
        : { hand: 'left', place: chord, verdict: 'unsure' };
    if (mark) marks.set(`${mark.hand} ${mark.place}`, mark);
  }
  return [...marks.values()];
}
