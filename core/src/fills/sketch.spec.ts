import { describe, expect, it } from 'vitest';
import { TEXTURES } from '../catalogue/textures/list.js';
import { ALL_KEYS } from '../../testing/tunes.js';
import { midiOf } from '../pitch/pitch.js';
import { HAND_PROFILES, handsOf, spanOf, type HandProfile } from '../song/decisions.js';
import { meterFrom } from '../time/meter.js';
import { patternFor } from './texture.js';
import { sketchOf } from './sketch.js';

const METERS = ['2/4', '3/4', '4/4', '6/8'].map(meterFrom);
const C = { tonic: 'C', mode: 'major' } as const;
const named = (id: string) => TEXTURES.find((t) => t.id === id) ?? TEXTURES[0];

describe('the sketch of a texture', () => {
  it('strikes what is written, where it is written', () => {
    const chord = { symbol: 'C', pitches: ['C3', 'E3', 'G3'] };
    const waltz = sketchOf(named('bass-chord-chord'), METERS[1], chord, handsOf(), C);
    expect(waltz?.steps.map((s) => [s.from, s.pitches])).toEqual([
      [0, ['C3']],
      [1 / 3, ['E3', 'G3']],
      [2 / 3, ['E3', 'G3']],
    ]);
    expect(waltz?.leap).toBe(0);
    const tenth = (profile: HandProfile) => sketchOf(named('open-tenth'), METERS[2], chord, handsOf(profile), C);
    expect([tenth('child')?.leap, tenth('large')?.leap]).toEqual([midiOf('E4') - midiOf('C3'), 0]);
    expect(sketchOf(named('shape-apart'), METERS[1], chord, handsOf(), C)?.leap).toBe(0);
    expect(sketchOf(named('bass-chord-chord'), METERS[0], chord, handsOf(), C)).toBeNull();
  });

  it('goes through its bars in order, and leaps only past what the hand spans, in every key and for every hand', () => {
    const wrong: string[] = [];
    for (const profile of HAND_PROFILES)
      for (const key of ALL_KEYS)
        for (const texture of TEXTURES)
          for (const meter of METERS) {
            const hands = handsOf(profile);
            const chord = { symbol: `${key.tonic}7`, pitches: [`${key.tonic}3`] };
            const sketch = sketchOf(texture, meter, chord, hands, key);
            const { steps, bars, leap } = sketch ?? { steps: [], bars: 0, leap: 0 };
            const keys = steps.flatMap((s) => s.pitches.map(midiOf));
            const whole = keys.length > 0 ? Math.max(...keys) - Math.min(...keys) : 0;
            const holds = [
              (sketch !== null) === (patternFor(texture, meter) !== null),
              sketch === null || steps.length > 0,
              steps.every((s, i) => s.from < s.until && s.until <= (steps[i + 1]?.from ?? bars)),
              leap <= (whole <= spanOf(hands, 'left').limit ? 0 : whole),
            ];
            if (holds.includes(false)) wrong.push(`${texture.id} in ${key.tonic} ${key.mode}, ${profile}: ${holds.join()}`);
          }
    expect(wrong).toEqual([]);
  });
});
