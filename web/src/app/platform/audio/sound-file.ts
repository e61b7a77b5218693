import { Injectable, inject, signal } from '@angular/core';
import { proxy } from 'comlink';
import { latestWins } from '../latest';
import { Workers } from '../workers/workers';
import type { Answer } from '../workers/worker-client';
import type { SoundFormat } from '../workers/mixer.worker';
import { RATE, type Sample } from './mixdown';
import { SAMPLES_AT, sampleFile, samplesNeeded } from './samples';
import type { Sound } from './schedule';

/** Makes sound files of what would be heard, faster than it plays. */
@Injectable({ providedIn: 'root' })
export class SoundFiles {
  private readonly workers = inject(Workers);
  private readonly begin = latestWins();
  /** How much of the file at work is done, 0 to 1; null while none is made. */
  readonly progress = signal<number | null>(null);

  /** A plan as a file; null where this browser cannot compress sound. */
  async make(sounds: readonly Sound[], format: SoundFormat): Promise<Answer<Uint8Array | null>> {
    const isLatest = this.begin();
    this.progress.set(0);
    try {
      const samples = await samplesFor(sounds);
      if (!isLatest()) return { ok: false, trouble: 'stopped' };
      // The samples are read first, a tenth of the work.
      const told = proxy((share: number) => this.progress.update((now) => (now === null ? null : 0.1 + 0.9 * share)));
      return await this.workers.mixer.call('mix', sounds, samples, format, told);
    } catch {
      return { ok: false, trouble: 'unavailable' };
    } finally {
      if (isLatest()) this.progress.set(null);
    }
  }

  /** Lets go of the file at work. */
  cancel(): void {
    this.begin();
    this.progress.set(null);
    this.workers.mixer.stop();
  }
}

/** The samples that a plan needs, each once. */
export async function samplesFor(sounds: readonly Sound[]): Promise<Sample[]> {
  const reader = new OfflineAudioContext(2, 1, RATE);
  return Promise.all(
    samplesNeeded(sounds.map((s) => s.midi)).map(async ({ name, midi }) => {
      const file = await fetch(SAMPLES_AT + sampleFile(name));
      if (!file.ok) throw new Error(`The sample of ${name} is not there.`);
      const heard = await reader.decodeAudioData(await file.arrayBuffer());
      const channels = Array.from({ length: heard.numberOfChannels }, (_, c) => heard.getChannelData(c));
      return { midi, rate: heard.sampleRate, channels };
    }),
  );
}
