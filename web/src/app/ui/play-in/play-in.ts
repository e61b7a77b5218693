import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  type OnDestroy,
} from '@angular/core';
import { FormField, form, validateStandardSchema } from '@angular/forms/signals';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { nameOf, pitchAt } from '@joined-hands/core/pitch';
import type { Song } from '@joined-hands/core/song';
import { meterFrom, meterName } from '@joined-hands/core/time';
import type { Recording } from '@joined-hands/core/formats';
import { wholeNumber } from '../../platform/form-schema';
import { Microphone, type HeardBlock } from '../../platform/audio/microphone';
import { Player } from '../../platform/audio/player';
import { Actions } from '../../platform/state/actions';
import { KeyInput } from '../../platform/input/key-input';
import { NumberField } from '../number-field';
import { Choice } from '../choice';
import { Keyboard } from '../keyboard/keyboard';
import { Live } from '../live';
import { Pressed } from '../pressed';
import { Signs } from '../signs';
import { Words } from '../../platform/words';
import { TROUBLE, Workers } from '../../platform/workers/workers';

const METERS = ['2/4', '3/4', '4/4', '6/8'] as const;
const VALUES = [
  { id: '4', text: $localize`whole` },
  { id: '2', text: $localize`half` },
  { id: '1', text: $localize`quarter` },
  { id: '0.5', text: $localize`eighth` },
  { id: '0.25', text: $localize`sixteenth` },
] as const;
type ValueId = (typeof VALUES)[number]['id'];

/** Quarter notes a minute. */
const USUAL = 80;
const TEMPO = wholeNumber(30, 240, $localize`A tempo is 30 to 240 quarter notes a minute.`);

/** A key or a rest that was entered step by step. */
interface RecordedStep {
  readonly midi: number | null;
  readonly quarters: number;
}

/** Quarters of the grid against which a singer is late as a whole. */
const SUNG_GRID = 0.5;

/** Where the middle note of a tune lies that a right hand plays: A3 to A5. */
const MIDDLE = { low: 60, high: 81 };

const NAMES = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

/** A note value in words; nothing for a quarter. */
function valueWords(quarters: number): string {
  const plain = VALUES.find((v) => Number(v.id) === quarters);
  const dotted = VALUES.find((v) => Number(v.id) * 1.5 === quarters);
  return quarters === 1 ? '' : (plain?.text ?? $localize`dotted ${dotted?.text ?? quarters}`);
}

/** Playing a tune in, in time with a click or step by step, on a connected keyboard, the screen's keys or the computer's letters. */
@Component({
  selector: 'jh-play-in',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, FormField, Keyboard, Live, NumberField, Pressed, Signs],
  templateUrl: './play-in.html',
  styleUrl: './play-in.less',
  host: { '(document:keydown)': 'onKey($event, true)', '(document:keyup)': 'onKey($event, false)' },
})
export class PlayIn implements OnDestroy {
  readonly played = output<Recording>();
  /** The song that the tune is for, whose meter and tempo are kept; null for a new one. */
  readonly song = input<Song | null>(null);
  protected readonly keys = inject(KeyInput);
  protected readonly player = inject(Player);
  protected readonly microphone = inject(Microphone);
  private readonly workers = inject(Workers);
  private readonly words = inject(Words);
  /** The beat that is counted, for those who sing: a click would be heard with them. */
  protected readonly beat = signal<number | null>(null);
  /** What was heard of a song that was sung, in words. */
  protected readonly heard = signal<string | null>(null);
  private blocks: HeardBlock[] = [];
  protected readonly singHint = computed(() =>
    this.free()
      ? $localize`Sing, hum or whistle the melody at your own pace: its tempo is found. Nothing is recorded or kept, only the notes.`
      : $localize`Sing, hum or whistle the melody: one bar is counted aloud, then the beat is shown. Nothing is recorded or kept, only the notes.`,
  );
  protected readonly paces = [
    { id: 'beat' as const, text: $localize`To a beat` },
    { id: 'free' as const, text: $localize`At my own pace` },
  ];
  protected readonly pace = signal<'beat' | 'free'>('beat');
  /** Sung to no beat, whose tempo is found. */
  protected readonly free = computed(() => this.mode() === 'sung' && this.pace() === 'free' && this.song() === null);
  protected readonly modes = [
    { id: 'steps' as const, text: $localize`Step by step` },
    { id: 'time' as const, text: $localize`In time` },
    { id: 'sung' as const, text: $localize`Sing it` },
  ];
  protected readonly mode = signal<'steps' | 'time' | 'sung'>('steps');
  protected readonly meters = METERS.map((id) => ({ id, text: id }));
  protected readonly meterName = signal<string>('4/4');
  protected readonly title = signal('');
  private readonly tempo = signal<number | null>(USUAL);
  /** The last tempo that can be played. */
  private readonly beats = linkedSignal<number | null, number>({
    source: this.tempo,
    computation: (typed, before) => (TEMPO.safeParse(typed).success ? (typed ?? USUAL) : (before?.value ?? USUAL)),
  });
  protected readonly tempoField = form(this.tempo, (path) => validateStandardSchema(path, TEMPO));
  protected readonly values = VALUES;
  protected readonly value = signal<ValueId>('1');
  protected readonly dotted = signal(false);
  protected readonly steps = signal<readonly RecordedStep[]>([]);
  /** Counting in, recording, or neither. */
  protected readonly state = signal<'idle' | 'counting' | 'recording' | 'hearing'>('idle');
  protected readonly taken = signal(0);
  private notes: { at: number; until: number; midi: number; unsure?: boolean }[] = [];
  private readonly down = new Map<number, number>();
  private origin = 0;
  private timer = 0;
  private pulse = 0;

