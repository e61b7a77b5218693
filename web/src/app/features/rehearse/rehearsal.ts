import { Injectable, computed, effect, inject, linkedSignal, signal, untracked, type OnDestroy } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ofStep, type Pass } from '@joined-hands/core/log';
import {
  asHeardBy,
  figuresOf,
  grade,
  isClean,
  isOver,
  notesOf,
  pressWhileWaiting,
  releaseWhileWaiting,
  REST,
  stepsOf,
  stepStates,
  todayFor,
  WAITING,
  waitPlaces,
  withoutRest,
  type Grade,
  type HeardBy,
  type HeardNote,
  type PassFigures,
  type StepState,
  type VerdictFact,
  type Waiting,
  verdictsOf,
} from '@joined-hands/core/practice';
import { scheduleStretch } from '../../platform/audio/schedule';
import { Player } from '../../platform/audio/player';
import { Ear } from '../../platform/input/ear';
import { KeyInput, soundsItself, type KeyPress } from '../../platform/input/key-input';
import { MANNERS, StandInPlayer } from '../../platform/input/stand-in-player';
import { DeskStore } from '../../platform/state/desk.store';
import { PracticeStore } from '../../platform/state/practice.store';
import { SettingsStore } from '../../platform/state/settings.store';

/** What came of a pass. */
export interface Result {
  readonly step: string;
  readonly words: readonly VerdictFact[];
  readonly figures: PassFigures | null;
  readonly clean: boolean;
  /** What was heard against what was asked; null where the music waited or the pianist judged. */
  readonly grade: Grade | null;
  readonly heardBy: HeardBy;
  readonly pass: Pass;
}

/** Milliseconds between a pass and the next one of a loop. */
const LOOP_PAUSE = 1200;
/** Minutes that a plan of the day is never shorter than. */
const LEAST_MINUTES = 5;

/** One song on the piano stand: its plan, the step at hand, the pass that is played, and what came of it. */
@Injectable()
export class Rehearsal implements OnDestroy {
  private readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  private readonly keys = inject(KeyInput);
  private readonly ear = inject(Ear);
  private readonly standIn = inject(StandInPlayer);
  private readonly settings = inject(SettingsStore);
  private readonly practice = inject(PracticeStore);

  readonly steps = computed(() => {
    const arrangement = this.desk.arrangement();
    return arrangement ? stepsOf(arrangement, { order: this.settings.stepOrder(), joins: this.settings.joinOrder() }) : [];
  });
  readonly passes = computed(() => this.practice.bySong().get(this.desk.id()) ?? []);
  readonly states = computed(() => stepStates(this.steps(), this.passes(), this.practice.today()));
  /** Minutes practised today, on this song. */
  readonly doneToday = computed(() =>
    Math.round(
      this.passes()
        .filter((p) => p.day === this.practice.today())
        .reduce((sum, p) => sum + p.seconds, 0) / 60,
    ),
  );
  readonly today = computed(() =>
    todayFor(this.states(), Math.max(LEAST_MINUTES, this.settings.minutes() - this.doneToday()), this.practice.today()),
  );

  private readonly chosen = signal<string | null>(null);
  /** The current step: the one chosen, or the first of today. */
  readonly current = computed((): StepState | null => {
    const states = this.states();
    const first = this.today().find((i) => i.step)?.step?.id;
    return states.find((s) => s.step.id === this.chosen()) ?? states.find((s) => s.step.id === first) ?? states[0] ?? null;
  });
  readonly step = computed(() => this.current()?.step ?? null);
  private readonly rung = computed(() => {
    const place = this.current()?.ladder;
    return place ? place.rungs[place.rung] : 60;
  });
  /** Quarter notes a minute: the rung of the ladder, until another is wished for, and again when the step or its rung changes. */
  readonly tempo = linkedSignal({
    source: computed(() => ({ step: this.step()?.id, rung: this.rung() }), {
      equal: (a, b) => a.step === b.step && a.rung === b.rung,
    }),
    computation: ({ rung }) => rung,
  });
  readonly notes = computed(() => {
    const arrangement = this.desk.arrangement();
    const step = this.step();
    return arrangement && step ? notesOf(arrangement, step) : [];
  });

