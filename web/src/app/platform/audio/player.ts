import { Injectable, inject, signal } from '@angular/core';
import { SettingsStore } from '../state/settings.store';
import { Clicks } from './clicks';
import { RELEASE, SAMPLED, SAMPLES_AT, sampleFile } from './samples';
import type { Plan } from './schedule';
import { latestWins } from '../latest';

type ToneModule = typeof import('tone');

interface Instruments {
  readonly tone: ToneModule;
  readonly piano: import('tone').Sampler;
  /** A soft electric piano. */
  readonly electric: import('tone').PolySynth<import('tone').FMSynth>;
}

/** Seconds by which sounds are handed to the audio clock before they are due, so that a page that is busy for a moment delays none. */
const LOOK_AHEAD = 0.2;

/** Seconds between two looks at what is to be handed over. */
const INTERVAL = 0.05;

/** Seconds from the call until a plan begins, so that nothing of its start is late: more than the look ahead. */
const AHEAD = 0.3;

/** Divisions of a second in the audio clock's own counting: events fall within a quarter of a millisecond of their time. */
const FINE = 960;

/** Seconds that a struck chord is shown as sounding. */
const SHOWN = 1.4;

/** A click at least this loud begins a bar. */
const STRONG = 0.7;

/** The piano and the metronome. Both load with the first sound that is asked for. */
@Injectable({ providedIn: 'root' })
export class Player {
  readonly state = signal<'silent' | 'loading' | 'playing'>('silent');
  /** Place in the song that sounds now, in ticks; null in silence and during the count-in. */
  readonly position = signal<number | null>(null);
  /** Keys that sound now, as MIDI numbers. */
  readonly sounding = signal<ReadonlySet<number>>(new Set());
  readonly trouble = signal<string | null>(null);
  /** True while what sounds is only tried, and gives way to whatever is started. */
  readonly trying = signal(false);

  /** When the plan that plays began or begins, in seconds on the browser's own clock. */
  began = 0;

  private readonly settings = inject(SettingsStore);
  private instruments: Promise<Instruments> | null = null;
  private readonly begin = latestWins();
  /** The clicks of what plays or is counted. */
  private clicks: Clicks | null = null;
  private frame = 0;

  /** Plays a plan from its start, or from some seconds into it; a plan that is playing stops first. */
  async play(plan: Plan, since = 0): Promise<void> {
    this.stop();
    this.trying.set(false);
    const isLatest = this.begin();
    this.state.set('loading');
    const ready = await this.load();
    if (!isLatest()) return;
    if (!ready) {
      this.state.set('silent');
      return;
    }
    const { tone } = ready;
    const voice = this.voiceOf(ready);
    await tone.start();
    if (!isLatest()) return;
    const transport = tone.getTransport();
    transport.stop();
    transport.cancel();
    transport.seconds = 0;
    const begin = tone.immediate() + AHEAD - since;
    const clicks = (this.clicks = new Clicks(tone.getContext().rawContext));
    for (const { time: at, midi, duration, loudness } of plan.sounds) {
      if (at < since) continue;
      if (midi === null) {
        clicks.at(begin + at, loudness > STRONG, loudness);
        continue;
      }
      transport.schedule((time) => {
        voice.triggerAttackRelease(tone.Frequency(midi, 'midi').toFrequency(), duration, time, loudness);
        tone.getDraw().schedule(() => isLatest() && this.shine([midi], duration), time);
      }, at);
    }
    this.state.set('playing');
    this.began = performance.now() / 1000 + AHEAD - since;
    transport.start(begin + since, since);
    const follow = () => {
      if (!isLatest()) return;
      // The transport tells of the moment that it looks ahead to.
      const now = Math.max(since, transport.seconds - LOOK_AHEAD);
      if (now >= plan.length) {
        this.stop();
        return;
      }
      this.position.set(now < plan.lead ? null : plan.placeAt(now - plan.lead));
      this.frame = requestAnimationFrame(follow);
    };
    follow();
  }

  /** Falls silent at once. */
  stop(): void {
    this.begin();
    cancelAnimationFrame(this.frame);
    this.clicks?.silence();
    this.clicks = null;
    void this.instruments?.then((ready) => {
      if (this.state() === 'playing') return;
      ready?.tone.getTransport().stop();
      ready?.tone.getTransport().cancel();
      ready?.piano.releaseAll();
      ready?.electric.releaseAll();
    });
    this.state.set('silent');
    this.position.set(null);
    this.sounding.set(new Set());
  }

  /** Strikes keys together, for trying a chord by ear. */
  async strike(midis: readonly number[], loudness = 0.6): Promise<void> {
    this.shine(midis, SHOWN);
    const ready = await this.load();
    if (!ready) return;
    await ready.tone.start();
    for (const midi of midis)
      this.voiceOf(ready).triggerAttackRelease(
        ready.tone.Frequency(midi, 'midi').toFrequency(),
        SHOWN,
        ready.tone.immediate(),
        loudness,
      );
  }

  /** Plays something that is only tried. */
  async tryOut(plan: Plan): Promise<void> {
    const playing = this.play(plan);
    this.trying.set(true);
    await playing;
  }

  /** One click at once, the first of a bar stronger. */
  async tick(strong: boolean): Promise<void> {
    const ready = await this.load();
    if (!ready) return;
    await ready.tone.start();
    const clicks = (this.clicks ??= new Clicks(ready.tone.getContext().rawContext));
    clicks.at(ready.tone.immediate(), strong, strong ? 0.9 : 0.5);
  }

  private voiceOf({ piano, electric }: Instruments): Instruments['piano'] | Instruments['electric'] {
    return this.settings.voice() === 'electric' ? electric : piano;
  }

  private load(): Promise<Instruments | null> {
    this.instruments ??= this.build();
    return this.instruments.catch(() => {
      this.instruments = null;
      this.trouble.set($localize`The piano could not be loaded. Reload the page to try again.`);
      return null;
    });
  }

  private async build(): Promise<Instruments> {
    const tone = await import('tone');
    tone.setContext(new tone.Context({ lookAhead: LOOK_AHEAD, updateInterval: INTERVAL }));
    const urls = Object.fromEntries(SAMPLED.map((name) => [name, sampleFile(name)]));
    const piano = await new Promise<import('tone').Sampler>((resolve, reject) => {
      const sampler = new tone.Sampler({
        urls,
        baseUrl: SAMPLES_AT,
        release: RELEASE,
        onload: () => resolve(sampler),
        onerror: reject,
      }).toDestination();
    });
    const electric = new tone.PolySynth({
      voice: tone.FMSynth,
      maxPolyphony: 64,
      options: {
        harmonicity: 2,
        modulationIndex: 1.6,
        envelope: { attack: 0.004, decay: 1.8, sustain: 0.12, release: 0.5 },
        modulationEnvelope: { attack: 0.002, decay: 0.5, sustain: 0.05, release: 0.4 },
      },
    }).toDestination();
    electric.volume.value = -15;
    tone.getTransport().PPQ = FINE;
    return { tone, piano, electric };
  }

  private shine(midis: readonly number[], seconds: number): void {
    this.sounding.update((now) => new Set([...now, ...midis]));
    setTimeout(() => {
      this.sounding.update((now) => new Set([...now].filter((m) => !midis.includes(m))));
    }, seconds * 1000);
  }
}
