import { Injectable, signal } from '@angular/core';

export interface Toast {
  readonly text: string;
  readonly action: { readonly label: string; readonly run: () => void } | null;
}

const SHOWN_MS = 9000;

/** Short messages at the foot of the screen, with a way back where there is one. */
@Injectable({ providedIn: 'root' })
export class Toasts {
  readonly current = signal<Toast | null>(null);
  private timer = 0;

  say(text: string, action: Toast['action'] = null): void {
    clearTimeout(this.timer);
    this.current.set({ text, action });
    this.timer = window.setTimeout(() => this.current.set(null), SHOWN_MS);
  }

  dismiss(): void {
    this.current.set(null);
  }
}
