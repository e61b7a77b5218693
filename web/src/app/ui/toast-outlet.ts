import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Toasts } from '../platform/toasts';

/** Where messages are shown. */
@Component({
  selector: 'jh-toast',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div aria-live="polite">
      @if (toasts.current(); as toast) {
        <p class="toast">
          <span>{{ toast.text }}</span>
          @if (toast.action; as action) {
            <button type="button" (click)="action.run(); toasts.dismiss()">{{ action.label }}</button>
          }
        </p>
      }
    </div>
  `,
  styles: `
    .toast {
      position: fixed;
      right: 18px;
      bottom: 170px;
      max-width: 340px;
      z-index: 900;
      margin: 0;
      padding: 11px 14px 11px 18px;
      display: flex;
      gap: 14px;
      align-items: center;
      border-radius: 10px;
      background: var(--ink);
      color: var(--paper);
      box-shadow: 0 8px 28px rgba(0, 0, 0, 0.25);
    }
    button {
      flex: none;
      border: 1px solid currentColor;
      border-radius: 7px;
      background: none;
      color: inherit;
      padding: 4px 12px;
      cursor: pointer;
      font-weight: 600;
    }
  `,
})
export class ToastOutlet {
  protected readonly toasts = inject(Toasts);
}
