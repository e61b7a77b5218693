import type { DifficultyFact } from '@joined-hands/core/difficulty';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { Part } from '@joined-hands/core/arrange';
import { partTitle, repeatWords } from '@joined-hands/core/words';
import { DeskStore } from '../../platform/state/desk.store';
import { More, type MenuItem } from '../../ui/more';
import { Signs } from '../../ui/signs';
import { Words } from '../../platform/words';
import { neighbours, cutBetween } from './cuts';

/** What can be written at a part. */
type Naming = 'part' | 'section' | 'reminder';

/** One numbered part of the ladder. It is drawn anew only where something about this part changes. */
@Component({
  selector: 'li[jhLadderPart]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [More, Signs],
  templateUrl: './ladder-part.html',
  styleUrl: './ladder-part.less',
  host: { 'data-testid': 'part', '[class.on]': 'current()', '[class.naming]': 'naming() !== null' },
})
export class LadderPart {
  readonly part = input.required<Part>();
  readonly current = input.required<boolean>();
  /** What makes this part the hardest one; null for the others. */
  readonly hardest = input.required<DifficultyFact | null>();
  /** The name of the section that begins with this part. */
  readonly section = input.required<string | null>();
  /** The number of the bar where this part differs from the one that it repeats; null where it does not. */
  readonly differsAt = input.required<number | null>();
  readonly chosen = output();
  /** A picture of it is wished for. */
  readonly pictured = output();

  protected readonly namings = {
    part: { label: $localize`Name of the part`, example: $localize`your own name` },
    reminder: { label: $localize`Reminder for the part`, example: $localize`jump early` },
    section: { label: $localize`Name of the section`, example: $localize`verse, chorus, …` },
  };
  readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly desk = inject(DeskStore);
  protected readonly words = inject(Words);
  /** What is being written here: a name of the part or of the section that begins with it, or a reminder. */
  protected readonly naming = signal<Naming | null>(null);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('nameField');

  protected readonly title = computed(() => partTitle(this.part()));
  protected readonly about = computed(() => {
    const { repeats, chords, melody } = this.part();
    if (repeats) return repeatWords({ ...repeats, fromBar: this.differsAt() });
    const symbols = new Set(chords.map((c) => c.symbol)).size;
    return this.words.say().fact({ code: 'screen.notes-and-chords', notes: melody.length, chords: symbols });
  });
  protected readonly difficulty = computed(() => $localize`Difficulty ${this.part().difficulty.score} of 100`);
  protected readonly reasons = computed(() => this.part().difficulty.reasons.map(this.words.say().fact).join('; '));

  /** What stands there already. */
  protected readonly written = computed(() => {
    const { name, start, reminders } = this.part();
    const texts: Readonly<Record<Naming, string | null | undefined>> = {
      part: name,
      section: this.section(),
      reminder: reminders.find((r) => r.at === start)?.text,
    };
    const what = this.naming();
    return (what && texts[what]) ?? '';
  });

  /** What can be done to this part, as its menu shows it. */
  readonly actions = computed((): MenuItem[] => {
    const { number } = this.part();
    const own: MenuItem[] = [
      { name: $localize`Name this part`, run: () => this.startNaming('part') },
      { name: $localize`Write a reminder`, run: () => this.startNaming('reminder') },
      { name: $localize`Name a section from here`, run: () => this.startNaming('section') },
      {
        name: $localize`Save as a picture`,
        run: () => {
          this.chosen.emit();
          this.pictured.emit();
        },
      },
    ];
    if (number === 1) return own;
    return [
      ...own,
      { name: $localize`Merge with part ${number - 1}`, run: () => this.joinToBefore() },
      { name: $localize`Start one note earlier`, run: () => this.shiftStart('earlier') },
      { name: $localize`Start one note later`, run: () => this.shiftStart('later') },
    ];
  });

  private startNaming(what: Naming): void {
    this.chosen.emit();
    this.naming.set(what);
    setTimeout(() => {
      this.host.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      this.nameField()?.nativeElement.select();
    });
  }

  protected finishNaming(name: string): void {
    const what = this.naming();
    if (!what) return;
    this.naming.set(null);
    const { start } = this.part();
    if (what === 'reminder') void this.desk.edit({ code: 'edit.remind', at: start, text: name });
    else if (what === 'section') void this.desk.edit({ code: 'edit.name-section', at: start, name });
    else void this.desk.edit({ code: 'edit.name-part', at: start, name });
  }

  private joinToBefore(): void {
    const { number } = this.part();
    const both = neighbours(this.desk.arrangement()?.parts ?? [], number - 1);
    if (both)
      void this.desk.edit({ code: 'edit.merge', parts: both }).then(() => {
        this.desk.choosePart(number - 1);
      });
  }

  /** Moves the beginning of the part by one note: earlier takes one from the part before, later gives one to it. */
  private shiftStart(by: 'earlier' | 'later'): void {
    const { number, start, melody } = this.part();
    const parts = this.desk.arrangement()?.parts ?? [];
    const to = by === 'earlier' ? parts[number - 2]?.melody.at(-1)?.at : melody.find((n) => n.at > start)?.at;
    if (to !== undefined) void this.desk.edit(cutBetween(parts, number - 1, to));
  }
}
