import '@angular/localize/init';
import { beforeEach } from 'vitest';

// Several files of tests share one process, and one browser where they ask for it: none finds what another one left there.
beforeEach(() => {
  if (!('localStorage' in globalThis)) return;
  localStorage.clear();
  document.body.innerHTML = '';
});
