import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { midiOf } from '@joined-hands/core/pitch';
import {
  DRILL_START,
  drillFigures,
  isDrillClean,
  pressInDrill,
  type Drill,
  type TaskOutcome,
} from '@joined-hands/core/catalogue/drills';
import { drillStep, type Pass } from '@joined-hands/core/log';
import { Player } from '../../platform/audio/player';
import { Ear } from '../../platform/input/ear';
import { KeyInput, soundsItself, type KeyPress } from '../../platform/input/key-input';
import { PracticeStore } from '../../platform/state/practice.store';
import { Words } from '../../platform/words';

/** One drill as it is played: which question stands, what was found, what came of it. */
@Injectable()
export class DrillRun {
  private readonly keys = inject(KeyInput);
  private readonly ear = inject(Ear);
  private readonly player = inject(Player);
  private readonly practice = inject(PracticeStore);
  private readonly words = inject(Words);

  readonly drill = signal<Drill | null>(null);
  readonly state = signal<'ready' | 'asking' | 'done'>('ready');
  /** Index of the question. */
  readonly at = signal(0);
  readonly progress = signal(DRILL_START);
  readonly helped = signal(false);
  /** Places of names that were tried and were not it. */
  readonly tried = signal<readonly number[]>([]);
  readonly result = signal<Pass | null>(null);
  readonly task = computed(() => this.drill()?.tasks[this.at()] ?? null);
  /** The keys are in sight. */
  readonly inSight = computed(() => (this.task()?.shown ?? false) || this.helped());
  readonly grip = computed(() => this.task()?.grips[this.progress().index] ?? null);

  private outcomes: TaskOutcome[] = [];
  private startedAt = 0;
  private song: string | null = null;

  constructor() {
    this.keys.pressed.pipe(takeUntilDestroyed()).subscribe((press) => this.take(press));
    // The ear listens for what is asked.
    effect(() => {
      const grip = this.grip();
      if (this.ear.on()) this.ear.expect(grip && !this.task()?.names ? [{ midis: grip.pitches.map(midiOf) }] : [], 0, true);
    });
  }

  /** Lays a drill out; `song` is the song that it is made of, or null. */
  lay(drill: Drill | null, song: string | null): void {
    this.drill.set(drill);
    this.song = song;
    this.state.set('ready');
    this.result.set(null);
    this.ask(0);
  }

  start(): void {
    if (!this.drill()) return;
    this.outcomes = [];
    this.startedAt = Date.now();
    this.result.set(null);
    this.ask(0);
    this.state.set('asking');
  }

  stop(): void {
    this.state.set('ready');
    this.ask(0);
  }

  /** Shows the keys of the question, or hears them where they are in sight. */
  help(): void {
    if (this.inSight()) void this.hear();
    else this.helped.set(true);
  }

  async hear(): Promise<void> {
    await this.player.strike(this.grip()?.pitches.map(midiOf) ?? []);
  }

  /** A name that was chosen, by its place among those offered. */
  name(choice: number): void {
    const names = this.task()?.names;
    if (!names || this.state() !== 'asking') return;
    if (choice === names.right) return this.next();
    if (this.tried().includes(choice)) return;
    this.tried.update((tried) => [...tried, choice]);
    this.progress.update((p) => ({ ...p, slips: p.slips + 1 }));
  }

  private take(press: KeyPress): void {
    if (!soundsItself(press)) void this.player.strike([press.midi], press.loudness);
    const task = this.task();
    if (!task || task.names || this.state() !== 'asking') return;
    const { slips } = this.progress();
    const pressed = pressInDrill(task, this.progress(), press.midi);
    // An ear cannot swear to a wrong key.
    this.progress.set(press.source === 'microphone' ? { ...pressed, slips } : pressed);
    if (this.progress().index >= task.grips.length) this.next();
  }

  private next(): void {
    this.outcomes.push({ slips: this.progress().slips, helped: this.helped() });
    const tasks = this.drill()?.tasks.length ?? 0;
    if (this.at() + 1 < tasks) this.ask(this.at() + 1);
    else this.finish();
  }

  private ask(at: number): void {
    this.at.set(at);
    this.progress.set(DRILL_START);
    this.helped.set(false);
    this.tried.set([]);
  }

  private finish(): void {
    const drill = this.drill();
    if (!drill) return;
    const figures = drillFigures(drill, this.outcomes);
    const [task] = drill.tasks;
    const pass = this.practice.write({
      song: this.song,
      title: this.words.say().fact(drill.title),
      step: drillStep(drill.id),
      kind: drill.id === 'warm-up' ? 'warm-up' : 'drill',
      parts: '',
      tempo: 0,
      goal: 0,
      hands: drill.tasks.every((t) => t.hand === task.hand) ? task.hand : 'both',
      figures,
      clean: isDrillClean(figures),
      seconds: Math.round((Date.now() - this.startedAt) / 1000),
    });
    this.result.set(pass);
    this.state.set('done');
  }
}
