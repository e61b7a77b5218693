import { Injectable, inject, signal } from '@angular/core';
import type { Task } from '@joined-hands/core/passing';
import { PlayersStore } from './state/players.store';
import { keptFor } from './storage/first-player';
import { Library } from './storage/library';

/** What teachers wish to be practised of songs, by whoever plays now; kept beside them. */
@Injectable({ providedIn: 'root' })
export class Tasks {
  private readonly library = inject(Library);
  private readonly players = inject(PlayersStore);
  /** Tasks that were looked up, by player and song. */
  private readonly known = signal<ReadonlyMap<string, Task | null>>(new Map());

  /** The task of a song as far as it was looked up. */
  of(song: string): Task | null {
    return this.known().get(this.keptAs(song)) ?? null;
  }

  async load(song: string): Promise<void> {
    await this.players.load();
    const key = this.keptAs(song);
    const task = await this.library.setting<Task>(key).catch(() => null);
    this.known.update((all) => new Map(all).set(key, task));
  }

  /** Keeps a task; null where it is done with. */
  async keep(song: string, task: Task | null): Promise<void> {
    const key = this.keptAs(song);
    this.known.update((all) => new Map(all).set(key, task));
    await this.library.keepSetting(key, task);
  }

  private keptAs(song: string): string {
    return keptFor('task', this.players.playing(), song);
  }
}
