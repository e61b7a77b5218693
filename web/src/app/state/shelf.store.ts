import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import type { Document } from '@joined-hands/core';
import { DEMO_LOG, type DemoLog } from './demo-log';
import { Library, type BinnedSong, type StoredSong } from '../storage/library';
import { Workers } from '../workers/workers';

interface ShelfState {
  readonly songs: readonly StoredSong[];
  /** What was taken off the shelf, the last first. */
  readonly bin: readonly BinnedSong[];
  readonly loaded: boolean;
}

/** The demo songs, with the days before today on which they were practised and for how many minutes. */
const DEMOS = [
  { name: 'all-aboard-for-nettle-point.musicxml', ago: [], minutes: 0 },
  { name: 'harbour-glass.abc', ago: [12, 11, 9, 8, 6, 5, 3, 2, 1], minutes: 30 },
  { name: 'lamps-across-the-sound.letters', ago: [10, 7, 4], minutes: 20 },
];

/** The songs on the shelf, newest first; the three demo songs are put there on the first visit. */
export const ShelfStore = signalStore(
  { providedIn: 'root' },
  withState<ShelfState>({ songs: [], bin: [], loaded: false }),
  withMethods((store, library = inject(Library), workers = inject(Workers)) => {
    const refresh = async (): Promise<void> =>
      patchState(store, { songs: await library.all(), bin: await library.binned(), loaded: true });

    /** Demo songs are older than anything the pianist brings in. */
    const putDemos = async (): Promise<void> => {
      const logs: DemoLog[] = [];
      for (const [i, { name, ago, minutes }] of DEMOS.entries()) {
        const answer = await fetch(`demo/${name}`);
        if (!answer.ok) continue;
        const opened = await workers.reader.open(name, new Uint8Array(await answer.arrayBuffer()), null, {});
        if (!opened.ok) continue;
        const id = await library.add(opened.document, { demo: true, createdAt: i + 1 });
        if (ago.length > 0) logs.push({ song: id, ago, minutes, seed: i });
      }
      await library.keepSetting(DEMO_LOG, logs);
      await library.keepSetting('demos', true);
    };

    let ready: Promise<void> | null = null;
    return {
      /** Loads the shelf; safe to call from every screen. */
      load(): Promise<void> {
        ready ??= (async () => {
          if (!(await library.setting<boolean>('demos'))) await putDemos();
          await refresh();
        })();
        return ready.then(refresh);
      },
      async add(document: Document): Promise<string> {
        const id = await library.add(document);
        void library.askToStay();
        await refresh();
        return id;
      },
      async duplicate(song: StoredSong): Promise<void> {
        const title = `${song.document.song.title} (copy)`.slice(0, 200);
        await library.add({ ...song.document, song: { ...song.document.song, title } });
        await refresh();
      },
      async rename(song: StoredSong, title: string): Promise<void> {
        const trimmed = title.trim().slice(0, 200);
        if (!trimmed || trimmed === song.document.song.title) return;
        await library.save(song.id, { ...song.document, song: { ...song.document.song, title: trimmed } });
        await refresh();
      },
      /** Puts a song into the bin. */
      async remove(song: StoredSong): Promise<void> {
        await library.remove(song.id);
        await refresh();
      },
      async putBack(id: string): Promise<void> {
        await library.putBack(id);
        await refresh();
      },
      async forget(id: string): Promise<void> {
        await library.forget(id);
        await refresh();
      },
      /** Sets out the songs of a shelf file beside those that are there. */
      async addAll(documents: readonly Document[]): Promise<void> {
        for (const document of documents) await library.add(document);
        await refresh();
      },
    };
  }),
);
