import { parseChord } from '../harmony/symbol.js';
import type { Key } from '../harmony/key.js';
import { midiOf, transposePitch, type Pitch } from '../pitch/pitch.js';
import { spanOf, type Hands } from '../song/decisions.js';
import type { Texture } from '../song/texture-data.js';
import type { Meter } from '../time/meter.js';
import { degreesFrom } from './dress.js';
import { patternFor } from './texture.js';

/** What a pattern strikes at once, and for how long it sounds: both in bars from the beginning of the pattern. */
export interface SketchStep {
  readonly from: number;
  readonly until: number;
  readonly pitches: readonly Pitch[];
}

/** A pattern as one sees it: its strikes over one chord. */
export interface Sketch {
  readonly bars: number;
  readonly steps: readonly SketchStep[];
  /** Half steps of the widest leap from strike to strike, round to the first; 0 where all of it lies under one hand. */
  readonly leap: number;
}

/**
 * A texture over one chord, struck count by count as it is written: for a drawing of it, and to be heard by itself. Null where it has no
 * pattern in the meter. In the song it may give way to the tune and to the next chord.
 *
 * @param chord its symbol, and the keys of its shape as they were learned
 */
export function sketchOf(
  texture: Texture,
  meter: Meter,
  chord: { readonly symbol: string; readonly pitches: readonly Pitch[] },
  hands: Hands,
  key: Key,
): Sketch | null {
  const bars = patternFor(texture, meter);
  const parsed = parseChord(chord.symbol);
  if (!bars || parsed.kind !== 'chord') return null;
  const degrees = degreesFrom(parsed, chord, hands, key);
  const steps: SketchStep[] = [];
  let sounding: SketchStep | null = null;
  const end = (until: number) => {
    if (sounding && sounding.pitches.length > 0) steps.push({ ...sounding, until });
    sounding = null;
  };
  bars.forEach((tokens, bar) =>
    tokens.forEach((token, k) => {
      if (token === '-') return;
      const from = bar + k / tokens.length;
      // A step that leads on lies beside the bass before it.
      const before: Pitch | undefined = sounding?.pitches[0] ?? steps.at(-1)?.pitches[0];
      end(from);
      const pitches = token === 'w' && before ? [transposePitch(before, '2M')] : degrees(token);
      sounding = { from, until: from, pitches };
    }),
  );
  end(bars.length);
  return { bars: bars.length, steps, leap: widestLeap(steps, spanOf(hands, 'left').limit) };
}

function widestLeap(steps: readonly SketchStep[], reach: number): number {
  const leaps = steps.map((step, i) => {
    const [a, b] = [step, steps[(i + 1) % steps.length]].map((s) => s.pitches.map(midiOf));
    const [low, high] = [Math.min(...a, ...b), Math.max(...a, ...b)];
    if (high - low <= reach) return 0;
    return Math.max(Math.abs(a[0] - b[0]), Math.abs((a.at(-1) ?? 0) - (b.at(-1) ?? 0)));
  });
  return Math.max(0, ...leaps);
}
