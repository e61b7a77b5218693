import { DOCUMENT, DestroyRef, inject } from '@angular/core';

/** Keeps the screen from going dark until the screen of the application that asks for it is left; where the browser cannot, nothing happens. */
export function keepAwake(): void {
  const document = inject(DOCUMENT);
  let lock: WakeLockSentinel | null = null;
  let left = false;
  const ask = (): void => {
    if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
    // Refused where the battery is low, or before the page is touched: the screen then behaves as it always does.
    navigator.wakeLock.request('screen').then(
      (got) => {
        lock = got;
        if (left) void got.release();
      },
      () => (lock = null),
    );
  };
  ask();
  // The browser lets go of it whenever the page is hidden.
  document.addEventListener('visibilitychange', ask);
  inject(DestroyRef).onDestroy(() => {
    left = true;
    document.removeEventListener('visibilitychange', ask);
    void lock?.release();
  });
}
