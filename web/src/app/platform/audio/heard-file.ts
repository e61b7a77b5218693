/** A sound file as this browser opens it; throws where it cannot. */
export async function decoded(file: File): Promise<AudioBuffer> {
  const reader = new OfflineAudioContext(1, 1, 44_100);
  return reader.decodeAudioData(await file.arrayBuffer());
}

/** The beginning of a sound, so many seconds of it, as one channel at a rate. */
export async function asHeard(buffer: AudioBuffer, rate: number, longest: number): Promise<Float32Array> {
  const seconds = Math.min(longest, buffer.duration);
  const offline = new OfflineAudioContext(1, Math.max(1, Math.ceil(seconds * rate)), rate);
  const source = offline.createBufferSource();
  source.buffer = buffer;
  source.connect(offline.destination);
  source.start();
  return (await offline.startRendering()).getChannelData(0);
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
