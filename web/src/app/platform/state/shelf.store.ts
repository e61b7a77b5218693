import { ENGLISH } from '@joined-hands/core/words';
import { effect, inject, untracked } from '@angular/core';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import type { SongCard } from '@joined-hands/core/sheet';
import type { Document } from '@joined-hands/core/song';
import { DEMO_LOG, type DemoLog } from './demo-log';
import { PlayersStore } from './players.store';
import { Library, STORAGE_SENTENCES, storageTrouble, type BinEntry, type ShelfEntry } from '../storage/library';
import { Tabs } from '../storage/tabs';
import { Toasts } from '../toasts';
import { Workers } from '../workers/workers';
import { latestWins } from '../latest';

type Tags = Readonly<Record<string, readonly string[]>>;

interface ShelfState {
  readonly songs: readonly ShelfEntry[];
  /** What was taken off the shelf, the last first. */
  readonly bin: readonly BinEntry[];
  readonly loaded: boolean;
  /** The tags of songs by their ids. */
  readonly tags: Tags;
  /** The songs as the pianist has laid them out by hand, by their ids; empty where nothing was moved. */
  readonly own: readonly string[];
  /** Why the shelf cannot be read, or null. */
  readonly trouble: string | null;
}

/** The demo songs, with the days before today on which they were practised and for how many minutes. */
const DEMOS = [
  { name: 'all-aboard-for-nettle-point.musicxml', ago: [], minutes: 0 },
  { name: 'harbour-glass.abc', ago: [12, 11, 9, 8, 6, 5, 3, 2, 1], minutes: 30 },
  { name: 'lamps-across-the-sound.letters', ago: [10, 7, 4], minutes: 20 },
];

/** Songs whose cards are made in one go. */
const AT_ONCE = 24;

