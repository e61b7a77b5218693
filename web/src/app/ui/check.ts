import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import type { FormCheckboxControl } from '@angular/forms/signals';
import { NzCheckboxComponent } from 'ng-zorro-antd/checkbox';

/** Something that is so or not; its words are its content. */
@Component({
  selector: 'jh-check',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NzCheckboxComponent],
  // The checkbox makes its field inside the label.
  template: `<!-- eslint-disable-next-line @angular-eslint/template/label-has-associated-control -->
    <label nz-checkbox [nzChecked]="checked()" (nzCheckedChange)="checked.set($event)"><ng-content /></label>`,
  styles: `
    :host {
      display: inline-block;
    }
  `,
})
export class Check implements FormCheckboxControl {
  readonly checked = model.required<boolean>();
}
