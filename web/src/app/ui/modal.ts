import { Dialog, type DialogRef } from '@angular/cdk/dialog';
import {
  ChangeDetectionStrategy,
  Component,
  TemplateRef,
  contentChild,
  effect,
  inject,
  input,
  model,
  untracked,
} from '@angular/core';

/** A question or a page before everything else, until it is closed; Escape closes it. Its content is a template with its own buttons. */
@Component({
  selector: 'jh-modal',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
})
export class Modal {
  /** What it is, for those who do not see it. */
  readonly label = input.required<string>();
  readonly open = model.required<boolean>();
  readonly width = input('min(520px, 94vw)');
  /** What has the focus first: what can be pressed, or the page itself where there is something to read. */
  readonly focus = input<'first-tabbable' | 'dialog'>('first-tabbable');
  protected readonly content = contentChild.required(TemplateRef);
  private readonly dialog = inject(Dialog);
  private shown: DialogRef | null = null;

  constructor() {
    effect((onCleanup) => {
      if (this.open()) untracked(() => this.show());
      onCleanup(() => this.shown?.close());
    });
  }

  private show(): void {
    const shown = this.dialog.open(this.content(), {
      ariaLabel: this.label(),
      ariaModal: true,
      width: this.width(),
      maxHeight: '92dvh',
      panelClass: 'jh-modal',
      backdropClass: 'jh-backdrop',
      autoFocus: this.focus(),
    });
    this.shown = shown;
    shown.closed.subscribe(() => {
      if (this.shown !== shown) return;
      this.shown = null;
      this.open.set(false);
    });
  }
}