  private readonly meter = computed(() => this.song()?.meters[0] ?? meterFrom(this.meterName()));

  /** What was entered, as it is read back: "C half, rest"; quarters go without saying. */
  protected readonly entered = computed(() =>
    this.steps().map((s) => ({
      text: s.midi === null ? 'rest' : this.words.say().note(nameOf(spelled(s.midi))),
      value: valueWords(s.quarters),
    })),
  );

  constructor() {
    effect(() => {
      const song = this.song();
      if (!song) return;
      this.tempo.set(Math.round(song.tempo));
      this.meterName.set(meterName(song.meters[0]));
    });
    this.keys.pressedKeys.pipe(takeUntilDestroyed()).subscribe((midi) => this.press(midi));
    this.keys.released.pipe(takeUntilDestroyed()).subscribe((midi) => this.release(midi));
    inject(Actions).register(() =>
      this.mode() === 'steps'
        ? [
            { name: $localize`Undo the last note`, keys: ['Backspace'], run: () => this.takeBack() },
            { name: $localize`A rest`, keys: ['r'], run: () => this.add(null) },
          ]
        : [
            {
              name: this.state() === 'idle' ? $localize`Count in and record` : $localize`Stop`,
              keys: [' '],
              run: () => this.toggle(),
            },
          ],
    );
  }

  ngOnDestroy(): void {
    this.end();
  }

  /** Letters of the computer stand for keys of the piano. */
  protected onKey(event: KeyboardEvent, pressed: boolean): void {
    if (this.keys.letter(event, pressed)) event.preventDefault();
  }

  private press(midi: number): void {
    void this.player.strike([midi]);
    if (this.mode() === 'steps') return this.add(midi);
    if (this.state() !== 'idle') this.down.set(midi, this.now());
  }

  private release(midi: number): void {
    const at = this.down.get(midi);
    this.down.delete(midi);
    if (at === undefined || this.state() === 'idle') return;
    // What was played before the last beat of the count-in was only the hand finding its place.
    if (at < -this.meter().beats * (4 / this.meter().unit) + 0.5) return;
    this.notes.push({ at, until: Math.max(at + 0.1, this.now()), midi });
    this.taken.set(this.notes.length);
  }

  /** Quarter notes since the first beat after the count-in; below 0 while it counts. */
  private now(): number {
    return ((performance.now() - this.origin) / 60_000) * this.beats();
  }

  protected add(midi: number | null): void {
    const quarters = Number(this.value()) * (this.dotted() ? 1.5 : 1);
    this.steps.update((s) => [...s, { midi, quarters }]);
    this.tell();
  }

  protected takeBack(): void {
    if (this.mode() !== 'steps') return;
    this.steps.update((s) => s.slice(0, -1));
    this.tell();
  }

  protected clear(): void {
    this.steps.set([]);
    this.notes = [];
    this.taken.set(0);
    this.tell();
  }

  protected chooseMeter(meter: string): void {
    this.meterName.set(meter);
    this.tell();
  }

  protected choose(mode: 'steps' | 'time' | 'sung'): void {
    this.end();
    this.clear();
    this.mode.set(mode);
    this.tell();
  }

  protected choosePace(pace: 'beat' | 'free'): void {
    this.end();
    this.clear();
    this.heard.set(null);
    this.pace.set(pace);
  }

  /** Counts one bar in, then records until it is stopped. */
  protected toggle(): void {
    if (this.state() === 'hearing') return;
    if (this.state() !== 'idle') return this.finish();
    if (this.mode() === 'sung') return void this.sing();
    this.count(true);
  }

