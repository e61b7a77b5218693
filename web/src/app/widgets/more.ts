import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { NzDropDownModule } from 'ng-zorro-antd/dropdown';
import { NzMenuModule } from 'ng-zorro-antd/menu';

/** Something that a menu does. */
export interface Deed {
  readonly name: string;
  readonly run: () => void;
}

/** Three dots that open a menu of what else can be done with what they stand beside. */
@Component({
  selector: 'jh-more',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NzDropDownModule, NzMenuModule],
  template: `
    <button
      type="button"
      nz-dropdown
      nzTrigger="click"
      [nzDropdownMenu]="menu"
      nzPlacement="bottomRight"
      [attr.aria-label]="label()"
    >
      <svg width="17" height="17" viewBox="0 0 18 18" aria-hidden="true">
        <circle cx="3.5" cy="9" r="1.6" />
        <circle cx="9" cy="9" r="1.6" />
        <circle cx="14.5" cy="9" r="1.6" />
      </svg>
    </button>
    <nz-dropdown-menu #menu="nzDropdownMenu">
      <ul nz-menu>
        @for (deed of deeds(); track deed.name) {
          <li nz-menu-item tabindex="0" (click)="deed.run()" (keydown.enter)="deed.run()">{{ deed.name }}</li>
        }
      </ul>
    </nz-dropdown-menu>
  `,
  styles: `
    :host {
      display: grid;
      width: 36px;
      height: 36px;
    }
    button {
      display: grid;
      place-items: center;
      border: 0;
      border-radius: 8px;
      background: none;
      fill: var(--soft);
      cursor: pointer;
      &:hover {
        background: var(--well);
      }
    }
  `,
})
export class More {
  readonly label = input.required<string>();
  readonly deeds = input.required<readonly Deed[]>();
}