/** The songs on the shelf, newest first; the three demo songs are put there on the first visit. */
export const ShelfStore = signalStore(
  { providedIn: 'root' },
  withState<ShelfState>({ songs: [], bin: [], loaded: false, tags: {}, own: [], trouble: null }),
  withMethods((store, library = inject(Library), workers = inject(Workers), toasts = inject(Toasts), tabs = inject(Tabs)) => {
    const players = inject(PlayersStore);
    /** Songs that came with hands keep them for whoever brought them in. */
    const welcome = async (ids: readonly string[], documents: readonly Document[]): Promise<void> => {
      await players.load();
      players.welcome(ids.map((song, i) => ({ song, hands: documents[i].hands })));
    };
    const begin = latestWins();

    /** Makes the cards that are not remembered, away from the page, the first on the shelf first. */
    const makeCards = async (isLatest: () => boolean): Promise<void> => {
      const missing = store.songs().filter((s) => s.card === null);
      for (let i = 0; i < missing.length && isLatest(); i += AT_ONCE) {
        const songs = await library.raw(missing.slice(i, i + AT_ONCE).map((s) => s.id));
        const made = await workers.checker.call(
          'cards',
          songs.map((s) => s.document),
        );
        // A song that keeps the worker from answering is shown as one that cannot be opened.
        const cards = songs.map((song, k) => ({ song, card: made.ok ? made.value[k] : UNREADABLE }));
        if (made.ok) await library.keepCards(cards).catch(() => undefined);
        const byId = new Map(cards.map(({ song, card }) => [song.id, { card, demo: song.demo ?? false }]));
        patchState(store, { songs: store.songs().map((s) => ({ ...s, ...byId.get(s.id) })) });
      }
    };

    const refresh = async (): Promise<void> => {
      const isLatest = begin();
      try {
        const [songs, bin, tags, own] = await Promise.all([
          library.shelf(),
          library.binned(),
          library.setting<Tags>('tags'),
          library.setting<readonly string[]>('order'),
        ]);
        if (!isLatest()) return;
        patchState(store, { songs, bin, tags: tags ?? {}, own: own ?? [], loaded: true, trouble: null });
        await makeCards(isLatest);
      } catch (error) {
        patchState(store, { loaded: true, trouble: STORAGE_SENTENCES[storageTrouble(error)] });
      }
    };

    /** Asks the storage for something; what it refuses is said. */
    const asked = async <T>(act: () => Promise<T>): Promise<T | null> => {
      try {
        return await act();
      } catch (error) {
        toasts.say(STORAGE_SENTENCES[storageTrouble(error)]);
        return null;
      }
    };

    /** Does something to the shelf and looks at it anew; what the storage refuses is said, and changes nothing. */
    const attempt = <T>(act: () => Promise<T>): Promise<T | null> =>
      asked(async () => {
        const done = await act();
        await refresh();
        return done;
      });

    /** Demo songs are older than anything the pianist brings in. */
    const putDemos = async (): Promise<void> => {
      const logs: DemoLog[] = [];
      for (const [i, { name, ago, minutes }] of DEMOS.entries()) {
        const answer = await fetch(`demo/${name}`);
        if (!answer.ok) continue;
        const opened = await workers.checker.call('open', name, new Uint8Array(await answer.arrayBuffer()), null, {});
        if (!opened.ok || !opened.value.ok) continue;
        const id = await library.add(opened.value.document, { demo: true, createdAt: i + 1 });
        if (ago.length > 0) logs.push({ song: id, ago, minutes, warmUp: warmUpTitle(opened.value.document.song.title), seed: i });
      }
      await library.keepSetting(DEMO_LOG, logs);
      await library.keepSetting('demos', true);
    };

    let ready: Promise<void> | null = null;
    return {
      /** Loads the shelf; safe to call from every screen. */
      async load(): Promise<void> {
        ready ??= (async () => {
          if (!(await library.setting<boolean>('demos'))) await putDemos();
        })();
        // Without the demo songs there is a shelf all the same; without storage its own reading says so.
        await ready.catch(() => (ready = null));
        await refresh();
      },
      refresh,
      /** Looks once more whether a song can be opened, for instance after an update. */
      async recheck(id: string): Promise<void> {
        patchState(store, { songs: store.songs().map((s) => (s.id === id ? { ...s, card: null } : s)) });
        await makeCards(begin()).catch(() => undefined);
      },
      /** Adds a song and answers its id. Rejects where the storage refuses. */
      async add(document: Document): Promise<string> {
        const id = await library.add(document);
        await welcome([id], [document]);
        void library.askToStay();
        await refresh();
        return id;
      },
      duplicate: (id: string): Promise<string | null> => attempt(() => library.duplicate(id)),
      async rename(id: string, title: string): Promise<void> {
        if (await attempt(() => library.rename(id, title))) tabs.tell(id, 'saved');
      },
      /** Puts a song into the bin; false where the storage refuses. */
      async remove(id: string): Promise<boolean> {
        const done = await attempt(() => library.remove(id).then(() => true));
        if (done) tabs.tell(id, 'removed');
        return done === true;
      },
      async putBack(id: string): Promise<void> {
        await attempt(() => library.putBack(id));
        tabs.tell(id, 'saved');
      },
      forget: async (id: string): Promise<void> => {
        await attempt(() => library.forget(id));
      },
      /** Puts the songs of a shelf file beside those that are there with their tags, all of them or none; false where the storage refuses. */
      addAll: async (documents: readonly Document[], tags: readonly (readonly string[])[]): Promise<boolean> => {
        const ids = await attempt(() => library.addAll(documents));
        await welcome(ids ?? [], documents);
        const tagged = (ids ?? []).flatMap((id, i) => (tags[i].length > 0 ? [[id, tags[i]] as const] : []));
        if (tagged.length > 0)
          await attempt(() => library.keepSetting('tags', { ...store.tags(), ...Object.fromEntries(tagged) }));
        return ids !== null;
      },
      async keepTags(id: string, tags: readonly string[]): Promise<void> {
        const { [id]: _, ...others } = store.tags();
        await attempt(() => library.keepSetting('tags', tags.length > 0 ? { ...others, [id]: tags } : others));
      },
      /** Keeps the songs as they were laid out by hand; they lie so at once. */
      async keepOrder(own: readonly string[]): Promise<void> {
        patchState(store, { own });
        await attempt(() => library.keepSetting('order', own));
      },
      /** Everything on the shelf, or the songs that are named, as it is saved and with its tags, the newest first. */
      saved: (only?: ReadonlySet<string>): Promise<unknown[] | null> =>
        asked(async () => {
          const wished = store.songs().filter((s) => only?.has(s.id) ?? true);
          const songs = new Map((await library.raw(wished.map((s) => s.id))).map((s) => [s.id, s.document]));
          return wished.flatMap(({ id }) => {
            const saved = songs.get(id);
            const tags = store.tags()[id];
            return saved === undefined || saved === null ? [] : [tags && typeof saved === 'object' ? { ...saved, tags } : saved];
          });
        }),
    };
  }),
  withHooks((store, tabs = inject(Tabs)) => ({
    onInit() {
      // What other tabs do to the shelf is seen here.
      effect(() => {
        if (tabs.news() > 0) untracked(() => store.loaded() && void store.refresh());
      });
    },
  })),
);

const UNREADABLE: SongCard = {
  title: $localize`Untitled`,
  facts: null,
  chords: [],
  contour: [],
  fault: { why: 'damaged', place: '' },
};

const warmUpTitle = (song: string): string => ENGLISH.fact({ code: 'drill.warm-up', song });
