import {
  ALL_KEYS,
  CADENCES,
  DRILLS,
  drillOf,
  parseDrillId,
  type DrillAnswer,
  type DrillKind,
  type DrillWishes,
  type GripLabel,
} from '@joined-hands/core/catalogue/drills';
import { answerWords, CAUTION, DRILL_LABELS, gripWords, HAND_LABELS } from '@joined-hands/core/words';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { FormField, form, validateStandardSchema } from '@angular/forms/signals';
import { RouterLink } from '@angular/router';
import { keyName, parseChord, type Key } from '@joined-hands/core/harmony';
import { grouped } from '@joined-hands/core/lists';
import { midiOf, nameOf } from '@joined-hands/core/pitch';
import { dayAfter, daysBetween, drillOfStep, isDrill } from '@joined-hands/core/log';
import { isDue, reviewOf } from '@joined-hands/core/practice';
import { handsOf, type Hand } from '@joined-hands/core/song';
import { LETTERS } from '../../platform/input/key-input';
import { DeskStore } from '../../platform/state/desk.store';
import { Actions, type Action } from '../../platform/state/actions';
import { openSong } from '../../platform/state/open-song';
import { PracticeStore } from '../../platform/state/practice.store';
import { Choice } from '../../ui/choice';
import { EarButton } from '../../ui/ear/ear-button';
import type { PressedKey } from '../../ui/keyboard/keyboard';
import { PlayedKeys } from '../../ui/keyboard/played-keys';
import { MissingSong } from '../../ui/missing-song';
import { Dropdown } from '../../ui/dropdown';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { TextField } from '../../ui/text-field';
import { DrillRun } from './drill-run';
import { Words } from '../../platform/words';
import * as z from 'zod';

/** MIDI numbers between which most drills lie. */
const USUAL_KEYS = [48, 71];

const ASKED = z.object({
  chord: z.string().refine((text) => parseChord(text.trim()).kind === 'chord', {
    error: ({ input }) => $localize`“${String(input)}” is not a chord symbol. Type one such as Dm7 or Gsus4.`,
  }),
});

/** Drills: shapes, closes and runs by themselves, asked for by name or by sight, coming back by how they went. */
@Component({
  selector: 'jh-drills',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Dropdown, EarButton, FormField, MissingSong, PlayedKeys, Pressed, RouterLink, Signs, TextField],
  providers: [DrillRun],
  templateUrl: './drills.html',
  styleUrl: './drills.less',
})
export class DrillsScreen {
  /** The song that the drills are of; none where only general ones are asked for. */
  readonly id = input<string>();
  /** The kind of drill that is opened first. */
  readonly drill = input<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly practice = inject(PracticeStore);
  protected readonly run = inject(DrillRun);
  /** The keys of the task, within two octaves around middle C at least, on a keyboard that has no room for all. */
  protected readonly seen = computed(() => [
    ...USUAL_KEYS,
    ...(this.run.task()?.grips.flatMap((g) => g.pitches.map(midiOf)) ?? []),
  ]);
  protected readonly allKeys = computed(() => ALL_KEYS.map((key) => ({ id: keyName(key), text: this.words.say().key(key) })));
  protected readonly cadences = CADENCES.map((id) => ({ id, text: id }));
  protected readonly handChoices: readonly { id: Hand; text: string }[] = [
    { id: 'left', text: $localize`Left hand` },
    { id: 'right', text: $localize`Right hand` },
  ];
  protected readonly modes: readonly { id: Key['mode']; text: string }[] = [
    { id: 'major', text: $localize`In major` },
    { id: 'minor', text: $localize`In minor` },
  ];

  protected readonly arrangement = computed(() => (this.id() ? this.desk.arrangement() : null));
  protected readonly missing = computed(() => this.id() !== undefined && (this.desk.missing() || this.desk.unopened() !== null));
  protected readonly hands = computed(() => this.desk.document()?.hands ?? handsOf());
  protected readonly book = computed(() => DRILLS.filter((e) => !e.ofSong || this.arrangement()));
  protected readonly kind = signal<DrillKind>('cadence');
  protected readonly words = inject(Words);
  protected readonly handLabels = HAND_LABELS;
  protected readonly caution = CAUTION;
  protected readonly labels = DRILL_LABELS;
  protected readonly wishes = signal<DrillWishes>({
    key: { tonic: 'C', mode: 'major' },
    hand: 'left',
    cadence: CADENCES[0],
    chord: 'Dm7',
    seed: Date.now() % 100_000,
  });
  /** The chord as it is typed, which may be none yet. */
  private readonly typed = linkedSignal(() => ({ chord: this.wishes().chord }));
  protected readonly fields = form(this.typed, (path) => validateStandardSchema(path, ASKED));
  private readonly made = computed(() => drillOf(this.kind(), this.wishes(), this.arrangement(), this.hands()));
  protected readonly title = computed(() => {
    const drill = this.run.drill();
    return drill ? this.words.say().fact(drill.title) : DRILL_LABELS[this.kind()].title;
  });
  protected readonly entry = computed(() => DRILLS.find((e) => e.kind === this.kind()) ?? DRILLS[0]);
  protected readonly keyName = computed(() => keyName(this.wishes().key));

