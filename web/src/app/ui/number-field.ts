import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterRenderEffect,
  computed,
  effect,
  inject,
  input,
  model,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import type { FormValueControl, ValidationError } from '@angular/forms/signals';
import { DownOutline, UpOutline } from '@ant-design/icons-angular/icons';
import { provideNzIconsPatch } from 'ng-zorro-antd/icon';
import { NzInputNumberComponent } from 'ng-zorro-antd/input-number';
import { FieldError } from './field-error';

let made = 0;

/** A number that is typed or stepped; null while none stands there. What it may be is said by the form that it belongs to. */
@Component({
  selector: 'jh-number',
  changeDetection: ChangeDetectionStrategy.OnPush,
  // The arrows of the field: an icon that is not given here would be fetched.
  providers: [provideNzIconsPatch([DownOutline, UpOutline])],
  imports: [FieldError, NzInputNumberComponent, ReactiveFormsModule],
  template: `<label [for]="id">{{ label() }}</label>
    <nz-input-number
      [nzId]="id"
      [nzStep]="step()"
      [nzStatus]="faulty() ? 'error' : ''"
      [formControl]="control"
      (nzBlur)="touched.set(true)"
    />
    <jh-field-error [errorId]="id + '-fault'" [errors]="errors()" />`,
  styles: `
    :host {
      display: block;
    }
    label {
      margin-right: 8px;
    }
  `,
})
export class NumberField implements FormValueControl<number | null> {
  protected readonly id = `number-${made++}`;
  readonly label = input.required<string>();
  readonly step = input(1);
  readonly value = model.required<number | null>();
  readonly touched = model(false);
  readonly errors = input<readonly ValidationError.WithOptionalFieldTree[]>([]);
  protected readonly faulty = computed(() => this.errors().length > 0);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  /** The field as the component library knows it; what is typed is taken at once, and never written over by what was typed before. */
  protected readonly control = new FormControl<number | null>(null);

  constructor() {
    this.control.valueChanges.pipe(takeUntilDestroyed()).subscribe((typed) => this.value.set(typed));
    effect(() => {
      const value = this.value();
      if (this.control.value !== value) this.control.setValue(value, { emitEvent: false });
    });
    afterRenderEffect(() => {
      const [faulty, field] = [this.faulty(), this.host.nativeElement.querySelector('input')];
      field?.setAttribute('aria-invalid', `${faulty}`);
      if (faulty) field?.setAttribute('aria-describedby', `${this.id}-fault`);
      else field?.removeAttribute('aria-describedby');
    });
  }
}
