import { CdkMenu, CdkMenuItemRadio, CdkMenuTrigger } from '@angular/cdk/menu';
import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { Icon } from './icon';
import type { FormValueControl } from '@angular/forms/signals';

/** Something that can be chosen from a list. */
export interface Option<T> {
  readonly id: T;
  readonly text: string;
}

/** One thing out of a list that opens: arrow keys, first letters, Enter; what is chosen stands on the button. */
@Component({
  selector: 'jh-dropdown',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkMenu, CdkMenuItemRadio, CdkMenuTrigger, Icon],
  template: `
    <button
      type="button"
      class="btn small chosen"
      [cdkMenuTriggerFor]="menu"
      [disabled]="disabled()"
      [attr.aria-label]="label() + ': ' + text()"
    >
      <span>{{ text() }}</span>
      <jh-icon name="down" class="opens" />
    </button>
    <ng-template #menu>
      <div class="menu" cdkMenu [attr.aria-label]="label()">
        @for (entry of entries(); track entry.id) {
          <button
            type="button"
            cdkMenuItemRadio
            [cdkMenuItemChecked]="entry.id === value()"
            (cdkMenuItemTriggered)="value.set(entry.id)"
          >
            {{ entry.text }}
          </button>
        }
      </div>
    </ng-template>
  `,
  styleUrl: './dropdown.less',
})
export class Dropdown<T> implements FormValueControl<T> {
  readonly label = input.required<string>();
  readonly entries = input.required<readonly Option<T>[]>();
  readonly value = model.required<T>();
  readonly disabled = input(false);
  protected readonly text = computed(() => this.entries().find((e) => e.id === this.value())?.text ?? '–');
}
