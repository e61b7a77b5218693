import { expose } from 'comlink';
import {
  AudioSample,
  AudioSampleSource,
  BufferTarget,
  canEncodeAudio,
  canEncodeVideo,
  Mp4OutputFormat,
  Output,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
} from 'mediabunny';
import { mixdown, RATE, wavOf, type Sample } from '../audio/mixdown';
import type { Sound } from '../audio/schedule';

/** How the sound is written: whole, or compressed. */
export type SoundFormat = 'wav' | 'webm';

/** How a film is written, with what it is compressed by: every browser that films can make the first. */
export const FILM_FORMATS = ['webm', 'mp4'] as const;
export type FilmFormat = (typeof FILM_FORMATS)[number];
const CODECS = { webm: { video: 'vp9', audio: 'opus' }, mp4: { video: 'avc', audio: 'aac' } } as const;

/** A picture of a film, for as many seconds. */
export interface Frame {
  readonly picture: ImageBitmap;
  readonly from: number;
  readonly seconds: number;
}

/** Bits a second of a film's pictures, which hardly move, and seconds after which one is written whole. */
const FILM_BITRATE = 900_000;
const WHOLE_EVERY = 5;

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

  /** The formats in which this browser can film, in pixels. */
  async films(width: number, height: number): Promise<FilmFormat[]> {
    const can = await Promise.all(
      FILM_FORMATS.map(async (format) => {
        const { video, audio } = CODECS[format];
        const seen = await canEncodeVideo(video, { width, height, bitrate: FILM_BITRATE });
        return seen && (await canEncodeAudio(audio, { numberOfChannels: 2, sampleRate: RATE, bitrate: BITRATE })) ? [format] : [];
      }),
    );
    return can.flat();
  },

  /** A plan with pictures as a film. Pictures are asked for one after another, until there are none. */
  async film(
    sounds: readonly Sound[],
    samples: readonly Sample[],
    format: FilmFormat,
    next: () => Promise<Frame | null>,
  ): Promise<Uint8Array> {
    const target = new BufferTarget();
    const output = new Output({ format: format === 'mp4' ? new Mp4OutputFormat() : new WebMOutputFormat(), target });
    const { video, audio } = CODECS[format];
    const pictures = new VideoSampleSource({ codec: video, bitrate: FILM_BITRATE, keyFrameInterval: WHOLE_EVERY });
    const sound = new AudioSampleSource({ codec: audio, bitrate: BITRATE });
    output.addVideoTrack(pictures);
    output.addAudioTrack(sound);
    await output.start();
    for (let frame = await next(); frame; frame = await next()) {
      const sample = new VideoSample(frame.picture, { timestamp: frame.from, duration: frame.seconds });
      await pictures.add(sample);
      sample.close();
      frame.picture.close();
    }
    pictures.close();
    await addSound(sound, mixdown(sounds, samples));
    await output.finalize();
    return new Uint8Array(target.buffer ?? new ArrayBuffer(0));
  },
};

async function compressed(channels: readonly Float32Array[]): Promise<Uint8Array> {
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const source = new AudioSampleSource({ codec: 'opus', bitrate: BITRATE });
  output.addAudioTrack(source);
  await output.start();
  await addSound(source, channels);
  await output.finalize();
  return new Uint8Array(target.buffer ?? new ArrayBuffer(0));
}

/** Hands samples to the encoder, block by block. */
async function addSound(source: AudioSampleSource, channels: readonly Float32Array[]): Promise<void> {
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
}

export type MixerApi = typeof mixer;

expose(mixer);
