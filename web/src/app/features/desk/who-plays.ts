import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { HAND_PROFILES, handsOf, type Hands } from '@joined-hands/core/song';
import { CAUTION } from '@joined-hands/core/words';
import { DeskStore } from '../../platform/state/desk.store';
import { Toasts } from '../../platform/toasts';
import { Dropdown } from '../../ui/dropdown';
import { handOptions, isMeasured, KEYBOARD_OPTIONS, MEASURED } from '../../ui/hand-options';

/** Whose hands, on which keyboard: beside the keys, for a pupil with smaller hands who sits down. */
@Component({
  selector: 'jh-who-plays',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Dropdown, RouterLink],
  template: `
    <jh-dropdown i18n-label label="Hand" [entries]="profiles()" [value]="profile()" (valueChange)="setProfile($event)" />
    <jh-dropdown i18n-label label="Keyboard" [entries]="sizes" [value]="hands().keys" (valueChange)="change({ keys: $event })" />
    <a i18n [routerLink]="['/hands', desk.id()]">measure …</a>
  `,
  styleUrl: './who-plays.less',
})
export class WhoPlays {
  protected readonly desk = inject(DeskStore);
  private readonly toasts = inject(Toasts);
  protected readonly sizes = KEYBOARD_OPTIONS;
  protected readonly hands = computed(() => this.desk.document()?.hands ?? handsOf());
  private readonly measured = computed(() => isMeasured(this.hands()));
  protected readonly profile = computed(() => (this.measured() ? MEASURED : this.hands().profile));
  protected readonly profiles = computed(() => handOptions(this.measured()));

  protected change(change: Partial<Hands>): void {
    void this.desk.edit({ code: 'edit.hands', change });
  }

  protected setProfile(value: string): void {
    const profile = HAND_PROFILES.find((p) => p === value);
    if (!profile) return;
    this.change({ profile, left: null, right: null });
    this.toasts.say(CAUTION);
  }
}
