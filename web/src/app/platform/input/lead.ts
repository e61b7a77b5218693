import { inject } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { KEYBOARDS, type KeyboardSize } from '@joined-hands/core/song';
import { SettingsStore } from '../state/settings.store';
import { KeyInput } from './key-input';

/** What may lead on, as it is chosen. */
export const LEADERS = [
  { id: 'none' as const, text: $localize`Nothing` },
  { id: 'pedal' as const, text: $localize`The pedal` },
  { id: 'lowest key' as const, text: $localize`The lowest key` },
];

/** Leads on without the mouse, by the pedal or the lowest key as it is set. Called while the screen is made. */
export function leadBy(keyboard: () => KeyboardSize, lead: () => void): void {
  const [settings, keys] = [inject(SettingsStore), inject(KeyInput)];
  keys.pedal.pipe(takeUntilDestroyed()).subscribe(() => {
    if (settings.nextBy() === 'pedal') lead();
  });
  keys.pressedKeys.pipe(takeUntilDestroyed()).subscribe((midi) => {
    if (settings.nextBy() === 'lowest key' && midi === KEYBOARDS[keyboard()].low) lead();
  });
}
