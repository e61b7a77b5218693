import { HAND_LABELS, stepTitle, stepWork } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input, signal, viewChild } from '@angular/core';
import { nameOf, pitchAt } from '@joined-hands/core/pitch';
import { handsOf } from '@joined-hands/core/song';
import { LETTERS } from '../../platform/input/key-input';
import { leadBy } from '../../platform/input/lead';
import { DeskStore, type HandView, type Selection } from '../../platform/state/desk.store';
import { Actions, type Action } from '../../platform/state/actions';
import { openSong } from '../../platform/state/open-song';
import { PracticeStore } from '../../platform/state/practice.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { keepAwake } from '../../platform/awake';
import { Viewport } from '../../platform/viewport';
import { Drawer } from '../../ui/drawer';
import { heightOf } from '../../ui/height-of';
import { Icon } from '../../ui/icon';
import { JoinStrip, type StripMark } from '../../ui/join-strip/join-strip';
import type { HandSpan, PressedKey } from '../../ui/keyboard/keyboard';
import { PlayedKeys } from '../../ui/keyboard/played-keys';
import { Modal } from '../../ui/modal';
import { MissingSong } from '../../ui/missing-song';
import { DayPlan } from './day-plan';
import { ListenBar } from './listen-bar';
import { Outcome } from './outcome';
import { Rehearsal } from './rehearsal';
import { marksOf } from './marks';

/** How much larger the strip is drawn than it is laid out, to be read from the piano; less where it would not fit. */
const CLOSEST = 1.9;
/** Pixels of the line that names the part at hand. */
const WHICH = 34;

/** The piano stand: the step at hand in large, its place on the ladder, what was heard and how it went. */
@Component({
  selector: 'jh-rehearse',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DayPlan, Drawer, Icon, JoinStrip, ListenBar, MissingSong, Modal, Outcome, PlayedKeys],
  providers: [Rehearsal],
  templateUrl: './rehearse.html',
  styleUrl: './rehearse.less',
  host: { '[class.told]': 'rehearsal.result() !== null' },
})
export class Rehearse {
  protected readonly title = stepTitle;
  protected readonly work = stepWork;
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly practice = inject(PracticeStore);
  protected readonly rehearsal = inject(Rehearsal);
  protected readonly viewport = inject(Viewport);
  /** The plan of the day as a drawer, where there is no room for it beside the strip. */
  protected readonly planOpen = signal(false);
  protected readonly settings = inject(SettingsStore);
  protected readonly hurt = signal(false);
  private readonly room = viewChild<ElementRef<HTMLElement>>('room');
  private readonly roomHeight = heightOf(this.room);
  /** Pixels that are left for the strip, and how much larger than on the desk it may be drawn there. */
  protected readonly stripRoom = computed(() => this.roomHeight() - 16 - (this.joins() ? WHICH : 0));
  protected readonly closest = CLOSEST;
  /** True where the step goes over more than one part. */
  protected readonly joins = computed(() => {
    const step = this.step();
    return step !== null && step.parts.from !== step.parts.to;
  });

  protected readonly step = this.rehearsal.step;
  protected readonly hands = computed(() => this.desk.document()?.hands ?? handsOf());
  protected readonly view = computed((): HandView => {
    const step = this.step();
    if (!step) return 'joined';
    return step.hands === 'both' ? (step.plain ? 'joined' : 'fills') : step.hands;
  });
  /** The part that is due now; while nothing sounds, the first of the step. */
  private readonly wholePart = computed(() => {
    const step = this.step();
    const parts = this.desk.arrangement()?.parts;
    if (!step || !parts) return null;
    const at = this.rehearsal.place() ?? step.from;
    return parts.find((p) => at >= p.start && at < p.end) ?? parts[step.parts.from - 1] ?? null;
  });
  /** The part as it is shown: a hand by itself has the strip to itself. */
  protected readonly part = computed(() => {
    const part = this.wholePart();
    const hands = this.step()?.hands;
    if (part && hands === 'right') return { ...part, chords: [], together: [] };
    if (part && hands === 'left') return { ...part, melody: [], together: [], under: [], places: [], fills: [] };
    return part;
  });
  protected readonly marks = computed((): StripMark[] => {
    const grade = this.rehearsal.result()?.grade;
    return grade ? marksOf(grade.notes, this.rehearsal.notes()) : [];
  });
  /** What the music waits for is marked on the strip. */
  protected readonly selection = computed((): Selection | null => {
    const at = this.rehearsal.state() === 'waiting' ? this.rehearsal.place() : null;
    if (at === null) return null;
    return { kind: this.step()?.hands === 'left' ? 'chord' : 'note', at };
  });

  /** Keys that are due now, with their fingers. */
  protected readonly due = computed((): PressedKey[] => {
    const notes = this.rehearsal.notes();
    const at = this.rehearsal.place() ?? this.step()?.from ?? 0;
    const place = notes.findLast((n) => n.place <= at)?.place ?? notes[0]?.place;
    return notes
      .filter((n) => n.place === place)
      .map((n) => ({ midi: n.midi, hand: n.hand, text: n.finger ? `${n.finger}` : '' }));
  });

  protected readonly spans = computed((): HandSpan[] => {
    const part = this.part();
    const notes = this.rehearsal.notes().filter((n) => part && n.place >= part.start && n.place < part.end);
    return (['left', 'right'] as const).flatMap((hand) => {
      const midis = notes.filter((n) => n.hand === hand).map((n) => n.midi);
      if (midis.length === 0) return [];
      const [from, to] = [Math.min(...midis), Math.max(...midis)];
      return [{ hand, from, to, text: HAND_LABELS[hand] }];
    });
  });

  constructor() {
    keepAwake();
    openSong(this.id);
    inject(Actions).register(() => this.actions());
    void this.practice.load();
    leadBy(
      () => this.hands().keys,
      () => this.lead(),
    );
  }

  /** What the pedal and the lowest key do: begin the pass, or go on to the next step once it was clean. */
  private lead(): void {
    if (this.rehearsal.state() !== 'ready') return;
    if (this.rehearsal.current()?.ladder.learned && this.rehearsal.result()) this.rehearsal.go(1);
    else this.rehearsal.toggle();
  }

  protected nameOf(midi: number): string {
    return nameOf(pitchAt('C', midi));
  }

  protected itHurts(): void {
    this.rehearsal.stop();
    this.hurt.set(true);
  }

  /** What can be done at the stand. */
  private actions(): Action[] {
    const { rehearsal } = this;
    const by = (change: number) => rehearsal.setTempo(rehearsal.tempo() + change);
    return [
      {
        name: rehearsal.idle() ? $localize`Start this step` : $localize`Stop this step`,
        keys: [' ', 'Enter'],
        run: () => rehearsal.toggle(),
      },
      { name: $localize`Go to the next step`, keys: ['ArrowRight', 'PageDown'], run: () => rehearsal.go(1) },
      { name: $localize`Go to the previous step`, keys: ['ArrowLeft', 'PageUp'], run: () => rehearsal.go(-1) },
      { name: $localize`Faster by four`, keys: ['ArrowUp'], run: () => by(4) },
      { name: $localize`Slower by four`, keys: ['ArrowDown'], run: () => by(-4) },
      { name: $localize`Stop`, keys: ['Escape'], run: () => rehearsal.stop() },
      { name: $localize`It hurts`, run: () => this.itHurts() },
      ...LETTERS,
    ];
  }
}
