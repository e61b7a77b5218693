import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** The arrow of a button that opens something: it points to where that appears, or to the right while it is folded. */
@Component({
  selector: 'jh-arrow',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg width="10" height="7" viewBox="0 0 10 7" aria-hidden="true"><path d="M1 1l4 4 4-4" /></svg>`,
  styles: `
    :host {
      display: inline-flex;
      flex: none;
    }
    path {
      fill: none;
      stroke: var(--soft);
      stroke-width: 1.6;
    }
    :host(.right) {
      rotate: -90deg;
    }
  `,
  host: { '[class.right]': "to() === 'right'" },
})
export class Arrow {
  readonly to = input<'down' | 'right'>('down');
}
