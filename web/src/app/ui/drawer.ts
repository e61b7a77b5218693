import { A11yModule } from '@angular/cdk/a11y';
import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, TemplateRef, contentChild, input, model } from '@angular/core';
import { NzDrawerModule } from 'ng-zorro-antd/drawer';

/** A panel that rises from the foot of the screen, for what has no room beside the work; its content is a template, and has its own heading. */
@Component({
  selector: 'jh-drawer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [A11yModule, NgTemplateOutlet, NzDrawerModule],
  template: `
    @if (open()) {
      <nz-drawer nzPlacement="bottom" nzHeight="74%" [nzClosable]="false" [nzVisible]="true" (nzOnClose)="open.set(false)">
        <ng-container *nzDrawerContent>
          <section role="dialog" aria-modal="true" [attr.aria-label]="label()" cdkTrapFocus cdkTrapFocusAutoCapture>
            <button i18n type="button" class="btn bare" (click)="open.set(false)">Close</button>
            <ng-container [ngTemplateOutlet]="content()" />
          </section>
        </ng-container>
      </nz-drawer>
    }
  `,
  styles: `
    section {
      position: relative;
    }
    button {
      position: sticky;
      top: 0;
      z-index: 1;
      float: right;
      margin: 6px 8px 0 0;
      background: var(--panel);
    }
  `,
})
export class Drawer {
  /** What it is, for those who do not see it. */
  readonly label = input.required<string>();
  readonly open = model.required<boolean>();
  protected readonly content = contentChild.required(TemplateRef);
}
