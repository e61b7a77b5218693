import { Injectable, computed, effect, inject, linkedSignal, signal, untracked, type OnDestroy } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import {
  lessonScript,
  secondsToSay,
  type LessonLine,
  type LessonScript,
  type Passage,
  type Scene,
} from '@joined-hands/core/lesson';
import { midiOf } from '@joined-hands/core/pitch';
import {
  notesOf,
  pressWhileWaiting,
  releaseWhileWaiting,
  WAITING,
  waitPlaces,
  type PlacedNote,
  type Waiting,
} from '@joined-hands/core/practice';
import { aloud, spokenWith } from '@joined-hands/core/words';
import { Player } from '../../platform/audio/player';
import { scheduleStretch } from '../../platform/audio/schedule';
import { Voice } from '../../platform/audio/voice';
import { Ear } from '../../platform/input/ear';
import { KeyInput, soundsItself, type KeyPress } from '../../platform/input/key-input';
import { MANNERS, StandInPlayer } from '../../platform/input/stand-in-player';
import { latestWins } from '../../platform/latest';
import { DeskStore } from '../../platform/state/desk.store';
import { PlayersStore } from '../../platform/state/players.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { keptFor } from '../../platform/storage/first-player';
import { Library } from '../../platform/storage/library';
import { Words } from '../../platform/words';

/** What the lesson does now: nothing, speak, play, or leave it to the pianist. */
export type LessonState = 'ready' | 'telling' | 'playing' | 'turn' | 'done';

/** Milliseconds between the notes of a chord that is spelled out, and between two things that are done. */
const SPELLED = 420;
const BREATH = 450;

/** How much slower one press makes it, and the slowest. */
const SLOWER = 0.85;
const SLOWEST = 0.4;

/** How loud keys are that are only shown. */
const SHOWN = 0.55;

/** A lesson as it goes on: what is said now, what sounds, whose turn it is. */
@Injectable()
export class LessonRun implements OnDestroy {
  private readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  private readonly voice = inject(Voice);
  private readonly keys = inject(KeyInput);
  private readonly ear = inject(Ear);
  private readonly standIn = inject(StandInPlayer);
  private readonly settings = inject(SettingsStore);
  private readonly library = inject(Library);
  private readonly players = inject(PlayersStore);
  private readonly words = inject(Words);

  readonly script = computed((): LessonScript => {
    const arrangement = this.desk.arrangement();
    if (!arrangement) return { chapters: [] };
    const { firstHand, learnBy, joinOrder } = this.settings;
    return lessonScript(arrangement, { first: firstHand(), by: learnBy(), joins: joinOrder() });
  });
  readonly scenes = computed(() => this.script().chapters.flatMap((c) => c.scenes));
  /** Under which name it is kept where the lesson of the open song was left by whoever plays now. */
  private readonly keptAs = computed(() => keptFor('lesson', this.players.playing(), this.desk.id() ?? ''));
  /** The scene at hand, by its name: it stays the same where the lesson around it changes. */
  private readonly at = linkedSignal<string, string | null>({ source: this.keptAs, computation: () => null });
  readonly index = computed(() => {
    const at = this.at();
    return Math.max(0, this.scenes().findIndex((s) => s.id === at)); // prettier-ignore
  });
  readonly scene = computed((): Scene | null => this.scenes()[this.index()] ?? null);
  readonly chapter = computed(() => {
    const scene = this.scene();
    return this.script().chapters.findIndex((c) => scene !== null && c.scenes.includes(scene));
  });

  readonly state = signal<LessonState>('ready');
  /** The line that is said; null before the first. */
  readonly line = signal<LessonLine | null>(null);
  readonly caption = computed(() => {
    const line = this.line() ?? this.scene()?.lines[0];
    return line ? this.words.say().fact(line.says) : '';
  });
  /** Share of the tempo that the pianist wishes, and the hand that is heard where both would be. */
  readonly speed = signal(1);
  readonly only = signal<'both' | 'left' | 'right'>('both');
  /** True while a simulated player answers in the pianist's place. */
  readonly answered = signal(false);
  readonly waiting = signal<Waiting>(WAITING);
  readonly notes = computed((): readonly PlacedNote[] => {
    const [arrangement, passage] = [this.desk.arrangement(), this.passage()];
    return arrangement && passage ? notesOf(arrangement, passage) : [];
  });
  readonly places = computed(() => waitPlaces(this.notes()));
  /** Whether the music waits for the pianist now. */
  readonly waits = computed(() => this.state() === 'turn' && this.settings.lessonWaits());
  /** The place in the song that is shown. */
  readonly place = computed((): number | null => {
    if (this.waits()) {
      const at = this.places()[this.waiting().index]?.at;
      return this.notes().find((n) => n.at === at)?.place ?? null;
    }
    return this.state() === 'telling' ? (this.line()?.at ?? null) : this.player.position();
  });
  /** The passage of the scene, with what the pianist wishes. */
  readonly passage = computed((): Passage | null => {
    const plays = this.scene()?.plays ?? null;
    return plays && this.only() !== 'both' && plays.hands === 'both' ? { ...plays, hands: this.only() } : plays;
  });
  readonly tempo = computed(() => Math.round((this.desk.arrangement()?.song.tempo ?? 60) * (this.passage()?.share ?? 1) * this.speed())); // prettier-ignore

  private readonly begin = latestWins();
  private over: (() => void) | null = null;

