import { HAND_LABELS, SCENE_LABELS } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input, viewChild } from '@angular/core';
import { NzProgressComponent } from 'ng-zorro-antd/progress';
import { plainScore } from '@joined-hands/core/practice';
import { midiOf } from '@joined-hands/core/pitch';
import { handsOf } from '@joined-hands/core/song';
import { Voice } from '../../platform/audio/voice';
import { keepAwake } from '../../platform/awake';
import { LETTERS } from '../../platform/input/key-input';
import { leadBy, LEADERS } from '../../platform/input/lead';
import { Actions, type Action } from '../../platform/state/actions';
import { DeskStore, type HandView, type Selection } from '../../platform/state/desk.store';
import { openSong } from '../../platform/state/open-song';
import { SettingsStore } from '../../platform/state/settings.store';
import { Viewport } from '../../platform/viewport';
import { Words } from '../../platform/words';
import { Check } from '../../ui/check';
import { Choice } from '../../ui/choice';
import { Dropdown } from '../../ui/dropdown';
import { EarButton } from '../../ui/ear/ear-button';
import { Go } from '../../ui/go';
import { heightOf } from '../../ui/height-of';
import { JoinStrip } from '../../ui/join-strip/join-strip';
import type { HandSpan, PressedKey } from '../../ui/keyboard/keyboard';
import { PlayedKeys } from '../../ui/keyboard/played-keys';
import { MissingSong } from '../../ui/missing-song';
import { Pop } from '../../ui/pop';
import { Pressed } from '../../ui/pressed';
import { LEARN_WISHES } from '../../ui/wish-words';
import { Signs } from '../../ui/signs';
import { LessonFiles } from './lesson-files';
import { LessonRun } from './lesson-run';
import { namedNotes, viewOf } from './reel';
import { seenBy } from './stills';

/** The lesson at the piano: it says where the hand lies, plays, names, and leaves each phrase to the pianist. */
@Component({
  selector: 'jh-lesson',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NzProgressComponent, Check, Choice, Dropdown, EarButton, Go, JoinStrip, MissingSong, PlayedKeys, Pop, Pressed, Signs],
  providers: [LessonRun, LessonFiles],
  templateUrl: './lesson.html',
  styleUrl: './lesson.less',
})
export class Lesson {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly run = inject(LessonRun);
  protected readonly files = inject(LessonFiles);
  protected readonly voice = inject(Voice);
  protected readonly settings = inject(SettingsStore);
  protected readonly viewport = inject(Viewport);
  private readonly words = inject(Words);
  protected readonly labels = SCENE_LABELS;
  protected readonly takenAs = $localize`page or video`;
  protected readonly formatNames = { webm: 'WebM', mp4: 'MP4' } as const;
  private readonly room = viewChild<ElementRef<HTMLElement>>('room');
  protected readonly roomHeight = heightOf(this.room);
  protected readonly nexts = LEADERS;
  protected readonly firsts = [
    { id: 'right' as const, text: $localize`The right hand` },
    { id: 'left' as const, text: $localize`The left hand` },
  ];
  protected readonly bys = LEARN_WISHES;
  protected readonly joins = [
    { id: 'chain' as const, text: $localize`One after another` },
    { id: 'pairs' as const, text: $localize`In pairs` },
  ];

  protected readonly chapters = computed(() =>
    this.run.script().chapters.map((c, id) => ({ id, text: this.words.say().fact(c.title) })),
  );
  protected readonly far = computed(() => Math.round((100 * this.run.index()) / Math.max(1, this.run.scenes().length - 1)));
  protected readonly going = computed(() => this.run.state() !== 'ready' && this.run.state() !== 'done');
  protected readonly hands = computed(() => this.desk.document()?.hands ?? handsOf());
  protected readonly voiceSays = computed(() => (this.voice.speaks() ? $localize`read aloud` : $localize`written`));
  protected readonly turn = computed(() =>
    this.settings.lessonWaits() ? $localize`It waits for the marked keys.` : $localize`Play after the count-in.`,
  );

