import { Injectable, computed, inject, signal } from '@angular/core';
import type { DuePlace, MeasuredKey } from '@joined-hands/core/hearing';
import { Subject } from 'rxjs';
import { Microphone, type HeardBlock } from '../audio/microphone';
import { SettingsStore } from '../state/settings.store';
import { TROUBLE, Workers } from '../workers/workers';
import { KeyInput } from './key-input';

/** A key as it was made out. */
export interface EarKey {
  readonly midi: number;
  readonly due: boolean;
  /** Seconds on the browser's own clock. */
  readonly time: number;
  readonly measured: MeasuredKey | null;
}

/** Keys that are shown as heard just now. */
const SHOWN = 6;

/** Blocks by which the two clocks are laid on one another. */
const CLOCKS = 40;

/** Seconds after which a key that was struck has been made out, and for how long that is waited for at most. */
const MADE_OUT = 0.3;
const PATIENCE = 2000;

/** Samples that are filled with silence at most where the browser lost some. */
const MOST_LOST = 48_000;

/** How loud a key counts that was heard: how hard it was struck is not told. */
const LOUDNESS = 0.6;

/**
 * Hears a piano by the microphone, as keys like those of a connected keyboard. What is to be played has to be said: an ear that knows what
 * comes hears chords that it could not make out otherwise.
 */
@Injectable({ providedIn: 'root' })
export class Ear {
  private readonly microphone = inject(Microphone);
  private readonly workers = inject(Workers);
  private readonly keys = inject(KeyInput);
  private readonly settings = inject(SettingsStore);

  /** Off, on its way, or listening. */
  readonly state = signal<'off' | 'starting' | 'on'>('off');
  readonly on = computed(() => this.state() === 'on');
  readonly level = this.microphone.level;
  readonly changed = this.microphone.changed;
  readonly device = this.microphone.device;
  /** Why it does not hear. */
  readonly trouble = computed(() => this.failed() ?? this.microphone.trouble());
  private readonly failed = signal<string | null>(null);
  /** The last keys that were heard, in order, as MIDI numbers. */
  readonly lately = signal<readonly number[]>([]);
  /** By how many hundredths of a half step the piano is high. */
  readonly cents = signal(0);
  /** True where the room is so loud that little can be promised. */
  readonly noisy = signal(false);
  /** Seconds from a key being struck to its being made out, the last time. */
  readonly lag = signal(0);
  /** What is known of this microphone; null where it was not set up. */
  readonly known = computed(() => this.settings.microphones().find((m) => m.name === (this.device() ?? '')) ?? null);
  private readonly made = new Subject<EarKey>();
  /** Keys as they are made out. */
  readonly heard = this.made.asObservable();

  /** The frame that counts as the first sample, and the next that is expected. */
  private first = 0;
  private next = 0;
  private offsets: number[] = [];
  /** The second up to which everything was listened to. */
  private listened = 0;
  private settledBy: { readonly until: number; readonly done: () => void }[] = [];
  private expected: readonly [places: readonly DuePlace[], next: number, waits: boolean] = [[], 0, false];

  /** Asks for the microphone and listens. */
  async start(): Promise<void> {
    this.failed.set(null);
    this.state.set('starting');
    this.offsets = [];
    this.next = -1;
    this.lately.set([]);
    this.noisy.set(false);
    const on = await this.microphone.start(
      (block) => this.take(block),
      () => this.off(),
    );
    // Turned off again while the browser asked.
    if (this.state() !== 'starting') {
      if (on) this.microphone.stop();
      return;
    }
    if (!on) {
      this.off();
      return;
    }
    this.cents.set(Math.round(this.known()?.fit.cents ?? 0));
    this.state.set('on');
    this.learn();
  }

  stop(): void {
    if (this.state() === 'on') this.microphone.stop();
    this.off();
  }

  /**
   * What is to be played, from one of its places on; where the music waits, that place alone. Without places every clear key is
   * heard.
   */
  expect(places: readonly DuePlace[], next = 0, waits = false): void {
    this.expected = [places, next, waits];
    if (this.on()) void this.workers.ear.call('expect', places, next, { waits });
  }

  /** Listens from now on by what is known of this microphone and its piano. */
  learn(): void {
    if (!this.on()) return;
    void this.workers.ear.call('listen', this.microphone.rate, this.known()?.fit ?? null);
    this.expect(...this.expected);
  }

  /** The seconds, on the browser's own clock, at which something began since a moment of the last half minute; lateness is not taken off. */
  async begunSince(second: number): Promise<readonly number[]> {
    await this.settled();
    const answer = await this.workers.ear.call('begun');
    return answer.ok ? answer.value.map((at) => this.momentOf(at)).filter((t) => t >= second) : [];
  }

  /** Waits until everything that has sounded up to now was listened to; not for ever. */
  settled(): Promise<void> {
    if (!this.on()) return Promise.resolve();
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, PATIENCE);
      const done = () => {
        clearTimeout(timer);
        resolve();
      };
      this.settledBy.push({ until: performance.now() / 1000 + MADE_OUT, done });
    });
  }

  private off(): void {
    this.state.set('off');
    for (const { done } of this.settledBy.splice(0)) done();
  }

  private take({ samples, frame, time }: HeardBlock): void {
    if (this.state() !== 'on') return;
    if (this.next < 0) this.first = this.next = frame;
    const lost = Math.min(MOST_LOST, frame - this.next);
    if (lost > 0) this.send(new Float32Array(lost), time);
    this.next = frame + samples.length;
    this.offsets.push(time - (frame - this.first) / this.microphone.rate);
    if (this.offsets.length > CLOCKS) this.offsets.shift();
    this.send(samples, time + samples.length / this.microphone.rate);
  }

  private send(samples: Float32Array, until: number): void {
    void this.workers.ear.call('hear', samples).then((answer) => {
      if (this.state() !== 'on') return;
      if (!answer.ok) {
        this.stop();
        this.failed.set($localize`The microphone is no longer listened to: ${TROUBLE[answer.trouble]}. Turn it on again.`);
        return;
      }
      const { keys, cents, noisy } = answer.value;
      this.cents.set(cents);
      if (keys.length > 0) this.noisy.set(noisy);
      for (const { midi, at, due, measured } of keys) {
        const time = this.timeOf(at);
        this.lag.set(performance.now() / 1000 - time);
        this.lately.update((l) => [...l, midi].slice(-SHOWN));
        this.made.next({ midi, due, time, measured });
        this.keys.take({ midi, time, loudness: LOUDNESS, source: 'microphone' });
      }
      this.listened = until;
      this.settledBy = this.settledBy.filter((s) => {
        if (s.until > this.listened) return true;
        s.done();
        return false;
      });
    });
  }

  /** The second on the browser's own clock at which a sample was struck. */
  private timeOf(sample: number): number {
    return this.momentOf(sample) - (this.known()?.latency ?? 0);
  }

  /** The second at which a sample came in: every block tells how the clocks lie, and the middle of the last ones is taken. */
  private momentOf(sample: number): number {
    const offset = this.offsets.toSorted((a, b) => a - b)[this.offsets.length >> 1] ?? 0;
    return offset + sample / this.microphone.rate;
  }
}