  /** Passes of drills by what they were of: the general ones, and those of the open song. */
  private readonly kept = computed(() => {
    const own = this.practice.passes().filter((p) => isDrill(p.kind) && (p.song === null || p.song === this.id()));
    return grouped(own, (p) => drillOfStep(p.step) ?? '');
  });
  protected readonly due = computed(() =>
    [...this.kept()].flatMap(([id, passes]) => {
      const last = passes[passes.length - 1];
      return isDue(reviewOf(passes), this.practice.today()) ? [{ id, title: last.title }] : [];
    }),
  );
  /** When the drill at hand comes back, in words. */
  protected readonly comesBack = computed(() => {
    const review = reviewOf(this.kept().get(this.run.drill()?.id ?? '') ?? []);
    if (!review) return '';
    const today = this.practice.today();
    if (review.due <= today) return $localize`It is due.`;
    if (review.due === dayAfter(today, 1)) return $localize`It comes back tomorrow.`;
    return $localize`It comes back in ${daysBetween(today, review.due)} days.`;
  });

  protected readonly shown = computed((): PressedKey[] => {
    const [task, grip] = [this.run.task(), this.run.grip()];
    if (!task || !grip || !this.run.inSight() || this.run.state() === 'done') return [];
    const struck = this.run.progress().struck;
    return grip.pitches
      .map((pitch, i) => ({ midi: midiOf(pitch), hand: task.hand, text: task.names ? '' : `${grip.fingers[i] ?? ''}` }))
      .filter((k) => !struck.includes(k.midi));
  });
  protected readonly outcome = computed(() => {
    const pass = this.run.result();
    const f = pass?.figures;
    if (!pass || !f) return '';
    const done = { clean: pass.clean, seconds: pass.seconds, wrong: f.extra, shown: f.missed, of: f.notes };
    return `${this.words.say().fact({ code: 'screen.drilled', ...done })} ${this.comesBack()}`;
  });

  constructor() {
    void this.practice.load();
    openSong(this.id);
    inject(Actions).register(() => this.doable());
    effect(() => {
      const wished = this.drill();
      const first = DRILLS.find((e) => e.kind === wished) ?? (this.id() ? DRILLS[0] : undefined);
      if (first) untracked(() => this.kind.set(first.kind));
    });
    effect(() => {
      const drill = this.made();
      untracked(() => drill !== this.run.drill() && this.lay());
    });
  }

  private lay(): void {
    this.run.lay(this.made(), this.entry().ofSong ? (this.id() ?? null) : null);
  }

  protected choose(kind: DrillKind): void {
    this.kind.set(kind);
    this.wish({});
  }

  protected wish(wishes: Partial<DrillWishes>): void {
    this.wishes.update((w) => ({ ...w, ...wishes, seed: w.seed + 1 }));
  }

  protected wishKey(name: string): void {
    const key = ALL_KEYS.find((k) => keyName(k) === name);
    if (key) this.wish({ key });
  }

  /** Opens a drill that was kept. */
  protected reopen(id: string): void {
    const found = parseDrillId(id, this.wishes());
    if (!found) return;
    this.kind.set(found.kind);
    this.wish(found.wishes);
  }

  /** The drill once more; drawn questions are drawn anew. */
  protected again(): void {
    if (this.run.state() === 'done') {
      this.wish({});
      this.lay();
    }
    this.run.start();
  }

  protected answer(of: DrillAnswer): string {
    return answerWords(of, this.words.say());
  }

  protected grip(label: GripLabel): string {
    // A single key goes by its letter: the octave is seen on the keyboard.
    return 'pitch' in label ? this.words.say().note(nameOf(label.pitch)) : gripWords(label, this.words.say());
  }

  /** What can be done in a drill, as it stands. */
  private doable(): Action[] {
    const { run } = this;
    const names = run.task()?.names?.all ?? [];
    const asking = run.state() === 'asking';
    return [
      {
        name: asking ? $localize`Show or hear the keys` : $localize`Start the drill`,
        keys: [' ', 'Enter'],
        run: () => (asking ? run.help() : this.again()),
      },
      ...names.map((name, i) => ({ name: $localize`Answer: ${this.answer(name)}`, keys: [`${i + 1}`], run: () => run.name(i) })),
      { name: $localize`Stop the drill`, keys: ['Escape'], run: () => run.stop() },
      ...LETTERS,
      ...this.book().map(({ kind }) => ({ name: $localize`Drill: ${DRILL_LABELS[kind].title}`, run: () => this.choose(kind) })),
    ];
  }
}
