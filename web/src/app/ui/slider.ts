import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { NzSliderComponent } from 'ng-zorro-antd/slider';

/** A figure between two ends, drawn or moved by the arrow keys. */
@Component({
  selector: 'jh-slider',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormsModule, NzSliderComponent],
  template: `<nz-slider
    nzTooltipVisible="never"
    [nzMin]="from()"
    [nzMax]="to()"
    [nzStep]="step()"
    [attr.aria-label]="label()"
    [ngModel]="value()"
    (ngModelChange)="value.set($event)"
  />`,
  styles: `
    :host {
      display: block;
    }
  `,
})
export class Slider {
  readonly label = input.required<string>();
  readonly from = input(0);
  readonly to = input.required<number>();
  readonly step = input(1);
  readonly value = model.required<number>();
}
