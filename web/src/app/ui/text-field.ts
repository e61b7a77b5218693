import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import type { FormValueControl, ValidationError } from '@angular/forms/signals';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { FieldError } from './field-error';

let made = 0;

/** A line of words, or several; what it may be is said by the form that it belongs to. */
@Component({
  selector: 'jh-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FieldError, NzInputDirective],
  template: `<label [for]="id">{{ label() }}</label>
    @if (rows() > 1) {
      <textarea
        nz-input
        #area
        class="field"
        [id]="id"
        [rows]="rows()"
        [value]="value()"
        [attr.aria-invalid]="faulty()"
        [attr.aria-describedby]="faulty() ? id + '-fault' : null"
        (input)="value.set(area.value)"
        (blur)="touched.set(true)"
      ></textarea>
    } @else {
      <input
        nz-input
        #line
        class="field"
        autocomplete="off"
        [id]="id"
        [value]="value()"
        [attr.aria-invalid]="faulty()"
        [attr.aria-describedby]="faulty() ? id + '-fault' : null"
        (input)="value.set(line.value)"
        (blur)="touched.set(true)"
      />
    }
    <jh-field-error [errorId]="id + '-fault'" [errors]="errors()" />`,
  styles: `
    :host {
      display: block;
    }
    label {
      display: block;
      margin-bottom: 3px;
    }
  `,
})
export class TextField implements FormValueControl<string> {
  protected readonly id = `text-${made++}`;
  readonly label = input.required<string>();
  readonly rows = input(1);
  readonly value = model.required<string>();
  readonly touched = model(false);
  readonly errors = input<readonly ValidationError.WithOptionalFieldTree[]>([]);
  protected readonly faulty = computed(() => this.errors().length > 0);
}
