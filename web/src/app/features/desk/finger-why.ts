import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import type { FingerReasons } from '@joined-hands/core/fingers';
import { latestWins } from '../../platform/latest';
import { DeskStore } from '../../platform/state/desk.store';
import { Words } from '../../platform/words';
import { Workers } from '../../platform/workers/workers';
import { FingerChoice } from './finger-choice';

/** The finger of a note of the melody: why it is this one, and what each other would cost before it is chosen. */
@Component({
  selector: 'jh-finger-why',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FingerChoice],
  template: `
    <div class="row">
      <span i18n>Finger</span>
      <jh-finger-choice i18n-label label="Finger" [finger]="finger()" [kept]="kept()" (chosen)="chosen.emit($event)" />
    </div>
    @if (why(); as sentences) {
      <p data-testid="finger-why">{{ sentences }}</p>
    }
    @if (others().length > 0) {
      <ul i18n-aria-label aria-label="What another finger would cost" data-testid="finger-prices">
        @for (other of others(); track other.finger) {
          <li>
            <b>{{ other.finger }}</b>
            <span>{{ other.words }}</span>
            <i>+{{ other.more }}</i>
          </li>
        }
      </ul>
      <p i18n class="scale">
        How much harder the phrase would get. Passing the thumb under adds about 3, moving the hand up to 9, and less where the
        melody gives it time.
      </p>
    }
  `,
  styleUrl: './finger-why.less',
})
export class FingerWhy {
  /** Where the note is struck, in ticks. */
  readonly at = input.required<number>();
  readonly finger = input.required<number | null>();
  /** True where the pianist chose it. */
  readonly kept = input(false);
  readonly chosen = output<number | null>();
  private readonly desk = inject(DeskStore);
  private readonly workers = inject(Workers);
  private readonly words = inject(Words);
  private readonly begin = latestWins();
  private readonly reasons = signal<FingerReasons | null>(null);

  protected readonly why = computed(() => (this.reasons()?.facts ?? []).map((fact) => this.words.say().fact(fact)).join(' '));
  protected readonly others = computed(() =>
    (this.reasons()?.others ?? [])
      .map(({ fact, more }) => ({
        finger: fact.finger,
        words: this.words.say().fact(fact),
        more: this.words.say().number(Math.max(0, more), 1),
      }))
      .toSorted((a, b) => a.finger - b.finger),
  );

  constructor() {
    effect(() => {
      void this.ask(this.at());
    });
  }

  private async ask(at: number): Promise<void> {
    const isLatest = this.begin();
    const document = this.desk.document();
    this.reasons.set(null);
    if (!document) return;
    const found = await this.workers.arranger.call('whyFinger', document, at);
    if (isLatest() && found.ok) this.reasons.set(found.value);
  }
}
