import { CdkConnectedOverlay, CdkOverlayOrigin, type ConnectedPosition } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { isOutside } from '../outside';
import { GLOSSARY, type Term } from './glossary';

const POSITIONS: ConnectedPosition[] = [
  { originX: 'center', originY: 'bottom', overlayX: 'center', overlayY: 'top', offsetY: 6 },
  { originX: 'center', originY: 'top', overlayX: 'center', overlayY: 'bottom', offsetY: -6 },
];

/** A small mark beside a figure that says what it means and where it comes from. */
@Component({
  selector: 'jh-what',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkConnectedOverlay, CdkOverlayOrigin],
  template: `<button
      type="button"
      #button
      cdkOverlayOrigin
      #origin="cdkOverlayOrigin"
      i18n-ariaLabel
      ariaLabel="What is meant by {{ entry().word }}"
      [attr.aria-expanded]="open()"
      (click)="open.set(!open())"
      (keydown.tab)="open.set(false)"
    >
      ?
    </button>
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="open()"
      [cdkConnectedOverlayPositions]="positions"
      [cdkConnectedOverlayViewportMargin]="8"
      [cdkConnectedOverlayPush]="true"
      (overlayOutsideClick)="leave($event, button)"
      (detach)="open.set(false)"
    >
      <p role="note" aria-live="polite">
        <b>{{ entry().word }}</b> {{ entry().says }}
      </p>
    </ng-template>`,
  styleUrl: './what.less',
})
export class What {
  readonly term = input.required<Term>();
  protected readonly entry = computed(() => GLOSSARY[this.term()]);
  protected readonly open = signal(false);
  protected readonly positions = POSITIONS;

  /** A press on the mark itself closes it there. */
  protected leave(event: MouseEvent, button: HTMLElement): void {
    if (isOutside(event, button)) this.open.set(false);
  }
}
