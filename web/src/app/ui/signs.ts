import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { signRuns } from './sign-runs';

/** Text with musical signs, in HTML. */
@Component({
  selector: 'jh-signs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@for (run of runs(); track $index) {
    <span [class.sign]="run.sign">{{ run.text }}</span>
  }`,
})
export class Signs {
  readonly text = input.required<string>();
  protected readonly runs = computed(() => signRuns(this.text()));
}

/** Text with musical signs, inside an SVG text element. */
@Component({
  selector: '[jhSigns]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@for (run of runs(); track $index) {
    <svg:tspan [class.sign]="run.sign" [attr.dx]="run.sign ? 1 : null">{{ run.text }}</svg:tspan>
  }`,
})
export class SvgSigns {
  readonly jhSigns = input.required<string>();
  protected readonly runs = computed(() => signRuns(this.jhSigns()));
}
