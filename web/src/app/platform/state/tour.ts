import { Injectable, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { DeskStore } from './desk.store';
import { SettingsStore } from './settings.store';
import { ShelfStore } from './shelf.store';

/** One thing that is pointed at, and what is said of it. */
interface Stop {
  readonly target: string;
  readonly words: string;
}

export const STOPS: readonly Stop[] = [
  {
    target: 'jh-ladder',
    words: $localize`The song is cut into short numbered parts where its phrases end. You learn a repeated part only once.`,
  },
  {
    target: '[data-testid=strip]',
    words: $localize`One part at a time: round stones for the right hand, square blocks for the left. Where both strike together, a clasp closes around the count.`,
  },
  {
    target: '[aria-label=Hands]',
    words: $localize`Work in this order: right hand, left hand, both together, then fills once the hands play well together.`,
  },
  {
    target: 'jh-reasons',
    words: $localize`Press a chord or a note to see why it is played this way, and what else would work. Listen to another, keep it, or undo.`,
  },
  {
    target: 'jh-transport',
    words: $localize`Space starts and stops. Begin slowly: the tempo is a percentage of the song’s own.`,
  },
  {
    target: 'header nav',
    words: $localize`Rehearse plans your minutes and listens while you play. Sheet prints the page for the stand. ? lists every shortcut.`,
  },
];

/** A look round the desk with a demo song, for who is new; it can be left at any time, and asked for again. */
@Injectable({ providedIn: 'root' })
export class Tour {
  private readonly settings = inject(SettingsStore);
  private readonly shelf = inject(ShelfStore);
  private readonly router = inject(Router);
  private readonly desk = inject(DeskStore);
  /** Which stop is shown; null where none is. */
  readonly at = signal<number | null>(null);
  readonly offered = computed(() => this.settings.newcomer());

  constructor() {
    // It is about the desk: who goes elsewhere has seen enough.
    this.router.events.subscribe(() => this.at() !== null && !this.router.url.startsWith('/desk/') && this.end());
  }

  /** Opens a song of the shelf and begins; a demo song before others, since nothing of one's own can be spoiled there. */
  async begin(): Promise<void> {
    await this.shelf.load();
    const songs = this.shelf.songs();
    const song = songs.find((s) => s.demo) ?? songs.at(0);
    if (!song) return;
    await this.router.navigate(['/desk', song.id]);
    this.desk.setView('joined');
    this.at.set(0);
  }

  next(): void {
    const at = this.at();
    if (at === null) return;
    if (at + 1 < STOPS.length) this.at.set(at + 1);
    else this.end();
  }

  end(): void {
    this.at.set(null);
    this.settings.set({ newcomer: false });
  }
}
