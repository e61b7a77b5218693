import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Player } from '../../platform/audio/player';
import { KeyInput } from '../../platform/input/key-input';
import { LEADERS } from '../../platform/input/lead';
import { SettingsStore } from '../../platform/state/settings.store';
import { Check } from '../../ui/check';
import { Choice } from '../../ui/choice';
import { EarButton } from '../../ui/ear/ear-button';
import { Pop } from '../../ui/pop';
import { Slider } from '../../ui/slider';
import { Rehearsal } from './rehearsal';
import { Go } from '../../ui/go';
import { Pressed } from '../../ui/pressed';

/** Start and stop, how the pass goes, what is heard, and who listens. */
@Component({
  selector: 'jh-listen-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, Choice, EarButton, Go, Pop, Pressed, Slider],
  templateUrl: './listen-bar.html',
  styleUrl: './listen-bar.less',
})
export class ListenBar {
  protected readonly rehearsal = inject(Rehearsal);
  protected readonly settings = inject(SettingsStore);
  protected readonly player = inject(Player);
  protected readonly keys = inject(KeyInput);
  protected readonly onScreen = $localize`on the screen`;
  protected readonly paces = [
    { id: 'time' as const, text: $localize`In time` },
    { id: 'wait' as const, text: $localize`Wait for me` },
  ];
  protected readonly voices = [
    { id: 'piano' as const, text: $localize`Piano` },
    { id: 'electric' as const, text: $localize`Soft electric` },
  ];
  protected readonly nexts = LEADERS;
  protected readonly standIns = [
    { id: 'clean' as const, text: $localize`Clean` },
    { id: 'learner' as const, text: $localize`Some slips` },
    { id: 'rough' as const, text: $localize`Many slips` },
  ];
  /** Loudness of the simulated keys, 1 to 10. */
  protected readonly loudness = computed(() => Math.round(this.settings.keyLoudness() * 10));
  /** The hand that is not practised, where one is. */
  protected readonly other = computed(() => {
    const hands = this.rehearsal.step()?.hands;
    return hands === 'right' ? $localize`Left hand` : hands === 'left' ? $localize`Right hand` : null;
  });
  protected readonly busy = computed(() => !this.rehearsal.idle());
  protected readonly says = computed(() => {
    if (this.player.trouble()) return this.player.trouble();
    switch (this.rehearsal.state()) {
      case 'playing':
        return this.player.state() === 'loading' ? $localize`Loading the piano…` : $localize`Play along after the count-in.`;
      case 'waiting':
        return $localize`Play the marked keys; the music waits.`;
      case 'hearing':
        return $localize`This is how it sounds.`;
      default:
        return '';
    }
  });
}
