import { Injectable, signal } from '@angular/core';

export interface Toast {
  readonly text: string;
  readonly action: { readonly label: string; readonly run: () => void } | null;
}

/** How long a message stands, in milliseconds; one that offers a way back stands longer. */
const SHOWN_MS = { plain: 9000, withAction: 14_000 } as const;

/** Most messages that stand at a time; of more, the oldest without a way back goes first. */
const MOST = 3;

/** Short messages at the foot of the screen, the newest below, each with its way back where there is one: a second never takes it away. */
@Injectable({ providedIn: 'root' })
export class Toasts {
  readonly shown = signal<readonly Toast[]>([]);

  say(text: string, action: Toast['action'] = null): void {
    const toast: Toast = { text, action };
    this.shown.update((had) => {
      const others = had.filter((t) => t.action !== null || t.text !== text);
      const spare = others.length < MOST ? null : (others.find((t) => t.action === null) ?? others[0]);
      return [...others.filter((t) => t !== spare), toast];
    });
    setTimeout(() => this.dismiss(toast), action ? SHOWN_MS.withAction : SHOWN_MS.plain);
  }

  dismiss(toast: Toast): void {
    this.shown.update((had) => had.filter((t) => t !== toast));
  }
}