  protected readonly view = computed((): HandView => {
    const scene = this.run.scene();
    return scene ? viewOf({ kind: scene.kind, plays: this.run.passage() }) : 'joined';
  });
  /** The part that sounds, or that the scene is of. */
  private readonly wholePart = computed(() => {
    const parts = this.desk.arrangement()?.parts ?? [];
    const at =
      this.run.place() ?? (this.run.passage() && this.run.state() !== 'telling' ? this.run.passage()?.from : null) ?? null;
    return parts.find((p) => at !== null && at >= p.start && at < p.end) ?? parts.at((this.run.scene()?.part ?? 1) - 1) ?? null;
  });
  /** The part as it is shown: a hand by itself has the strip to itself. */
  protected readonly part = computed(() => {
    const part = this.wholePart();
    return part && seenBy(this.view(), part);
  });
  /** What is struck before anything dresses it. */
  private readonly plain = computed(() => {
    const arrangement = this.desk.arrangement();
    return arrangement ? plainScore(arrangement) : [];
  });

  private readonly named = computed(() => {
    const arrangement = this.desk.arrangement();
    return arrangement ? namedNotes(arrangement) : [];
  });

  /** What is named, or waited for, is marked on the strip. */
  protected readonly selection = computed((): Selection | null => {
    const at = this.run.place();
    if (at === null || (this.run.state() !== 'telling' && !this.run.waits())) return null;
    const left = this.view() === 'left' || this.run.scene()?.kind === 'meet';
    return { kind: left ? 'chord' : 'note', at };
  });

  /** Keys that are named, or due, with their fingers. */
  protected readonly due = computed((): PressedKey[] => {
    const line = this.run.state() === 'telling' ? this.run.line() : null;
    if (line && line.at !== null) {
      const midis = line.strikes.map(midiOf);
      const found = this.named().filter((n) => n.at === line.at && midis.includes(midiOf(n.pitch)));
      return found.map((n) => ({ midi: midiOf(n.pitch), hand: n.hand, text: n.finger ? `${n.finger}` : '' }));
    }
    const at = this.run.place();
    const notes = this.run.notes();
    const place = at === null ? undefined : notes.findLast((n) => n.place <= at)?.place;
    return notes
      .filter((n) => n.place === place)
      .map((n) => ({ midi: n.midi, hand: n.hand, text: n.finger ? `${n.finger}` : '' }));
  });

  /** Where the hands lie in the part that is shown. */
  protected readonly spans = computed((): HandSpan[] => {
    const [part, view] = [this.wholePart(), this.view()];
    if (!part) return [];
    const notes = this.plain().filter((n) => n.at >= part.start && n.at < part.end);
    return (['left', 'right'] as const).flatMap((hand) => {
      const midis =
        (view !== 'left' && view !== 'right') || view === hand
          ? notes.filter((n) => n.hand === hand).map((n) => midiOf(n.pitch))
          : [];
      return midis.length === 0 ? [] : [{ hand, from: Math.min(...midis), to: Math.max(...midis), text: HAND_LABELS[hand] }];
    });
  });

  constructor() {
    keepAwake();
    openSong(this.id);
    inject(Actions).register(() => this.actions());
    leadBy(
      () => this.hands().keys,
      () => this.lead(),
    );
  }

  /** What the pedal and the lowest key do: begin, or go on. */
  private lead(): void {
    if (this.going()) this.run.go(1);
    else this.run.toggle();
  }

  private actions(): Action[] {
    const { run } = this;
    return [
      {
        name: this.going() ? $localize`Stop the lesson` : $localize`Go on with the lesson`,
        keys: [' ', 'Enter'],
        run: () => run.toggle(),
      },
      { name: $localize`Go on`, keys: ['ArrowRight', 'PageDown'], run: () => run.go(1) },
      { name: $localize`Go back`, keys: ['ArrowLeft', 'PageUp'], run: () => run.go(-1) },
      { name: $localize`Again`, keys: ['Backspace'], run: () => run.again() },
      { name: $localize`Slower`, keys: ['ArrowDown'], run: () => run.slower() },
      { name: $localize`Only the left hand`, run: () => run.hear(run.only() === 'left' ? 'both' : 'left') },
      ...LETTERS,
    ];
  }
}
