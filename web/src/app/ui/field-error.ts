import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { StandardSchemaValidationError, type ValidationError } from '@angular/forms/signals';

/** What a form has against what stands in a field, beside it. */
@Component({
  selector: 'jh-field-error',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@if (says(); as sentence) {
    <p class="fault" [id]="errorId()" role="alert">{{ sentence }}</p>
  }`,
  styles: `
    p {
      margin: 4px 0 0;
    }
  `,
})
export class FieldError {
  readonly errorId = input.required<string>();
  readonly errors = input.required<readonly ValidationError.WithOptionalFieldTree[]>();
  protected readonly says = computed(() => {
    const error = this.errors().at(0);
    return error instanceof StandardSchemaValidationError ? error.issue.message : (error?.message ?? null);
  });
}
