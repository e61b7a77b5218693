import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** One thing out of a few, side by side, the chosen one filled. */
@Component({
  selector: 'jh-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@for (entry of entries(); track entry.id) {
    <button
      type="button"
      [class.on]="value() === entry.id"
      [attr.aria-pressed]="value() === entry.id"
      (click)="chosen.emit(entry.id)"
    >
      {{ entry.text }}
    </button>
  }`,
  host: { class: 'switch', role: 'group', '[attr.aria-label]': 'label()' },
})
export class Choice<T extends string> {
  readonly label = input.required<string>();
  readonly entries = input.required<readonly { readonly id: T; readonly text: string }[]>();
  /** What is chosen now; null where nothing is. */
  readonly value = input.required<T | null>();
  readonly chosen = output<T>();
}
