import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { FormField, form, validateStandardSchema } from '@angular/forms/signals';
import { LEVELS, type Hands } from '@joined-hands/core/song';
import { CAUTION, LEVEL_LABELS } from '@joined-hands/core/words';
import * as z from 'zod';
import { neededLine } from '../../platform/form-schema';
import { NAMINGS } from '../../platform/namings';
import { LONGEST_NAME, type Wishes } from '../../platform/state/player';
import { Check } from '../../ui/check';
import { Dropdown } from '../../ui/dropdown';
import { handOptions, isMeasured, KEYBOARD_OPTIONS, MEASURED } from '../../ui/hand-options';
import { TextField } from '../../ui/text-field';
import { JOIN_WISHES, LEARN_WISHES, MINUTE_WISHES, STEP_WISHES } from '../../ui/wish-words';

const PLAYER = z.object({ name: neededLine(LONGEST_NAME, $localize`A player needs a name.`) });

const FIRST_HANDS = [
  { id: 'right' as const, text: $localize`the right hand` },
  { id: 'left' as const, text: $localize`the left hand` },
];

/** What is known of a player, as it is shown and given back. */
export interface PlayerFacts {
  readonly name: string;
  readonly hands: Hands;
  readonly wishes: Wishes;
}

/** Who somebody is at the piano: a name, hands, a keyboard, how full a left hand, how notes are named and songs are learned. */
@Component({
  selector: 'jh-player-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, Dropdown, FormField, TextField],
  template: `<form novalidate (submit)="$event.preventDefault(); keep()">
    <jh-text i18n-label label="Name" [formField]="fields.name" />
    <h3 i18n>At the piano</h3>
    <p><span i18n>Hand</span> <jh-dropdown i18n-label label="Hand" [entries]="profiles()" [formField]="fields.profile" /></p>
    <p><span i18n>Keyboard</span> <jh-dropdown i18n-label label="Keyboard" [entries]="sizes" [formField]="fields.keys" /></p>
    <p>
      <span i18n>Left hand at most</span>
      <jh-dropdown i18n-label label="Left hand at most" [entries]="levels" [formField]="fields.most" />
    </p>
    <jh-check i18n [formField]="fields.firstYear">First year: two notes at a time, nothing stretched</jh-check>
    <p class="care">{{ caution }}</p>
    <h3 i18n>Learning</h3>
    <p>
      <span i18n>Notes are called</span>
      <jh-dropdown i18n-label label="Notes are called" [entries]="namings" [formField]="fields.noteNames" />
    </p>
    <p>
      <span i18n>The hands meet on</span>
      <jh-dropdown i18n-label label="The hands meet on" [entries]="learnings" [formField]="fields.learnBy" />
    </p>
    <p>
      <span i18n>Begin with</span> <jh-dropdown i18n-label label="Begin with" [entries]="firsts" [formField]="fields.firstHand" />
    </p>
    <p>
      <span i18n>Parts are learned</span>
      <jh-dropdown i18n-label label="Parts are learned" [entries]="steps" [formField]="fields.stepOrder" />
    </p>
    <p>
      <span i18n>Parts are joined</span>
      <jh-dropdown i18n-label label="Parts are joined" [entries]="joins" [formField]="fields.joinOrder" />
    </p>
    <p>
      <span i18n>Practice a day</span>
      <jh-dropdown i18n-label label="Practice a day" [entries]="minutes" [formField]="fields.minutes" />
    </p>
    <p class="ends">
      <button i18n type="button" class="btn" (click)="left.emit()">Cancel</button>
      <button i18n type="submit" class="btn main" [disabled]="fields().invalid()">Keep</button>
    </p>
  </form>`,
  styleUrl: './player-form.less',
})
export class PlayerForm {
  readonly player = input.required<PlayerFacts>();
  readonly kept = output<PlayerFacts>();
  readonly left = output();
  protected readonly caution = CAUTION;
  protected readonly sizes = KEYBOARD_OPTIONS;
  protected readonly levels = [...LEVELS].reverse().map((id) => ({ id, text: LEVEL_LABELS[id] }));
  protected readonly namings = NAMINGS;
  protected readonly learnings = LEARN_WISHES;
  protected readonly firsts = FIRST_HANDS;
  protected readonly steps = STEP_WISHES;
  protected readonly joins = JOIN_WISHES;
  protected readonly minutes = MINUTE_WISHES;
  private readonly measured = computed(() => isMeasured(this.player().hands));
  protected readonly profiles = computed(() => handOptions(this.measured()));
  private readonly shown = computed(() => {
    const { name, hands, wishes } = this.player();
    const { profile, keys, most, firstYear } = hands;
    return {
      ...wishes,
      name,
      profile: this.measured() ? MEASURED : profile,
      keys,
      most,
      firstYear,
    };
  });
  private readonly typed = linkedSignal(() => this.shown());
  protected readonly fields = form(this.typed, (path) => validateStandardSchema(path, PLAYER));

  protected keep(): void {
    if (this.fields().invalid()) return;
    const { name, profile, keys, most, firstYear, ...wishes } = this.typed();
    const { hands } = this.player();
    const own = profile === MEASURED ? hands : { ...hands, profile, left: null, right: null };
    this.kept.emit({ name: name.trim(), hands: { ...own, keys, most, firstYear }, wishes });
  }
}
