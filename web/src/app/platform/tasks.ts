import { Injectable, inject, signal } from '@angular/core';
import type { Task } from '@joined-hands/core/passing';
import { Library } from './storage/library';

/** Under which name the task of a song is kept. */
const keptAs = (song: string): string => `task:${song}`;

/** What teachers wish to be practised of songs, kept beside them. */
@Injectable({ providedIn: 'root' })
export class Tasks {
  private readonly library = inject(Library);
  /** Tasks that were looked up, by song. */
  private readonly known = signal<ReadonlyMap<string, Task | null>>(new Map());

  /** The task of a song as far as it was looked up. */
  of(song: string): Task | null {
    return this.known().get(song) ?? null;
  }

  async load(song: string): Promise<void> {
    const task = await this.library.setting<Task>(keptAs(song)).catch(() => null);
    this.known.update((all) => new Map(all).set(song, task));
  }

  /** Keeps a task; null where it is done with. */
  async keep(song: string, task: Task | null): Promise<void> {
    this.known.update((all) => new Map(all).set(song, task));
    await this.library.keepSetting(keptAs(song), task);
  }
}
