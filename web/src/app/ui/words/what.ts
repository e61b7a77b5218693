import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input } from '@angular/core';
import { GLOSSARY, type Term } from './glossary';

/** A small mark beside a figure that says what it means and where it comes from. */
@Component({
  selector: 'jh-what',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<details #box (focusout)="box.open = leaving($event)">
    <summary [attr.aria-label]="'What is meant by ' + entry().word">?</summary>
    <p role="note">
      <b>{{ entry().word }}</b> {{ entry().says }}
    </p>
  </details>`,
  styleUrl: './what.less',
  host: { '(keydown.escape)': 'close()' },
})
export class What {
  readonly term = input.required<Term>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly entry = computed(() => GLOSSARY[this.term()]);

  /** Stays open only while the focus stays inside. */
  protected leaving({ relatedTarget }: FocusEvent): boolean {
    return relatedTarget instanceof Node && this.host.nativeElement.contains(relatedTarget);
  }

  protected close(): void {
    const box = this.host.nativeElement.querySelector('details');
    if (box) box.open = false;
  }
}
