import type { Trouble } from '../workers/worker-client';
import { TROUBLE } from '../workers/workers';

/** Samples a second at which a sound is listened to: more is needed neither for its beat and key nor by the model of notes. */
export const HEARD_RATE = 22_050;

/** A sound file of at most so many bytes as this browser opens it, or a sentence that says why it does not. */
export async function openSound(file: File, most: number): Promise<AudioBuffer | string> {
  const { name } = file;
  if (file.size > most) return $localize`${name} is larger than ${most / 1e6} megabytes. Choose a shorter or a compressed one.`;
  const reader = new OfflineAudioContext(1, 1, 44_100);
  try {
    return await reader.decodeAudioData(await file.arrayBuffer());
  } catch {
    return $localize`${name} is no sound file that this browser can open. Save it as MP3, WAV or OGG and choose that.`;
  }
}

/** What is said where a sound file was opened and could not be listened to. */
export const unheard = ({ name }: File, trouble: Trouble): string =>
  $localize`${name} could not be listened to: ${TROUBLE[trouble]}. Try again, or another file.`;

/** The beginning of a sound, so many seconds of it, as one channel to listen to; null where the browser cannot make that. */
export async function asHeard(buffer: AudioBuffer, longest: number): Promise<Float32Array | null> {
  const seconds = Math.min(longest, buffer.duration);
  const offline = new OfflineAudioContext(1, Math.max(1, Math.ceil(seconds * HEARD_RATE)), HEARD_RATE);
  const source = offline.createBufferSource();
  source.buffer = buffer;
  source.connect(offline.destination);
  source.start();
  const heard = await offline.startRendering().catch(() => null);
  return heard?.getChannelData(0) ?? null;
}

/** Plays a sound that was opened, until it ends or is stopped. */
export class HeardFile {
  private context: AudioContext | null = null;
  private source: AudioBufferSourceNode | null = null;

  constructor(private readonly buffer: AudioBuffer) {}

  play(ended: () => void): void {
    this.stop();
    this.context ??= new AudioContext();
    const source = this.context.createBufferSource();
    source.buffer = this.buffer;
    source.connect(this.context.destination);
    source.onended = ended;
    source.start();
    this.source = source;
  }

  stop(): void {
    this.source?.stop();
    this.source = null;
  }

  /** Stops, and lets go of the sound. */
  close(): void {
    this.stop();
    void this.context?.close();
    this.context = null;
  }
}