  /** Turns the microphone on, counts a bar and listens; beats are shown, not heard. */
  private async sing(): Promise<void> {
    this.heard.set(null);
    this.blocks = [];
    const on = await this.microphone.start(
      (block) => this.blocks.push(block),
      () => this.finish(),
    );
    if (!on) return;
    if (this.free()) this.state.set('recording');
    else this.count(false);
  }

  private count(aloud: boolean): void {
    this.notes = [];
    this.taken.set(0);
    const { beats, unit } = this.meter();
    const beat = (60_000 / this.beats()) * (4 / unit);
    this.origin = performance.now() + beats * beat;
    this.state.set('counting');
    this.pulse = 0;
    const tick = () => {
      // Once the singing begins the beat is seen only.
      if (aloud || this.pulse < beats) void this.player.tick(this.pulse % beats === 0);
      this.beat.set((this.pulse % beats) + 1);
      this.pulse++;
      if (this.pulse > beats) this.state.set('recording');
      // Each click is aimed at its own place, so that lateness does not add up.
      this.timer = window.setTimeout(tick, this.origin + (this.pulse - beats) * beat - performance.now());
    };
    tick();
  }

  private finish(): void {
    if (this.mode() === 'sung') return void this.hear();
    for (const midi of [...this.down.keys()]) this.release(midi);
    this.end();
    this.tell();
  }

  /** Makes notes of what was sung since the count-in began. */
  private async hear(): Promise<void> {
    const [blocks, rate, origin] = [this.blocks, this.microphone.rate, this.origin / 1000];
    this.end();
    if (blocks.length === 0) return;
    this.state.set('hearing');
    const samples = new Float32Array(blocks.length * blocks[0].samples.length);
    blocks.forEach((b, i) => samples.set(b.samples, i * blocks[0].samples.length));
    const { beats, unit } = this.meter();
    const line = this.free()
      ? await this.workers.hearing.call('freeLine', samples, rate, (beats * 4) / unit)
      : await this.workers.hearing.call('line', samples, rate, {
          origin: origin - blocks[0].time,
          quarters: this.beats() / 60,
          grid: SUNG_GRID,
          // The clicks of the count-in are no notes.
          pickup: (2 * 4) / unit,
        });
    // Left meanwhile, nobody waits for it.
    if (this.state() !== 'hearing') return;
    this.state.set('idle');
    if (!line.ok) {
      this.heard.set($localize`What you sang could not be heard: ${TROUBLE[line.trouble]}. Try again.`);
      return;
    }
    const found = line.value;
    const sung = found === null ? [] : 'tempo' in found ? found.notes : found;
    if (found !== null && 'tempo' in found) this.tempo.set(Math.min(240, Math.max(30, found.tempo)));
    const octaves = octavesToSing(sung.map((n) => n.midi));
    this.notes = sung.map(({ at, until, midi, sure }) => ({ at, until, midi: midi + 12 * octaves, unsure: !sure }));
    this.taken.set(this.notes.length);
    const unsure = sung.filter((n) => !n.sure).length;
    this.heard.set(
      sung.length === 0
        ? $localize`No notes were heard. Sing closer to the microphone, on “la”, and try again.`
        : this.words.say().fact({ code: 'screen.sung', notes: sung.length, unsure, octaves }),
    );
    this.tell();
  }

  private end(): void {
    clearTimeout(this.timer);
    this.microphone.stop();
    this.beat.set(null);
    this.blocks = [];
    this.down.clear();
    this.state.set('idle');
  }

  protected tell(): void {
    let at = 0;
    const stepped = this.steps().flatMap(({ midi, quarters }) => {
      const note = midi === null ? [] : [{ at, until: at + quarters, midi }];
      at += quarters;
      return note;
    });
    const notes = this.mode() === 'steps' ? stepped : this.notes;
    this.played.emit({ title: this.title().trim() || $localize`My song`, tempo: this.beats(), meter: this.meter(), notes });
  }
}

/** Octaves by which a line that was sung or whistled is written higher, so that most of it lies over the middle of the piano. */
function octavesToSing(midis: readonly number[]): number {
  if (midis.length === 0) return 0;
  const middle = [...midis].sort((a, b) => a - b)[midis.length >> 1];
  return middle < MIDDLE.low
    ? Math.ceil((MIDDLE.low - middle) / 12)
    : middle > MIDDLE.high
      ? -Math.ceil((middle - MIDDLE.high) / 12)
      : 0;
}

const spelled = (midi: number): string => pitchAt(NAMES[midi % 12], midi);
