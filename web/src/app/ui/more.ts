import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  inject,
  input,
  signal,
  viewChild,
  viewChildren,
} from '@angular/core';
import { NzDropdownModule } from 'ng-zorro-antd/dropdown';
import { NzMenuModule } from 'ng-zorro-antd/menu';

/** Something that a menu does. */
export interface MenuItem {
  readonly name: string;
  readonly run: () => void;
}

/** Three dots that open a menu of what else can be done with what they stand beside. */
@Component({
  selector: 'jh-more',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NzDropdownModule, NzMenuModule],
  template: `
    <button
      #dots
      type="button"
      nz-dropdown
      nzTrigger="click"
      [nzDropdownMenu]="menu"
      nzPlacement="bottomRight"
      [nzVisible]="open()"
      (nzVisibleChange)="show($event)"
      [attr.aria-label]="label()"
      aria-haspopup="menu"
      [attr.aria-expanded]="open()"
    >
      <svg width="17" height="17" viewBox="0 0 18 18" aria-hidden="true">
        <circle cx="3.5" cy="9" r="1.6" />
        <circle cx="9" cy="9" r="1.6" />
        <circle cx="14.5" cy="9" r="1.6" />
      </svg>
    </button>
    <nz-dropdown-menu #menu="nzDropdownMenu">
      <ul nz-menu role="menu" [attr.aria-label]="label()">
        @for (deed of items(); track deed.name) {
          <li #item nz-menu-item role="menuitem" tabindex="-1" (click)="deed.run()" (keydown)="press($event)">{{ deed.name }}</li>
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
  readonly items = input.required<readonly MenuItem[]>();
  protected readonly open = signal(false);
  private readonly dots = viewChild.required<ElementRef<HTMLElement>>('dots');
  private readonly rows = viewChildren<unknown, ElementRef<HTMLElement>>('item', { read: ElementRef });
  private readonly injector = inject(Injector);

  /** An open menu has the focus, so that the keys go on from it. */
  protected show(open: boolean): void {
    this.open.set(open);
    if (open) afterNextRender(() => this.rows()[0]?.nativeElement.focus(), { injector: this.injector });
  }

  protected press(event: KeyboardEvent): void {
    const items = this.rows().map((i) => i.nativeElement);
    const at = items.findIndex((i) => i === event.currentTarget);
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (event.key === 'Enter') return items[at]?.click();
    if (event.key === 'Escape' || event.key === 'Tab') {
      this.open.set(false);
      this.dots().nativeElement.focus();
    }
    if (!by) return;
    event.preventDefault();
    items[(at + by + items.length) % items.length]?.focus();
  }
}
