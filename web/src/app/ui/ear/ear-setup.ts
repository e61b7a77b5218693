import { ChangeDetectionStrategy, Component, computed, inject, output, signal, type OnDestroy } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { MeasuredKey, PianoFit } from '@joined-hands/core/hearing';
import { dayOf } from '@joined-hands/core/log';
import { Player } from '../../platform/audio/player';
import { Ear, type EarKey } from '../../platform/input/ear';
import { SettingsStore } from '../../platform/state/settings.store';
import { Words } from '../../platform/words';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Signs } from '../signs';

/** Keys that a piano is learned by, low to high: every keyboard has them. */
const TOLD = [36, 48, 60, 72, 84];

/** Seconds in which the room is listened to, and between two claps. */
const ROOM = 3;
const BEAT = 0.6;

/** Claps that are counted. */
const CLAPS = 8;

/** A microphone and a piano are set up in a minute: the room, a clap to the beat, five keys. */
@Component({
  selector: 'jh-ear-setup',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Signs],
  templateUrl: './ear-setup.html',
  styleUrl: './ear-setup.less',
})
export class EarSetup implements OnDestroy {
  readonly done = output();
  protected readonly ear = inject(Ear);
  private readonly player = inject(Player);
  private readonly settings = inject(SettingsStore);
  private readonly words = inject(Words);
  private readonly workers = inject(Workers);
  protected readonly step = signal<'begin' | 'room' | 'claps' | 'keys' | 'done'>('begin');
  /** Which clap is counted, from one. */
  protected readonly beat = signal(0);
  /** What came of the last step, where it has to be said. */
  protected readonly told = signal<string | null>(null);
  /** Seconds by which what is heard comes late; as before until it is measured. */
  protected readonly latency = signal(this.ear.known()?.latency ?? 0);
  private readonly measured = signal<readonly MeasuredKey[]>([]);
  protected readonly asked = computed(() => TOLD.at(this.measured().length) ?? null);
  protected readonly keyName = computed(() => {
    const midi = this.asked();
    return midi === null ? '' : this.words.say().pitch(`C${midi / 12 - 1}`);
  });
  protected readonly many = TOLD.length;
  protected readonly count = computed(() => this.measured().length);
  protected readonly cents = computed(() => Math.round(this.ear.known()?.fit.cents ?? 0));
  private timers: number[] = [];

  constructor() {
    this.ear.heard.pipe(takeUntilDestroyed()).subscribe((key) => this.take(key));
  }

  ngOnDestroy(): void {
    this.clear();
  }

  protected begin(): void {
    this.step.set('room');
    this.later(ROOM, () => this.clap());
  }

  /** Counts claps; what is heard near each of them tells how late it comes. */
  protected clap(): void {
    this.clear();
    this.step.set('claps');
    this.told.set(null);
    this.beat.set(0);
    const start = performance.now() / 1000 + BEAT;
    for (let i = 0; i < CLAPS; i++) {
      this.later(BEAT * (i + 1), () => {
        void this.player.tick(i % 4 === 0);
        this.beat.set(i + 1);
      });
    }
    this.later(BEAT * (CLAPS + 1.5), () => void this.measureLateness(start));
  }

  private async measureLateness(start: number): Promise<void> {
    const begun = await this.ear.begunSince(start - BEAT / 2);
    if (this.step() !== 'claps') return;
    const late = await this.workers.ear.call(
      'late',
      begun,
      Array.from({ length: CLAPS }, (_, i) => start + i * BEAT),
    );
    if (!late.ok || late.value === null) {
      this.told.set($localize`Too few claps were heard. Come closer and clap again, or go on without.`);
      return;
    }
    this.latency.set(late.value);
    this.askKeys();
  }

  protected askKeys(): void {
    this.clear();
    this.told.set(null);
    this.measured.set([]);
    this.step.set('keys');
    this.ask();
  }

  /** Listens for the key that is asked for. */
  private ask(): void {
    const midi = this.asked();
    this.ear.expect(midi === null ? [] : [{ midis: [midi] }], 0, true);
  }

  private take({ measured, due, midi }: EarKey): void {
    if (this.step() !== 'keys' || midi !== this.asked()) return;
    if (!due || measured === null) {
      this.told.set($localize`That key was cut short. Hold it a little longer.`);
      return;
    }
    this.told.set(null);
    this.measured.update((m) => [...m, measured]);
    if (this.asked() === null) void this.keep();
    else this.ask();
  }

  private async keep(): Promise<void> {
    const fit = await this.workers.ear.call('fit', this.measured());
    if (!fit.ok) {
      this.told.set($localize`What was heard could not be kept: ${TROUBLE[fit.trouble]}.`);
      return;
    }
    const name = this.ear.device() ?? '';
    const known = { name, latency: this.latency(), fit: plain(fit.value), day: dayOf(new Date()) };
    this.settings.set({ microphones: [...this.settings.microphones().filter((m) => m.name !== name), known] });
    this.ear.learn();
    this.step.set('done');
  }

  private later(seconds: number, act: () => void): void {
    this.timers.push(window.setTimeout(act, 1000 * seconds));
  }

  private clear(): void {
    for (const timer of this.timers.splice(0)) clearTimeout(timer);
  }
}

/** What is known of a piano as it is kept: within the bounds that settings have. */
const plain = ({ cents, keys }: PianoFit) => ({
  cents: Math.max(-60, Math.min(60, cents)),
  keys: keys.map(({ midi, partials }) => ({ midi, partials: [...partials] })),
});
