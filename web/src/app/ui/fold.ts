import { ChangeDetectionStrategy, Component, ElementRef, inject, input, model } from '@angular/core';
import { Icon } from './icon';
import { NzCollapseComponent, NzCollapsePanelComponent } from 'ng-zorro-antd/collapse';

/** A line that unfolds what belongs to it, by pointer, Enter or space. */
@Component({
  selector: 'jh-fold',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, NzCollapseComponent, NzCollapsePanelComponent],
  template: `<nz-collapse nzGhost>
    <nz-collapse-panel [nzShowArrow]="false" [nzHeader]="head" [(nzActive)]="open">
      <ng-content />
    </nz-collapse-panel>
    <ng-template #head> <jh-icon [name]="open() ? 'down' : 'right'" class="opens" />{{ title() }} </ng-template>
  </nz-collapse>`,
  styles: `
    :host {
      display: block;
    }
    jh-icon {
      margin-right: 8px;
      vertical-align: middle;
    }
  `,
  host: {
    '(keydown.enter)': 'toggle($event)',
    '(keydown.space)': 'toggle($event)',
  },
})
export class Fold {
  readonly title = input.required<string>();
  readonly open = model(false);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  /** The line is a button without keys of its own. */
  protected toggle(event: Event): void {
    if (event.target !== this.host.nativeElement.querySelector('[aria-expanded]')) return;
    event.preventDefault();
    this.open.update((open) => !open);
  }
}
