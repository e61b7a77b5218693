import { nearest, RELEASE } from './samples';
import type { Sound } from './schedule';

/** A recorded key: its samples, one array a channel, at so many a second. */
export interface Sample {
  readonly midi: number;
  readonly rate: number;
  readonly channels: readonly Float32Array[];
}

/** Samples a second of what is made. */
export const RATE = 44_100;

/** Seconds in which a sound begins, so that it does not click. */
const ATTACK = 0.002;

/** The loudest that a sample may be: of full scale. */
const LOUDEST = 0.95;

/** Seconds that the sound lasts: to the end of its plan, and until what rings then has died away. */
export const lengthOf = (sounds: readonly Sound[]): number =>
  sounds.reduce((last, s) => (s.midi === null ? last : Math.max(last, s.time + s.duration)), 0) + RELEASE + 0.2;

/**
 * Plays a plan into two channels: every key by the recorded one nearest to it, played faster or slower. What would be louder than full
 * scale is made softer as a whole. Clicks are left out.
 *
 * @param onProgress is told now and then how much is done, 0 to 1
 */
export function mixdown(
  sounds: readonly Sound[],
  samples: readonly Sample[],
  onProgress: (share: number) => void = () => undefined,
): [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>] {
  const length = Math.ceil(lengthOf(sounds) * RATE);
  const out: [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>] = [new Float32Array(length), new Float32Array(length)];
  sounds.forEach((sound, i) => {
    if (i % 64 === 0) onProgress(i / sounds.length);
    if (sound.midi !== null) add(out, sound, sound.midi, nearest(samples, sound.midi));
  });
  let peak = 0;
  for (const channel of out) for (const value of channel) peak = Math.max(peak, Math.abs(value));
  if (peak > LOUDEST) for (const channel of out) for (let k = 0; k < length; k++) channel[k] *= LOUDEST / peak;
  onProgress(1);
  return out;
}

function add(out: readonly Float32Array[], { time, duration, loudness }: Sound, midi: number, sample: Sample): void {
  const step = (2 ** ((midi - sample.midi) / 12) * sample.rate) / RATE;
  const from = Math.round(time * RATE);
  const recorded = sample.channels[0].length;
  const last = Math.min(out[0].length - from, Math.floor((duration + RELEASE) * RATE), Math.floor((recorded - 2) / step));
  for (const [c, channel] of out.entries()) {
    const source = sample.channels[c % sample.channels.length];
    for (let k = 0; k < last; k++) {
      const at = k * step;
      const whole = Math.floor(at);
      const value = source[whole] + (source[whole + 1] - source[whole]) * (at - whole);
      const seconds = k / RATE;
      const held = seconds <= duration ? 1 : Math.max(0, 1 - (seconds - duration) / RELEASE) ** 2;
      channel[from + k] += value * loudness * held * Math.min(1, seconds / ATTACK);
    }
  }
}

/** Two channels as a WAV file of 16 bits. */
export function wavOf(channels: readonly Float32Array[]): Uint8Array<ArrayBuffer> {
  const frames = channels[0].length;
  const bytes = frames * channels.length * 2;
  const file = new DataView(new ArrayBuffer(44 + bytes));
  const text = (at: number, word: string) => new TextEncoder().encode(word).forEach((letter, i) => file.setUint8(at + i, letter));
  text(0, 'RIFF');
  file.setUint32(4, 36 + bytes, true);
  text(8, 'WAVEfmt ');
  file.setUint32(16, 16, true);
  file.setUint16(20, 1, true);
  file.setUint16(22, channels.length, true);
  file.setUint32(24, RATE, true);
  file.setUint32(28, RATE * channels.length * 2, true);
  file.setUint16(32, channels.length * 2, true);
  file.setUint16(34, 16, true);
  text(36, 'data');
  file.setUint32(40, bytes, true);
  let at = 44;
  for (let k = 0; k < frames; k++)
    for (const channel of channels) {
      file.setInt16(at, Math.round(Math.max(-1, Math.min(1, channel[k])) * 32_767), true);
      at += 2;
    }
  return new Uint8Array(file.buffer);
}
