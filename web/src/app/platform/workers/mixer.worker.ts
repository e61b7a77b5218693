import { expose } from 'comlink';
import { AudioSample, AudioSampleSource, BufferTarget, canEncodeAudio, Output, WebMOutputFormat } from 'mediabunny';
import { mixdown, RATE, wavOf, type Sample } from '../audio/mixdown';
import type { Sound } from '../audio/schedule';

/** How the sound is written: whole, or compressed. */
export type SoundFormat = 'wav' | 'webm';

/** Bits a second of compressed sound. */
const BITRATE = 128_000;
/** Samples that are handed to the encoder at once: a tenth of a second. */
const BLOCK = RATE / 10;

const mixer = {
  /** Plays a plan into a file. Null where this browser cannot compress sound. */
  async mix(
    sounds: readonly Sound[],
    samples: readonly Sample[],
    format: SoundFormat,
    onProgress: (share: number) => void,
  ): Promise<Uint8Array | null> {
    if (format === 'webm' && !(await canEncodeAudio('opus', { numberOfChannels: 2, sampleRate: RATE, bitrate: BITRATE })))
      return null;
    const channels = mixdown(sounds, samples, onProgress);
    return format === 'wav' ? wavOf(channels) : compressed(channels);
  },
};

async function compressed(channels: readonly Float32Array[]): Promise<Uint8Array> {
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const source = new AudioSampleSource({ codec: 'opus', bitrate: BITRATE });
  output.addAudioTrack(source);
  await output.start();
  const frames = channels[0].length;
  for (let from = 0; from < frames; from += BLOCK) {
    const many = Math.min(BLOCK, frames - from);
    const data = new Float32Array(many * channels.length);
    channels.forEach((channel, c) => data.set(channel.subarray(from, from + many), c * many));
    const sample = new AudioSample({
      data,
      format: 'f32-planar',
      numberOfChannels: channels.length,
      sampleRate: RATE,
      timestamp: from / RATE,
    });
    await source.add(sample);
    sample.close();
  }
  await output.finalize();
  return new Uint8Array(target.buffer ?? new ArrayBuffer(0));
}

export type MixerApi = typeof mixer;

expose(mixer);
