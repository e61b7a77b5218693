import { ChangeDetectionStrategy, Component, ElementRef, inject, input, model } from '@angular/core';
import { NzCollapseComponent, NzCollapsePanelComponent } from 'ng-zorro-antd/collapse';

/** A line that unfolds what belongs to it, by pointer, Enter or space. */
@Component({
  selector: 'jh-fold',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NzCollapseComponent, NzCollapsePanelComponent],
  template: `<nz-collapse nzGhost>
    <nz-collapse-panel [nzShowArrow]="false" [nzHeader]="head" [(nzActive)]="open">
      <ng-content />
    </nz-collapse-panel>
    <ng-template #head>
      <svg width="8" height="10" viewBox="0 0 8 10" aria-hidden="true"><path d="M1 1l5 4-5 4" /></svg>{{ title() }}
    </ng-template>
  </nz-collapse>`,
  styles: `
    :host {
      display: block;
    }
    svg {
      margin-right: 8px;
      fill: none;
      stroke: var(--soft);
      stroke-width: 1.6;
    }
    :host([data-open]) svg {
      rotate: 90deg;
    }
  `,
  host: {
    '[attr.data-open]': "open() ? '' : null",
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
