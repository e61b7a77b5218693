import { Injectable, signal } from '@angular/core';
import type { Plan } from './plan';

type ToneModule = typeof import('tone');

interface Instruments {
  readonly tone: ToneModule;
  readonly piano: import('tone').Sampler;
  readonly click: import('tone').Synth;
}

/** Sampled notes: every third key from A0 to C8. */
const SAMPLED = [
  'A0',
  ...[1, 2, 3, 4, 5, 6, 7].flatMap((octave) => ['C', 'D#', 'F#', 'A'].map((name) => `${name}${octave}`)),
  'C8',
];

/** Seconds that a struck chord is shown as sounding. */
const SHOWN = 1.4;

/** The piano and the metronome. Both load with the first sound that is asked for. */
@Injectable({ providedIn: 'root' })
export class Player {
  readonly state = signal<'silent' | 'loading' | 'playing'>('silent');
  /** Place in the song that sounds now, in ticks; null in silence and during the count-in. */
  readonly position = signal<number | null>(null);
  /** Keys that sound now, as MIDI numbers. */
  readonly sounding = signal<ReadonlySet<number>>(new Set());
  readonly trouble = signal<string | null>(null);

  private instruments: Promise<Instruments> | null = null;
  private turn = 0;
  private frame = 0;

  /** Plays a plan from its start, or from some seconds into it; a plan that is playing stops first. */
  async play(plan: Plan, since = 0): Promise<void> {
    this.stop();
    const turn = ++this.turn;
    this.state.set('loading');
    const ready = await this.load();
    if (turn !== this.turn) return;
    if (!ready) return this.state.set('silent');
    const { tone, piano, click } = ready;
    await tone.start();
    if (turn !== this.turn) return;
    const transport = tone.getTransport();
    transport.stop();
    transport.cancel();
    transport.seconds = 0;
    for (const sound of plan.sounds) {
      if (sound.time < since) continue;
      const { midi } = sound;
      transport.schedule((time) => {
        if (midi === null) click.triggerAttackRelease(sound.loudness > 0.7 ? 'C6' : 'G5', sound.duration, time, sound.loudness);
        else {
          piano.triggerAttackRelease(tone.Frequency(midi, 'midi').toFrequency(), sound.duration, time, sound.loudness);
          tone.getDraw().schedule(() => turn === this.turn && this.shine([midi], sound.duration), time);
        }
      }, sound.time);
    }
    this.state.set('playing');
    transport.start('+0.08', since);
    const follow = () => {
      if (turn !== this.turn) return;
      const now = transport.seconds;
      if (now >= plan.length) return this.stop();
      this.position.set(now < plan.lead ? null : plan.placeAt(now - plan.lead));
      this.frame = requestAnimationFrame(follow);
    };
    follow();
  }

  /** Falls silent at once. */
  stop(): void {
    this.turn++;
    cancelAnimationFrame(this.frame);
    void this.instruments?.then((ready) => {
      if (this.state() === 'playing') return;
      ready?.tone.getTransport().stop();
      ready?.tone.getTransport().cancel();
      ready?.piano.releaseAll();
    });
    this.state.set('silent');
    this.position.set(null);
    this.sounding.set(new Set());
  }

  /** Strikes keys together, for trying a chord by ear. */
  async strike(midis: readonly number[]): Promise<void> {
    this.shine(midis, SHOWN);
    const ready = await this.load();
    if (!ready) return;
    await ready.tone.start();
    for (const midi of midis)
      ready.piano.triggerAttackRelease(ready.tone.Frequency(midi, 'midi').toFrequency(), SHOWN, undefined, 0.6);
  }

  /** One click at once, the first of a bar stronger. */
  async tick(strong: boolean): Promise<void> {
    const ready = await this.load();
    if (!ready) return;
    await ready.tone.start();
    ready.click.triggerAttackRelease(strong ? 'C6' : 'G5', 0.03, undefined, strong ? 0.9 : 0.5);
  }

  private load(): Promise<Instruments | null> {
    this.instruments ??= this.build();
    return this.instruments.catch(() => {
      this.instruments = null;
      this.trouble.set('The piano could not be loaded. Reload the page to try again.');
      return null;
    });
  }

  private async build(): Promise<Instruments> {
    const tone = await import('tone');
    const urls = Object.fromEntries(SAMPLED.map((name) => [name, `${name.replace('#', 's')}.mp3`]));
    const piano = await new Promise<import('tone').Sampler>((resolve, reject) => {
      const sampler = new tone.Sampler({
        urls,
        baseUrl: 'samples/piano/',
        release: 0.6,
        onload: () => resolve(sampler),
        onerror: reject,
      }).toDestination();
    });
    const click = new tone.Synth({
      oscillator: { type: 'triangle' },
      envelope: { attack: 0.001, decay: 0.04, sustain: 0, release: 0.02 },
      volume: -14,
    }).toDestination();
    return { tone, piano, click };
  }

  private shine(midis: readonly number[], seconds: number): void {
    this.sounding.update((now) => new Set([...now, ...midis]));
    setTimeout(() => {
      this.sounding.update((now) => new Set([...now].filter((m) => !midis.includes(m))));
    }, seconds * 1000);
  }
}
