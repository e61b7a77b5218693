import { Injectable, signal } from '@angular/core';

/** A block of samples, the frame of the audio clock at which it begins, and the second of that on the browser's own clock. */
export interface HeardBlock {
  readonly samples: Float32Array;
  readonly frame: number;
  readonly time: number;
}

/** What the worklet sends: samples with the frame of the audio clock at which they begin. */
interface Sent {
  readonly samples: Float32Array;
  readonly frame: number;
}

const NOTHING = (): void => {
  // Nobody waits for it.
};

/** Decibels under full loudness at which the meter shows nothing. */
const FLOOR = -60;

/**
 * The microphone: asked for only where somebody presses for it, and live only while `live` says so. What it hears goes to whoever listens
 * and is kept nowhere.
 */
@Injectable({ providedIn: 'root' })
export class Microphone {
  /** True while it is on; every screen that uses it shows that. */
  readonly live = signal(false);
  /** How loud it is just now, from 0 to 1. */
  readonly level = signal(0);
  readonly trouble = signal<string | null>(null);
  /** What it is called; null while it is off, or where the browser does not say. */
  readonly device = signal<string | null>(null);
  /** True where the browser goes on changing what it hears, though it was asked not to. */
  readonly changed = signal(false);
  /** Samples a second of what is heard. */
  rate = 48_000;

  private stream: MediaStream | null = null;
  private context: AudioContext | null = null;
  private lost: () => void = NOTHING;

  /** Turns it on; false where it may not or cannot be used, which `trouble` says. It is given back when it is pulled out, too. */
  async start(heard: (block: HeardBlock) => void, lost: () => void = NOTHING): Promise<boolean> {
    this.give();
    this.trouble.set(null);
    this.lost = lost;
    try {
      // The voice of the room as it is: nothing is evened out or filtered.
      const audio = { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 1 };
      this.stream = await navigator.mediaDevices.getUserMedia({ audio });
      // Large buffers lose nothing where the device has much to do; when a sound came is known anyway.
      this.context = new AudioContext({ latencyHint: 'playback' });
      this.rate = this.context.sampleRate;
      await this.context.audioWorklet.addModule('worklets/microphone.js');
      const source = this.context.createMediaStreamSource(this.stream);
      const tap = new AudioWorkletNode(this.context, 'microphone', { numberOfOutputs: 0 });
      tap.port.onmessage = ({ data }: MessageEvent<Sent>) => this.take(data, heard);
      source.connect(tap);
      await this.context.resume();
      for (const track of this.stream.getAudioTracks()) track.onended = () => this.pulled();
      const [track] = this.stream.getAudioTracks();
      const granted = track.getSettings();
      this.device.set(track.label || granted.deviceId || null);
      this.changed.set(
        Boolean(granted.echoCancellation) || granted.noiseSuppression === true || granted.autoGainControl === true,
      );
      this.live.set(true);
      return true;
    } catch (error) {
      this.stop();
      this.trouble.set(troubleOf(error));
      return false;
    }
  }

  /** Turns it off. */
  stop(): void {
    for (const track of this.stream?.getTracks() ?? []) {
      track.onended = null;
      track.stop();
    }
    void this.context?.close();
    this.stream = this.context = null;
    this.lost = NOTHING;
    this.device.set(null);
    this.live.set(false);
    this.level.set(0);
  }

  /** Turns it off for whoever uses it, and tells them. */
  private give(): void {
    const { lost } = this;
    this.stop();
    lost();
  }

  private pulled(): void {
    this.give();
    this.trouble.set($localize`The microphone is gone. What it heard so far is kept.`);
  }

  private take({ samples, frame }: Sent, heard: (block: HeardBlock) => void): void {
    if (!this.context) return;
    // What the clock of the page says where the audio clock stood at the block's first frame.
    const late = this.context.currentTime - frame / this.rate;
    const time = performance.now() / 1000 - late;
    const power = samples.reduce((sum, x) => sum + x * x, 0) / samples.length;
    this.level.set(Math.max(0, Math.min(1, 1 - (10 * Math.log10(power + 1e-12)) / FLOOR)));
    heard({ samples, frame, time });
  }
}

function troubleOf(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError')
    return $localize`The browser does not give this page the microphone. Allow it beside the address, then try again.`;
  if (name === 'NotFoundError') return $localize`There is no microphone on this device. Connect one, or use the keys.`;
  return $localize`The microphone could not be used. Another program may have it: close that one and try again.`;
}