  readonly state = signal<'ready' | 'hearing' | 'playing' | 'waiting' | 'asking'>('ready');
  /** True where nothing is under way, and a pass can begin. */
  readonly idle = computed(() => this.state() === 'ready' || this.state() === 'asking');
  readonly result = signal<Result | null>(null);
  readonly waiting = signal<Waiting>(WAITING);
  readonly places = computed(() => waitPlaces(this.notes()));
  /** Which of them the music waits at. */
  private readonly waitsAt = computed(() => this.waiting().index);
  /** The place in the song that is due now: what sounds, what the music waits for, or where the step begins. */
  readonly place = computed((): number | null => {
    if (this.state() === 'waiting') return this.placeOf(this.waiting().index);
    return this.player.position();
  });
  /** Seconds of practice since the last rest; looked at after every pass. */
  readonly sinceRest = signal(0);
  readonly restDue = computed(() => this.sinceRest() >= REST.after);

  private heard: HeardNote[] = [];
  /** Whether a key of this pass came by the microphone: what it cannot tell is not held against the pianist. */
  private heardBy: HeardBy = 'keys';
  private slips = 0;
  private startedAt = 0;
  private musicAt = Infinity;
  private timer = 0;

  constructor() {
    this.keys.pressed.pipe(takeUntilDestroyed()).subscribe((press) => this.take(press));
    this.keys.released.pipe(takeUntilDestroyed()).subscribe((midi) => {
      this.waiting.update((w) => releaseWhileWaiting(w, midi, this.settings.octavesForgiven()));
    });
    // The ear is told what is due: the place that the music waits at, or all that is to come.
    effect(() => {
      const places = this.places();
      const [state, on] = [this.state(), this.ear.on()];
      if (!on || (state !== 'waiting' && state !== 'playing')) return;
      if (state === 'waiting') this.ear.expect(places, this.waitsAt(), true);
      else this.ear.expect(places);
    });
    // When the music has come to its end, a last late note still has a beat.
    effect(() => {
      const silent = this.player.state() === 'silent';
      untracked(() => {
        if (!silent) return;
        if (this.state() === 'hearing') this.state.set('ready');
        if (this.state() === 'playing' && this.musicAt < Infinity) this.later(60_000 / this.tempo(), () => void this.finish());
      });
    });
  }

  ngOnDestroy(): void {
    this.stop();
  }

  choose(id: string): void {
    this.stop();
    this.chosen.set(id);
    this.result.set(null);
  }

  /** Goes to the step after or before this one in the plan. */
  go(by: 1 | -1): void {
    const states = this.states();
    const at = states.findIndex((s) => s.step.id === this.step()?.id);
    const next = states[at + by];
    if (next) this.choose(next.step.id);
  }

  setTempo(tempo: number): void {
    const place = this.current();
    if (place) this.tempo.set(Math.min(Math.max(Math.round(tempo), 20), Math.round(place.step.goal * 1.2)));
  }

  /** Begins a pass, or breaks it off. */
  toggle(): void {
    if (this.idle()) void this.start();
    else this.stop();
  }

  /** The step as it should sound. */
  hear(): void {
    const [arrangement, step] = [this.desk.arrangement(), this.step()];
    this.stop();
    if (!arrangement || !step) return;
    this.state.set('hearing');
    const { hands, plain } = step;
    void this.player.play(
      scheduleStretch(arrangement, step.from, step.to, { hands, plain, tempo: this.tempo(), countIn: false, click: false }),
    );
  }

  /** Lets the stand-in play a pass, with the mistakes it is set to make. */
  async letPlay(): Promise<void> {
    await this.start();
    if (this.state() === 'ready') return;
    const from = this.state() === 'waiting' ? performance.now() / 1000 + 0.5 : this.musicAt;
    const manner = { ...MANNERS[this.settings.standIn()], tempo: this.tempo() };
    this.standIn.play(this.notes(), from, manner, this.passes().length + 1);
  }

  stop(): void {
    clearTimeout(this.timer);
    this.standIn.stop();
    this.player.stop();
    this.musicAt = Infinity;
    this.state.set('ready');
  }

  private async start(): Promise<void> {
    const [arrangement, step] = [this.desk.arrangement(), this.step()];
    this.stop();
    if (!arrangement || !step) return;
    this.result.set(null);
    this.heard = [];
    this.heardBy = 'keys';
    this.slips = 0;
    this.waiting.set(WAITING);
    this.startedAt = performance.now() / 1000;
    if (this.settings.pace() === 'wait') {
      this.state.set('waiting');
      return;
    }
    this.state.set('playing');
    const other = step.hands === 'right' ? 'left' : step.hands === 'left' ? 'right' : 'none';
    const plan = scheduleStretch(arrangement, step.from, step.to, {
      hands: this.settings.otherHand() ? other : 'none',
      plain: step.plain,
      tempo: this.tempo(),
      countIn: true,
      click: this.settings.practiceClick(),
    });
    await this.player.play(plan);
    if (this.player.state() !== 'playing') {
      this.stop();
      return;
    }
    this.musicAt = this.player.began + plan.lead;
    this.startedAt = this.musicAt;
  }

