import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Toasts } from '../platform/toasts';

/** Where messages are shown. */
@Component({
  selector: 'jh-toast',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row" aria-live="polite">
      @for (toast of toasts.shown(); track toast) {
        <p class="toast">
          <span>{{ toast.text }}</span>
          @if (toast.action; as action) {
            <button type="button" (click)="action.run(); toasts.dismiss(toast)">{{ action.label }}</button>
          }
        </p>
      }
    </div>
  `,
  styleUrl: './toast-outlet.less',
})
export class ToastOutlet {
  protected readonly toasts = inject(Toasts);
}
