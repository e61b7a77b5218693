import { CdkMenu, CdkMenuItem, CdkMenuTrigger } from '@angular/cdk/menu';
import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { Arrow } from './arrow';

/** Something that a menu does. */
export interface MenuItem {
  readonly name: string;
  readonly run: () => void;
  /** Says that it is where one is already. */
  readonly current?: boolean;
}

/** A button that opens a menu: three dots beside what it belongs to, or a word with an arrow. */
@Component({
  selector: 'jh-more',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arrow, CdkMenu, CdkMenuItem, CdkMenuTrigger],
  template: `
    <button
      type="button"
      [cdkMenuTriggerFor]="menu"
      [attr.aria-label]="text() ? label() + ': ' + text() : label()"
      [class.worded]="text()"
    >
      @if (text(); as word) {
        {{ word }}
        <jh-arrow />
      } @else {
        <svg width="17" height="17" viewBox="0 0 18 18" aria-hidden="true">
          <circle cx="3.5" cy="9" r="1.6" />
          <circle cx="9" cy="9" r="1.6" />
          <circle cx="14.5" cy="9" r="1.6" />
        </svg>
      }
    </button>
    <ng-template #menu>
      <div class="menu" cdkMenu [attr.aria-label]="label()">
        @for (item of items(); track item.name) {
          <button
            type="button"
            cdkMenuItem
            [attr.aria-current]="item.current ? 'page' : null"
            (cdkMenuItemTriggered)="item.run()"
          >
            {{ item.name }}
          </button>
        }
      </div>
    </ng-template>
  `,
  styleUrl: './more.less',
})
export class More {
  readonly label = input.required<string>();
  readonly items = input.required<readonly MenuItem[]>();
  /** What stands on the button in place of the dots. */
  readonly text = input<string | null>(null);
}
