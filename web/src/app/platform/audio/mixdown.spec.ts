import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lengthOf, mixdown, RATE, wavOf, type Sample } from './mixdown';
import type { Sound } from './schedule';

const frequency = (midi: number) => 440 * 2 ** ((midi - 69) / 12);

/** A recorded key that is a plain sine, two seconds long. */
const sine = (midi: number, rate = RATE): Sample => ({
  midi,
  rate,
  channels: [Float32Array.from({ length: 2 * rate }, (_, i) => Math.sin((2 * Math.PI * frequency(midi) * i) / rate))],
});
const key = (midi: number | null, time = 0, duration = 1, loudness = 0.5): Sound => ({ midi, time, duration, loudness });

/** How often a second a stretch goes from below nothing to above it. */
function heard(channel: Float32Array, from: number, to: number): number {
  let crossings = 0;
  for (let k = Math.round(from * RATE) + 1; k < Math.round(to * RATE); k++)
    if (channel[k - 1] < 0 && channel[k] >= 0) crossings++;
  return crossings / (to - from);
}
const loudest = (channel: Float32Array) => channel.reduce((most, v) => Math.max(most, Math.abs(v)), 0);

describe('an arrangement as sound', () => {
  it('has every key at its time, at its height, from recordings at any rate', () => {
    fc.assert(
      fc.property(fc.integer({ min: 48, max: 84 }), fc.constantFrom(22_050, 44_100, 48_000), (midi, rate) => {
        const [left, right] = mixdown([key(midi, 0.5)], [sine(60, rate), sine(72, rate)]);
        expect(loudest(left.subarray(0, 0.49 * RATE))).toBe(0);
        expect(heard(left, 0.6, 1.4)).toBeGreaterThan(frequency(midi) * 0.99 - 2);
        expect(heard(left, 0.6, 1.4)).toBeLessThan(frequency(midi) * 1.01 + 2);
        expect(right[RATE]).toBe(left[RATE]);
      }),
      { numRuns: 6 },
    );
  });

  it('dies away when a key is let go, and leaves clicks out', () => {
    const [left] = mixdown([key(null), key(60, 0, 0.5), key(null, 4)], [sine(60)]);
    expect(left.length / RATE).toBeCloseTo(lengthOf([key(60, 0, 0.5)]), 3);
    const at = (seconds: number) => loudest(left.subarray(seconds * RATE, (seconds + 0.02) * RATE));
    expect(at(0.3)).toBeGreaterThan(0.45);
    expect(at(0.8)).toBeLessThan(0.3);
    expect(at(1.08)).toBeLessThan(0.01);
  });

  it('is never louder than full scale, however many keys sound', () => {
    const many = Array.from({ length: 12 }, (_, i) => key(48 + i, 0, 1, 1));
    for (const channel of mixdown(many, [sine(60)])) expect(loudest(channel)).toBeLessThanOrEqual(0.951);
  });

  it('tells how far it is, up to the end', () => {
    const told: number[] = [];
    mixdown(
      Array.from({ length: 200 }, (_, i) => key(60, i / 100, 0.1)),
      [sine(60)],
      (share) => told.push(share),
    );
    expect(told.length).toBeGreaterThan(2);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    expect(told.at(-1)).toBe(1);
  });

  it('is a WAV file that says how long it is', () => {
    const channels = mixdown([key(60)], [sine(60)]);
    const file = new DataView(wavOf(channels).buffer);
    const text = (at: number) => String.fromCharCode(...[0, 1, 2, 3].map((i) => file.getUint8(at + i)));
    expect([text(0), text(8), text(36)]).toEqual(['RIFF', 'WAVE', 'data']);
    expect(file.getUint32(40, true)).toBe(channels[0].length * 4);
    expect(file.byteLength).toBe(44 + channels[0].length * 4);
    const middle = Math.floor(channels[0].length / 4);
    expect(file.getInt16(44 + 4 * middle, true) / 32_767).toBeCloseTo(channels[0][middle], 3);
  });
});
