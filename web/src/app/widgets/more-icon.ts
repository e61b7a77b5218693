import { ChangeDetectionStrategy, Component } from '@angular/core';

/** Three dots: there is more to do here. */
@Component({
  selector: 'jh-more-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg width="17" height="17" viewBox="0 0 18 18" aria-hidden="true">
    <circle cx="3.5" cy="9" r="1.6" />
    <circle cx="9" cy="9" r="1.6" />
    <circle cx="14.5" cy="9" r="1.6" />
  </svg>`,
  styles: `
    :host {
      display: grid;
      place-items: center;
    }
  `,
})
export class MoreIcon {}
