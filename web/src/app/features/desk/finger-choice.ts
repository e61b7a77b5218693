import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Pressed } from '../../ui/pressed';

/** The five fingers side by side: the one that plays is filled, one that the pianist chose is marked and can be let go. */
@Component({
  selector: 'jh-finger-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Pressed],
  template: `
    <span class="switch small" role="group" [attr.aria-label]="label()">
      @for (f of fingers; track f) {
        <button data-testid="finger" [jhPressed]="finger() === f" (click)="chosen.emit(f)">
          {{ f }}
        </button>
      }
    </span>
    @if (kept()) {
      <button i18n type="button" class="link" (click)="chosen.emit(null)">use suggested</button>
    }
  `,
  styles: `
    :host {
      display: inline-flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
    }
    .switch button {
      padding: 4px 10px;
    }
  `,
})
export class FingerChoice {
  readonly label = input.required<string>();
  readonly finger = input.required<number | null>();
  /** True where the pianist chose it. */
  readonly kept = input(false);
  readonly chosen = output<number | null>();
  protected readonly fingers = [1, 2, 3, 4, 5];
}
