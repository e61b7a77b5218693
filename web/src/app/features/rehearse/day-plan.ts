import { CAUTION, stepTitle, stepWork } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, effect, inject, output, untracked } from '@angular/core';
import { type StepState } from '@joined-hands/core/practice';
import type { TaskItem } from '@joined-hands/core/passing';
import { RouterLink } from '@angular/router';
import { DeskStore } from '../../platform/state/desk.store';
import { PlayersStore } from '../../platform/state/players.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Fold } from '../../ui/fold';
import { Dropdown } from '../../ui/dropdown';
import { JOIN_WISHES, MINUTE_WISHES, STEP_WISHES } from '../../ui/wish-words';
import { NowPlaying } from '../../ui/now-playing';
import { Rehearsal } from './rehearsal';
import { Tasks } from '../../platform/tasks';
import { Words } from '../../platform/words';

/** Today's practice for the minutes there are, and every step of the song with how far it has come. */
@Component({
  selector: 'jh-day-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Fold, Dropdown, NowPlaying, RouterLink],
  templateUrl: './day-plan.html',
  styleUrl: './day-plan.less',
})
export class DayPlan {
  readonly hurts = output();
  protected readonly desk = inject(DeskStore);
  protected readonly rehearsal = inject(Rehearsal);
  protected readonly words = inject(Words);
  protected readonly caution = CAUTION;
  protected readonly title = stepTitle;
  protected readonly work = stepWork;
  protected readonly settings = inject(SettingsStore);
  protected readonly minutes = MINUTE_WISHES;
  protected readonly orders = STEP_WISHES;
  protected readonly joins = JOIN_WISHES;

  private readonly tasks = inject(Tasks);
  private readonly players = inject(PlayersStore);
  /** What the teacher wishes to be practised of this song. */
  protected readonly task = computed(() => this.tasks.of(this.desk.id() ?? ''));

  constructor() {
    effect(() => {
      const [song, player] = [this.desk.id(), this.players.playing()];
      if (song && player) untracked(() => void this.tasks.load(song));
    });
  }

  protected itemWords(item: TaskItem): string {
    return this.words.say().fact({ code: 'screen.asked', ...item });
  }

  /** Takes up the step that is nearest to what is asked for. */
  protected take({ kind, from, to }: TaskItem): void {
    const steps = this.rehearsal.steps();
    const spans = steps.filter((s) => s.parts.from <= from && s.parts.to >= to);
    const step = spans.find((s) => s.kind === kind) ?? spans.at(0) ?? steps.find((s) => s.parts.from === from);
    if (step) this.rehearsal.choose(step.id);
  }

  protected done(): void {
    const song = this.desk.id();
    if (song) void this.tasks.keep(song, null);
  }

  /** All steps, those of one part or one join together. */
  protected readonly groups = computed(() => {
    const groups: { title: string; states: StepState[] }[] = [];
    for (const state of this.rehearsal.states()) {
      const title = stepTitle(state.step);
      const name = state.step.kind === 'fills' ? $localize`${title}, with fills` : title;
      const last = groups.at(-1);
      if (last?.title === name) last.states.push(state);
      else groups.push({ title: name, states: [state] });
    }
    return groups;
  });
  protected readonly learned = computed(() => this.rehearsal.states().filter((s) => s.state === 'learned').length);

  protected stateWords({ state, due, ladder, step }: StepState): string {
    if (state === 'learned') return due ? $localize`learned, due for review` : 'learned';
    return state === 'new' ? $localize`new` : $localize`at ${ladder.rungs[ladder.rung]} of ${step.goal}`;
  }
}
