import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** The round button that starts the music and stops it, as space does. */
@Component({
  selector: 'jh-go',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button type="button" (click)="pressed.emit()" [attr.aria-label]="going() ? stop : start">
    <svg width="19" height="19" viewBox="0 0 18 18" aria-hidden="true">
      @if (going()) {
        <rect x="4" y="4" width="10" height="10" rx="1.5" />
      } @else {
        <path d="M5 2.8v12.4L15 9z" />
      }
    </svg>
  </button>`,
  styles: `
    :host {
      flex: none;
    }
    button {
      width: 46px;
      height: 46px;
      display: grid;
      place-items: center;
      border: 0;
      border-radius: 50%;
      background: var(--ink);
      fill: var(--paper);
      cursor: pointer;
      &:hover {
        opacity: 0.88;
      }
    }
  `,
})
export class Go {
  protected readonly start = $localize`Start (space)`;
  protected readonly stop = $localize`Stop (space)`;
  readonly going = input.required<boolean>();
  readonly pressed = output();
}
