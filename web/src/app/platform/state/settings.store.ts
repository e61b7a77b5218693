import { effect } from '@angular/core';
import { getState, patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { SettingsSchema, type Settings } from './settings';

const KEY = 'joined-hands-settings';

/** Settings are read and written at once, so that the page opens in its theme and nothing is lost on leaving it. */
function kept(): Settings {
  try {
    return SettingsSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
  } catch {
    return SettingsSchema.parse({});
  }
}

/** How the application looks and sounds; kept in the browser. */
export const SettingsStore = signalStore(
  { providedIn: 'root' },
  withState<Settings>(kept),
  withMethods((store) => ({
    /** All of them as they are now. */
    all: (): Settings => getState(store),
    set(change: Partial<Settings>): void {
      patchState(store, change);
      localStorage.setItem(KEY, JSON.stringify(getState(store)));
    },
  })),
  withHooks({
    onInit(store) {
      effect(() => (document.documentElement.dataset['theme'] = store.theme()));
    },
  }),
);