  constructor() {
    this.keys.pressed.pipe(takeUntilDestroyed()).subscribe((press) => this.take(press));
    this.keys.released.pipe(takeUntilDestroyed()).subscribe((midi) => {
      this.waiting.update((w) => releaseWhileWaiting(w, midi, this.settings.octavesForgiven()));
    });
    effect(() => {
      const [song, key] = [this.desk.id(), this.keptAs()];
      if (song) untracked(() => void this.resume(key));
    });
    // The ear is told what is due.
    effect(() => {
      const [places, index, waits] = [this.places(), this.waiting().index, this.waits()];
      if (this.ear.on() && waits) this.ear.expect(places, index, true);
    });
    // The music has come to its end.
    effect(() => {
      if (this.player.state() === 'silent') untracked(() => this.ends());
    });
  }

  ngOnDestroy(): void {
    this.stop();
  }

  /** Goes on from where it is, or falls silent. */
  toggle(): void {
    if (this.state() === 'ready' || this.state() === 'done') void this.run(this.state() === 'done' ? 0 : this.index());
    else this.stop();
  }

  again(): void {
    void this.run(this.index());
  }

  /** Goes to the next scene or the one before it. */
  go(by: 1 | -1): void {
    const next = this.index() + by;
    if (next >= 0 && next < this.scenes().length) void this.run(next);
  }

  /** Goes to the first scene of a chapter. */
  goTo(chapter: number): void {
    const first = this.script().chapters[chapter]?.scenes[0];
    if (first) void this.run(this.scenes().indexOf(first));
  }

  slower(): void {
    this.speed.update((s) => Math.max(SLOWEST, s * SLOWER));
    this.again();
  }

  asUsual(): void {
    this.speed.set(1);
    this.again();
  }

  hear(only: 'both' | 'left' | 'right'): void {
    this.only.set(only);
    this.again();
  }

  stop(): void {
    this.begin();
    this.hush();
    this.state.set('ready');
  }

  private hush(): void {
    this.voice.stop();
    this.standIn.stop();
    this.player.stop();
    this.over = null;
  }

  /** Where the lesson of a song was left. */
  private async resume(key: string): Promise<void> {
    await this.players.load();
    const at = await this.library.setting<string>(key).catch(() => null);
    if (this.keptAs() === key && this.at() === null && typeof at === 'string') this.at.set(at);
  }

  /** Plays scene after scene from one on. */
  private async run(from: number): Promise<void> {
    this.stop();
    const isLatest = this.begin();
    const song = this.desk.id();
    const key = this.keptAs();
    for (let i = from; i < this.scenes().length; i++) {
      const scene = this.scenes()[i];
      this.at.set(scene.id);
      this.line.set(null);
      this.waiting.set(WAITING);
      // Without storage it begins at the beginning next time.
      if (song) void this.library.keepSetting(key, scene.id).catch(() => undefined);
      for (const line of scene.lines) {
        await this.tell(line, isLatest);
        if (!isLatest()) return;
      }
      if (scene.plays) {
        await this.pass(true);
        if (isLatest() && scene.asks) await this.pass(false);
        if (!isLatest()) return;
      }
      await wait(BREATH);
      if (!isLatest()) return;
    }
    this.at.set(null);
    if (song) void this.library.keepSetting(key, null).catch(() => undefined);
    this.line.set(null);
    this.state.set('done');
  }

  /** Says a line while its keys are struck; a chord is spelled from the bottom up first. */
  private async tell(line: LessonLine, isLatest: () => boolean): Promise<void> {
    this.state.set('telling');
    this.line.set(line);
    const said = this.voice.say(aloud(spokenWith(this.settings.noteNames()).fact(line.says)));
    const shown = wait((1000 * secondsToSay(line)) / this.speed());
    const midis = line.strikes.map(midiOf);
    if (line.says.code === 'lesson.chord' && !line.says.again)
      for (const midi of midis) {
        await this.player.strike([midi], SHOWN);
        await wait(SPELLED);
        if (!isLatest()) return;
      }
    if (midis.length > 0) await this.player.strike(midis, SHOWN);
    await Promise.all([said, shown]);
  }

  /** Plays the passage of the scene, or leaves it to the pianist: counted in and clicked, or waiting for the right keys. */
  private async pass(shown: boolean): Promise<void> {
    const [arrangement, passage] = [this.desk.arrangement(), this.passage()];
    if (!arrangement || !passage || this.notes().length === 0) return;
    const { from, to, hands, plain } = passage;
    const over = new Promise<void>((resolve) => (this.over = resolve));
    this.waiting.set(WAITING);
    this.state.set(shown ? 'playing' : 'turn');
    const tempo = this.tempo();
    const manner = { ...MANNERS.clean, tempo };
    if (this.waits()) {
      if (this.answered()) this.standIn.play(this.notes(), performance.now() / 1000 + 0.5, manner, this.index() + 1);
      return over;
    }
    const plan = scheduleStretch(arrangement, from, to, {
      hands: shown ? hands : 'none',
      plain,
      tempo,
      countIn: !shown,
      click: !shown,
    });
    await this.player.play(plan);
    if (this.player.state() !== 'playing') {
      this.ends();
      return;
    }
    if (!shown && this.answered()) this.standIn.play(this.notes(), this.player.began + plan.lead, manner, this.index() + 1);
    return over;
  }

  /** What sounded, or was waited for, is over. */
  private ends(): void {
    if (this.waits()) return;
    const { over } = this;
    this.over = null;
    over?.();
  }

  private take(press: KeyPress): void {
    if (!soundsItself(press)) void this.player.strike([press.midi], press.loudness);
    if (!this.waits()) return;
    const { waiting } = pressWhileWaiting(this.places(), this.waiting(), press.midi, this.settings.octavesForgiven());
    this.waiting.set(waiting);
    if (waiting.index < this.places().length) return;
    this.state.set('telling');
    this.ends();
  }
}

const wait = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));