  private take(press: KeyPress): void {
    if (!soundsItself(press)) void this.player.strike([press.midi], press.loudness);
    if (press.source === 'microphone') this.heardBy = 'ear';
    if (this.state() === 'waiting') return this.takeWaiting(press);
    // What was played before the last half beat of the count-in was only the hand finding its place.
    if (this.state() !== 'playing' || press.time < this.musicAt - 30 / this.tempo()) return;
    this.heard.push({ midi: press.midi, time: press.time });
    if (isOver(this.notes(), this.heard)) void this.finish();
  }

  private takeWaiting({ midi, source }: KeyPress): void {
    const { waiting, what } = pressWhileWaiting(this.places(), this.waiting(), midi, this.settings.octavesForgiven());
    if (what === 'wrong' && source !== 'microphone') this.slips++;
    this.waiting.set(waiting);
    if (waiting.index >= this.places().length) void this.finish();
  }

  private async finish(): Promise<void> {
    const waited = this.state() === 'waiting';
    const seconds = performance.now() / 1000 - this.startedAt;
    // What has sounded is listened to before it is judged.
    if (!waited && this.ear.on()) {
      const { startedAt } = this;
      await this.ear.settled();
      if (this.state() !== 'playing' || this.startedAt !== startedAt) return;
    }
    this.stop();
    if (waited) {
      this.keep(seconds, this.slipFacts(), this.waitFigures(), this.slips === 0, null, 0);
      return;
    }
    if (this.heard.length === 0) {
      this.lastSeconds = seconds;
      this.state.set('asking');
      return;
    }
    const tempo = this.tempo();
    const options = { tempo, octavesForgiven: this.settings.octavesForgiven() };
    const graded = asHeardBy(grade(this.notes(), this.heard, options), this.heardBy);
    this.keep(seconds, verdictsOf(graded, this.heardBy), figuresOf(graded), isClean(graded), graded, tempo);
  }

  private lastSeconds = 0;

  /** The pianist's own judgement, where nothing was heard. */
  judge(clean: boolean): void {
    this.state.set('ready');
    this.keep(
      this.lastSeconds,
      [{ code: clean ? 'verdict.marked-clean' : 'verdict.marked-not-yet' }],
      null,
      clean,
      null,
      this.tempo(),
    );
  }

  private keep(
    seconds: number,
    words: readonly VerdictFact[],
    figures: PassFigures | null,
    clean: boolean,
    graded: Grade | null,
    tempo: number,
  ): void {
    const [step, arrangement] = [this.step(), this.desk.arrangement()];
    if (!step || !arrangement) return;
    const { title } = arrangement.song;
    const played = { ...ofStep(step), song: this.desk.id(), title, tempo, figures, clean, seconds: Math.round(seconds) };
    const pass = this.practice.write(played);
    // The step stays at hand, however the plan moves on.
    this.chosen.set(step.id);
    this.result.set({ step: step.id, words, figures, clean, grade: graded, heardBy: this.heardBy, pass });
    this.sinceRest.set(withoutRest(this.practice.passes(), pass.at));
    if (this.settings.loop() && figures) this.later(LOOP_PAUSE, () => void this.start());
  }

  private slipFacts(): VerdictFact[] {
    return [this.heardBy === 'ear' ? { code: 'verdict.found-by-ear' } : { code: 'verdict.found', slips: this.slips }];
  }

  private waitFigures(): PassFigures {
    const notes = this.notes().length;
    const accuracy = Math.round((100 * notes) / Math.max(1, notes + this.slips));
    return { notes, right: notes, wrong: 0, missed: 0, extra: this.slips, early: 0, late: 0, accuracy };
  }

  private placeOf(index: number): number | null {
    const at = this.places()[index]?.at;
    return this.notes().find((n) => n.at === at)?.place ?? null;
  }

  private later(wait: number, act: () => void): void {
    clearTimeout(this.timer);
    this.timer = window.setTimeout(act, wait);
  }
}
