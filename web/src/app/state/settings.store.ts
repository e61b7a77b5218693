import { effect, inject } from '@angular/core';
import { getState, patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { Library } from '../storage/library';

export interface Settings {
  readonly theme: 'day' | 'evening';
  /** Share of the song's own tempo, 40 to 120. */
  readonly tempoPercent: number;
  readonly countIn: boolean;
  readonly click: boolean;
  readonly paper: 'a4' | 'letter';
}

const DEFAULTS: Settings = { theme: 'day', tempoPercent: 75, countIn: true, click: false, paper: 'a4' };

/** How the application looks and sounds; kept in the browser. */
export const SettingsStore = signalStore(
  { providedIn: 'root' },
  withState<Settings>(DEFAULTS),
  withMethods((store) => ({
    set(change: Partial<Settings>): void {
      patchState(store, change);
    },
  })),
  withHooks({
    onInit(store) {
      const library = inject(Library);
      let loaded = false;
      void library.setting<Partial<Settings>>('settings').then((kept) => {
        loaded = true;
        if (kept) patchState(store, kept);
      });
      effect(() => {
        const now = getState(store);
        document.documentElement.dataset['theme'] = now.theme;
        if (loaded) void library.keepSetting('settings', now);
      });
    },
  }),
);
