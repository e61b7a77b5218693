import { Injectable, signal } from '@angular/core';
import type { Edit } from '@joined-hands/core/song';

/** What became of a song in another tab: it was saved, or it is on the shelf no longer. */
type News = 'saved' | 'removed';

/** What a tab tells the others. */
interface Message {
  readonly song: string;
  readonly tab: string;
  readonly news: News;
  /** The change that was saved, where it was one. */
  readonly edit: Edit | null;
}

/**
 * Several tabs on one shelf. A song is worked on in one of them, which holds the browser's lock of its name; the others show what
 * is made there, and the first of them gets the lock when it is let go.
 */
@Injectable({ providedIn: 'root' })
export class Tabs {
  private readonly tab = crypto.randomUUID();
  private readonly channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('joined-hands');
  private song: string | null = null;
  /** Lets go of the lock, or leaves the row of those who wait for it. */
  private leave: () => void = () => undefined;
  /** True where the open song is worked on in another tab, and this one only shows it. */
  readonly isReadOnly = signal(false);
  /** Called when another tab saved the song that is open here, or took it off the shelf. */
  changed: (song: string, news: News, edit: Edit | null) => void = () => undefined;
  /** Counts what other tabs did to any song, for a shelf that is looked at. */
  readonly news = signal(0);

  constructor() {
    this.channel?.addEventListener('message', ({ data: { song, tab, news, edit } }: MessageEvent<Message>) => {
      if (tab === this.tab) return;
      this.news.update((n) => n + 1);
      if (song === this.song) this.changed(song, news, edit ?? null);
    });
  }

  /** Says that this tab now works on a song, or on none. */
  open(song: string | null): void {
    if (this.song === song) return;
    this.leave();
    this.song = song;
    this.isReadOnly.set(false);
    if (song) void this.hold(song, { ifAvailable: true });
  }

  /** Works on the open song here; the tab that did so shows it from now on. */
  takeOver(): void {
    if (!this.song) return;
    this.leave();
    void this.hold(this.song, { steal: true });
  }

  /** Tells the other tabs what was done to a song here. */
  tell(song: string, news: News, edit: Edit | null = null): void {
    this.channel?.postMessage({ song, tab: this.tab, news, edit } satisfies Message);
  }

  /** Asks for the lock of a song and keeps it until it is let go or taken; where another tab has it, waits for it. */
  private async hold(song: string, how: LockOptions): Promise<void> {
    if (!('locks' in navigator)) return;
    let gone = false;
    const wait = new AbortController();
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (letGo = resolve));
    this.leave = () => {
      gone = true;
      letGo();
      wait.abort();
    };
    const keep = (lock: Lock | null): Promise<void> | undefined => {
      if (gone) return;
      this.isReadOnly.set(lock === null);
      return lock === null ? undefined : held;
    };
    const name = `joined-hands:${song}`;
    for (let options: LockOptions = how; !gone; options = { signal: wait.signal }) {
      try {
        await navigator.locks.request(name, options, keep);
      } catch (error) {
        // A lock that is taken by another tab, or no longer waited for, ends so; any other end means that there are no locks here.
        if (!(error instanceof DOMException && error.name === 'AbortError')) return;
        if (!gone) this.isReadOnly.set(true);
      }
    }
  }
}
