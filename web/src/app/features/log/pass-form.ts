import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { FormField, form, validateStandardSchema } from '@angular/forms/signals';
import type { Pass } from '@joined-hands/core/log';
import * as z from 'zod';
import { number, wholeNumber } from '../../platform/form-schema';
import { Check } from '../../ui/check';
import { NumberField } from '../../ui/number-field';
import { TextField } from '../../ui/text-field';

const LONGEST_NOTE = 500;
const PASS = z.object({
  tempo: wholeNumber(0, 400, $localize`A tempo is a whole number up to 400.`),
  minutes: number(0, 1440, $localize`A day has 1,440 minutes at most.`),
  clean: z.boolean(),
  note: z.string().max(LONGEST_NOTE, $localize`A note has at most ${LONGEST_NOTE} letters.`),
});

/** Seconds in minutes, as they are shown: to a tenth. */
export const inMinutes = ({ seconds }: Pick<Pass, 'seconds'>): number => Math.round(seconds / 6) / 10;

/** What can be put right in a pass of the log. */
@Component({
  selector: 'jh-pass-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, FormField, NumberField, TextField],
  template: `<form novalidate (submit)="$event.preventDefault(); keep()">
    <jh-number i18n-label label="Tempo, quarter notes a minute" [formField]="fields.tempo" />
    <jh-number i18n-label label="Minutes" [step]="0.5" [formField]="fields.minutes" />
    <jh-check i18n [formField]="fields.clean">It was clean</jh-check>
    <jh-text i18n-label label="Your notes" [rows]="3" [formField]="fields.note" />
    <p class="ends">
      <button i18n type="button" class="btn" (click)="left.emit()">Cancel</button>
      <button i18n type="submit" class="btn main" [disabled]="fields().invalid()">Keep</button>
    </p>
  </form>`,
  styles: `
    form {
      display: grid;
      gap: 14px;
      margin-top: 14px;
    }
    .ends {
      display: flex;
      justify-content: flex-end;
      gap: 10px;
      margin: 4px 0 0;
    }
  `,
})
export class PassForm {
  readonly pass = input.required<Pass>();
  readonly kept = output<Pass>();
  readonly left = output();
  private readonly shown = computed(() => {
    const pass = this.pass();
    const { tempo, clean, note } = pass;
    return { tempo: tempo as number | null, minutes: inMinutes(pass) as number | null, clean, note };
  });
  private readonly typed = linkedSignal(() => this.shown());
  protected readonly fields = form(this.typed, (path) => validateStandardSchema(path, PASS));

  protected keep(): void {
    const { tempo, minutes, clean, note } = this.typed();
    if (this.fields().invalid() || tempo === null || minutes === null) return;
    // Minutes are shown in round; left as they were, they say nothing of the seconds.
    const seconds = minutes === this.shown().minutes ? this.pass().seconds : minutes * 60;
    this.kept.emit({ ...this.pass(), tempo, seconds, clean, note });
  }
}
