import { Injectable, signal } from '@angular/core';

/** What tabs of the application tell each other. */
interface Word {
  readonly kind: 'opened' | 'here' | 'saved' | 'closed';
  readonly song: string;
  readonly tab: string;
}

/** Several tabs on one shelf: each says which song it works on and when it saved it. */
@Injectable({ providedIn: 'root' })
export class Tabs {
  private readonly tab = crypto.randomUUID();
  private readonly channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('joined-hands');
  private song: string | null = null;
  private readonly others = new Set<string>();
  /** True where another tab has the same song open. */
  readonly shared = signal(false);
  /** Called when another tab saved the song that is open here. */
  changed: (song: string) => void = () => undefined;

  constructor() {
    this.channel?.addEventListener('message', (event: MessageEvent<Word>) => this.hear(event.data));
    addEventListener('pagehide', () => this.open(null));
  }

  /** Says that this tab now works on a song, or on none. */
  open(song: string | null): void {
    if (this.song === song) return;
    if (this.song) this.say('closed', this.song);
    this.song = song;
    this.others.clear();
    this.shared.set(false);
    if (song) this.say('opened', song);
  }

  saved(song: string): void {
    this.say('saved', song);
  }

  private say(kind: Word['kind'], song: string): void {
    this.channel?.postMessage({ kind, song, tab: this.tab } satisfies Word);
  }

  private hear({ kind, song, tab }: Word): void {
    if (song !== this.song || tab === this.tab) return;
    if (kind === 'closed') this.others.delete(tab);
    else this.others.add(tab);
    this.shared.set(this.others.size > 0);
    if (kind === 'opened') this.say('here', song);
    if (kind === 'saved') this.changed(song);
  }
}
