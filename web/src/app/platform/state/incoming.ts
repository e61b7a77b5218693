import { Injectable, signal } from '@angular/core';

/** Files that were dropped anywhere on the page, until the intake takes them. */
@Injectable({ providedIn: 'root' })
export class Incoming {
  readonly files = signal<readonly File[]>([]);

  /** What was dropped, once. */
  take(): readonly File[] {
    const files = this.files();
    this.files.set([]);
    return files;
  }
}
