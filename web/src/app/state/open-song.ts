import { effect, inject, untracked } from '@angular/core';
import { DeskStore } from './desk.store';

/** Opens the song that a screen's address names, now and whenever it names another. Called while the screen is made. */
export function openSong(id: () => string): void {
  const desk = inject(DeskStore);
  effect(() => {
    const song = id();
    untracked(() => void desk.open(song));
  });
}
