import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** Energy from 1 to 5 as rising bars; a press on one chooses it. */
@Component({
  selector: 'jh-energy',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@for (level of levels; track level) {
    <button
      type="button"
      [class.full]="level <= value()"
      [attr.aria-pressed]="level === value()"
      i18n-ariaLabel
      ariaLabel="Energy {{ level }} of 5"
      (click)="chosen.emit(level)"
    >
      <span [style.height.px]="10 + 5 * level"></span>
    </button>
  }`,
  styleUrl: './energy.less',
  host: { role: 'group', '[attr.aria-label]': 'label()' },
})
export class Energy {
  readonly label = input.required<string>();
  /** 0 where nothing is chosen. */
  readonly value = input.required<number>();
  readonly chosen = output<number>();
  protected readonly levels = [1, 2, 3, 4, 5];
}
