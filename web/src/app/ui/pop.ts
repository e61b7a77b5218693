import { ChangeDetectionStrategy, Component, ElementRef, input, output, viewChild } from '@angular/core';

/** A button that opens a panel under itself; Escape or a press elsewhere closes it. */
@Component({
  selector: 'jh-pop',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<details #box [class.up]="up()" (toggle)="opened.emit(box.open)">
    <summary class="btn small" [attr.aria-label]="label() + ': ' + value()">
      <span class="label">{{ label() }}</span> <b>{{ value() }}</b>
      <svg width="10" height="7" viewBox="0 0 10 7" aria-hidden="true"><path d="M1 1l4 4 4-4" /></svg>
    </summary>
    <div class="panel" role="group" [attr.aria-label]="label()"><ng-content /></div>
  </details>`,
  styleUrl: './pop.less',
  host: { '(document:pointerdown)': 'pressed($event)', '(keydown.escape)': 'close()' },
})
export class Pop {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  /** Opens over itself, for a button at the bottom of the screen. */
  readonly up = input(false);
  readonly opened = output<boolean>();
  private readonly box = viewChild.required<ElementRef<HTMLDetailsElement>>('box');

  close(): void {
    const box = this.box().nativeElement;
    if (!box.open) return;
    box.open = false;
    box.querySelector('summary')?.focus();
  }

  protected pressed(event: Event): void {
    const box = this.box().nativeElement;
    if (box.open && !(event.target instanceof Node && box.contains(event.target))) box.open = false;
  }
}
