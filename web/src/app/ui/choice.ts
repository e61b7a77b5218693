import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Pressed } from './pressed';

/** One thing out of a few, side by side, the chosen one filled. */
@Component({
  selector: 'jh-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Pressed],
  template: `@for (entry of entries(); track entry.id) {
    <button [jhPressed]="value() === entry.id" (click)="chosen.emit(entry.id)">
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
