import { A11yModule } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin, type ConnectedPosition } from '@angular/cdk/overlay';
import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  TemplateRef,
  computed,
  contentChild,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { Icon } from './icon';
import { isOutside } from './outside';

const BELOW: ConnectedPosition[] = [
  { originX: 'start', originY: 'bottom', overlayX: 'start', overlayY: 'top', offsetY: 6 },
  { originX: 'end', originY: 'bottom', overlayX: 'end', overlayY: 'top', offsetY: 6 },
];
const ABOVE: ConnectedPosition[] = [
  { originX: 'end', originY: 'top', overlayX: 'end', overlayY: 'bottom', offsetY: -8 },
  { originX: 'start', originY: 'top', overlayX: 'start', overlayY: 'bottom', offsetY: -8 },
];

/**
 * A button that opens a panel beside itself, wherever there is room; Escape or a press elsewhere closes it. Its content is a template: it
 * is made when the panel opens, and follows nothing while it is closed.
 */
@Component({
  selector: 'jh-pop',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [A11yModule, CdkConnectedOverlay, CdkOverlayOrigin, Icon, NgTemplateOutlet],
  template: `
    <button
      #button
      type="button"
      class="btn small"
      cdkOverlayOrigin
      #origin="cdkOverlayOrigin"
      aria-haspopup="dialog"
      [attr.aria-expanded]="open()"
      [attr.aria-label]="label() + ': ' + value()"
      (click)="toggle($event)"
    >
      <span class="label">{{ label() }}</span> <b>{{ value() }}</b>
      <jh-icon name="down" class="opens" />
    </button>
    <ng-template
      cdkConnectedOverlay
      cdkConnectedOverlayPanelClass="jh-pop"
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="open()"
      [cdkConnectedOverlayPositions]="positions()"
      [cdkConnectedOverlayViewportMargin]="8"
      [cdkConnectedOverlayFlexibleDimensions]="true"
      [cdkConnectedOverlayMinHeight]="1"
      [cdkConnectedOverlayPush]="true"
      (overlayOutsideClick)="leave($event)"
      (overlayKeydown)="key($event)"
      (detach)="set(false)"
    >
      <div
        class="panel"
        role="dialog"
        tabindex="-1"
        [attr.aria-label]="label()"
        cdkTrapFocus
        [cdkTrapFocusAutoCapture]="byKeyboard()"
      >
        <ng-container [ngTemplateOutlet]="content()" />
      </div>
    </ng-template>
  `,
  styleUrl: './pop.less',
})
export class Pop {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  /** Opens over itself, for a button at the bottom of the screen. */
  readonly up = input(false);
  readonly opened = output<boolean>();
  protected readonly open = signal(false);
  /** Opened by a key, the panel takes the focus; by a finger, the keys stay with the screen. */
  protected readonly byKeyboard = signal(false);
  protected readonly positions = computed(() => (this.up() ? [...ABOVE, ...BELOW] : [...BELOW, ...ABOVE]));
  protected readonly content = contentChild.required(TemplateRef);
  private readonly button = viewChild.required<ElementRef<HTMLButtonElement>>('button');

  protected set(open: boolean): void {
    if (this.open() === open) return;
    this.open.set(open);
    this.opened.emit(open);
  }

  protected toggle({ detail }: MouseEvent): void {
    this.byKeyboard.set(detail === 0);
    this.set(!this.open());
  }

  close(): void {
    this.set(false);
    this.button().nativeElement.focus();
  }

  /** A press on what opened it closes it there. */
  protected leave(event: MouseEvent): void {
    if (isOutside(event, this.button().nativeElement)) this.set(false);
  }

  protected key(event: KeyboardEvent): void {
    if (event.key !== 'Escape') return;
    event.preventDefault();
    this.close();
  }
}
