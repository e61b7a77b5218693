import type { VoicedChord } from '../left-hand/voice.js';
import { firstAtOrAfter } from '../time/bars.js';
import { heldFor, type ShortTouch } from '../song/touch.js';
import type { Ticks } from '../time/ticks.js';

/** A move of the right pedal: pressed, lifted and pressed again at once, or lifted. */
export interface PedalPoint {
  readonly at: Ticks;
  readonly kind: 'press' | 'change' | 'lift';
}

/**
 * The pedal where it is wished for: pressed with the first chord, lifted and pressed again wherever the chord changes, lifted where
 * the left hand rests, where it is wished for no more, and at the end.
 */
export function pedalPoints(
  chords: readonly Pick<VoicedChord, 'at' | 'length' | 'symbol'>[],
  wishedAt: (at: Ticks) => boolean,
): PedalPoint[] {
  const points: PedalPoint[] = [];
  let down: { readonly symbol: string; readonly until: Ticks } | null = null;
  for (const { at, length, symbol } of chords) {
    if (down && down.until < at) {
      points.push({ at: down.until, kind: 'lift' });
      down = null;
    }
    if (!wishedAt(at)) {
      if (down) points.push({ at, kind: 'lift' });
      down = null;
      continue;
    }
    if (!down) points.push({ at, kind: 'press' });
    else if (down.symbol !== symbol) points.push({ at, kind: 'change' });
    down = { symbol, until: at + length };
  }
  if (down) points.push({ at: down.until, kind: 'lift' });
  return points;
}

/** Where a note under the pedal dies away: at the next move of the pedal, or where the key is let go without it. */
export function soundsUntil(
  note: { readonly at: Ticks; readonly length: Ticks; readonly touch?: ShortTouch },
  points: readonly PedalPoint[],
): Ticks {
  const end = note.at + heldFor(note);
  const next = firstAtOrAfter(points, end);
  const last = points[next - 1];
  return last && last.kind !== 'lift' && points[next] ? points[next].at : end;
}
