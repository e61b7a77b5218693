import { ChangeDetectionStrategy, Component, computed, inject, input, signal, type OnDestroy } from '@angular/core';
import { nameOf, pitchAt } from '@joined-hands/core/pitch';
import { Ear } from '../../platform/input/ear';
import { Words } from '../../platform/words';
import { Live } from '../live';
import { Modal } from '../modal';
import { Pressed } from '../pressed';
import { Signs } from '../signs';
import { EarSetup } from './ear-setup';

/** Sharps and flats as they are mostly met. */
const NAMES = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

/**
 * Listening by microphone, on and off, with the sign that it is live: how loud it is, and the keys that are heard. It is turned off with
 * the screen that shows the sign.
 */
@Component({
  selector: 'jh-ear-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EarSetup, Live, Modal, Pressed, Signs],
  templateUrl: './ear-button.html',
  styleUrl: './ear-button.less',
  host: { '[class.on]': 'ear.on()' },
})
export class EarButton implements OnDestroy {
  protected readonly ear = inject(Ear);
  private readonly words = inject(Words);
  /** True where the other hand is heard from the loudspeaker while one plays. */
  readonly otherSounds = input(false);
  protected readonly settingUp = signal(false);
  protected readonly letters = computed(() => {
    const say = this.words.say();
    return this.ear.lately().map((midi) => say.note(nameOf(pitchAt(NAMES[midi % 12], midi))));
  });
  /** What is told while it listens: the worst first. */
  protected readonly told = computed(() => {
    if (this.ear.noisy()) return $localize`It is loud in this room. Close a window, or come closer to the piano.`;
    if (this.otherSounds()) return $localize`Use headphones, so that the other hand is not heard as yours.`;
    if (this.ear.changed()) return $localize`This browser filters what the microphone hears; some notes may be missed.`;
    const cents = this.ear.cents();
    if (Math.abs(cents) >= 5) {
      const off = Math.abs(cents);
      return cents < 0
        ? $localize`Your piano is ${off} cents low: taken into account.`
        : $localize`Your piano is ${off} cents high: taken into account.`;
    }
    return null;
  });

  ngOnDestroy(): void {
    this.ear.stop();
  }

  protected toggle(): void {
    if (this.ear.state() === 'off') void this.ear.start();
    else this.ear.stop();
  }
}
