import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { LONGEST_REMINDER } from '@joined-hands/core/song';
import { DeskStore } from '../../platform/state/desk.store';

/** What the pianist wants to be reminded of at a note or a chord: a line that stands on the strip, the sheet and the lesson. */
@Component({
  selector: 'jh-reminder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<label>
    <ng-container i18n>Reminder to yourself</ng-container>
    <input
      #line
      class="field"
      autocomplete="off"
      data-testid="reminder"
      i18n-placeholder
      placeholder="jump early, wrist low, …"
      [attr.maxlength]="longest"
      [value]="text()"
      (change)="write(line.value)"
      (keydown.enter)="line.blur()"
    />
  </label>`,
  styles: `
    :host {
      display: block;
      margin-top: 14px;
    }
    input {
      width: 100%;
      margin-top: 3px;
    }
  `,
})
export class ReminderField {
  /** The place that it is written at, in ticks. */
  readonly at = input.required<number>();
  private readonly desk = inject(DeskStore);
  protected readonly longest = LONGEST_REMINDER;
  protected readonly text = computed(() => this.desk.document()?.choices.reminders.find((r) => r.at === this.at())?.text ?? '');

  protected write(text: string): void {
    void this.desk.edit({ code: 'edit.remind', at: this.at(), text });
  }
}
