import { effect, inject, untracked } from '@angular/core';
import { Workers } from '../workers/workers';
import { DeskStore } from './desk.store';

/** Opens the song that a screen's address names, if it names one, now and whenever it names another. Called while the screen is made. */
export function openSong(id: () => string | undefined): void {
  const desk = inject(DeskStore);
  inject(Workers).prepareEngraver();
  effect(() => {
    const song = id();
    if (song) untracked(() => void desk.open(song));
  });
}
