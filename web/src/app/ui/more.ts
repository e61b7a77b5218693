import { CdkMenu, CdkMenuItem, CdkMenuTrigger } from '@angular/cdk/menu';
import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { Icon } from './icon';

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
  imports: [CdkMenu, CdkMenuItem, CdkMenuTrigger, Icon],
  template: `
    <button
      type="button"
      [cdkMenuTriggerFor]="menu"
      [attr.aria-label]="text() ? label() + ': ' + text() : label()"
      [class.worded]="text()"
    >
      @if (text(); as word) {
        {{ word }}
        <jh-icon name="down" class="opens" />
      } @else {
        <jh-icon name="ellipsis" />
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
