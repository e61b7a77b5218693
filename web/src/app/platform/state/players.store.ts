import { computed, effect, inject, untracked } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import { handsOf, type Hands } from '@joined-hands/core/song';
import { FIRST_PLAYER } from '../storage/first-player';
import { Library } from '../storage/library';
import { handsIn, inOrder, LONGEST_NAME, readPlayers, sameHands, wishesIn, type PlayerRecord } from './player';
import { SettingsStore } from './settings.store';

interface PlayersState {
  /** Everyone who was ever added, the first one first. */
  readonly all: readonly PlayerRecord[];
  /** Who plays now. */
  readonly now: string;
  readonly loaded: boolean;
  /** Why the last change was not kept, or null. */
  readonly trouble: string | null;
}

const KEY = 'joined-hands-player';

const FIRST: PlayerRecord = {
  id: FIRST_PLAYER,
  name: '',
  createdAt: 0,
  hands: handsOf(),
  songs: {},
  wishes: null,
  removedAt: null,
};

/** What can be changed of a player. */
export type PlayerChange = Partial<Pick<PlayerRecord, 'name' | 'hands' | 'songs' | 'wishes' | 'removedAt'>>;

/** Those who play on this device: hands, keyboard and wishes of each, and who plays now. There is always one. */
export const PlayersStore = signalStore(
  { providedIn: 'root' },
  withState<PlayersState>(() => ({ all: [FIRST], now: localStorage.getItem(KEY) ?? FIRST_PLAYER, loaded: false, trouble: null })),
  withComputed(({ all, now }) => {
    const here = computed(() => all().filter((p) => p.removedAt === null));
    const current = computed(() => here().find((p) => p.id === now()) ?? here()[0]);
    return {
      /** Those on the list, the first one first. */
      here,
      removed: computed(() => all().filter((p) => p.removedAt !== null)),
      current,
      /** The id of whoever plays now: the same, whatever is changed of the player. */
      playing: computed(() => current().id),
      several: computed(() => here().length > 1),
    };
  }),
  withMethods((store, library = inject(Library), settings = inject(SettingsStore)) => {
    let loading: Promise<void> | null = null;
    const keep = (player: PlayerRecord): void => {
      const others = store.all().filter((p) => p.id !== player.id);
      patchState(store, { all: inOrder([...others, player]), trouble: null });
      library.keepPlayer(player).catch(() =>
        patchState(store, {
          trouble: $localize`The browser does not let players be saved here. They are gone when this page is closed.`,
        }),
      );
    };
    const change = (id: string, changed: PlayerChange): void => {
      const player = store.all().find((p) => p.id === id);
      if (player) keep({ ...player, ...changed });
    };
    const playNow = (id: string): void => {
      const player = store.here().find((p) => p.id === id);
      if (!player) return;
      const leaving = store.current();
      if (leaving.id !== id && leaving.wishes === null) change(leaving.id, { wishes: wishesIn(settings.all()) });
      patchState(store, { now: id });
      localStorage.setItem(KEY, id);
      if (player.wishes) settings.set(player.wishes);
    };
    const read = async (): Promise<void> => {
      const found = await library
        .players()
        .then(readPlayers)
        .catch((): PlayerRecord[] => []);
      const here = found.some((p) => p.removedAt === null);
      patchState(store, { all: here ? found : store.all(), loaded: true });
      const { wishes } = store.current();
      if (wishes) settings.set(wishes);
    };
    return {
      /** Reads who plays here; safe to call from everywhere. Without storage there is the first player alone. */
      load: (): Promise<void> => (loading ??= read()),
      /** Looks once more who plays here, after another tab has changed something. */
      refresh: (): Promise<void> => (loading = read()),
      /** The hands of whoever plays now in a song; null stands for any. */
      handsFor: (song: string | null): Hands => handsIn(store.current(), song),
      /** Keeps the hands with which a player plays a song from now on: the usual ones, or others in this song alone. */
      keepHands(song: string, hands: Hands, player: PlayerRecord = store.current()): void {
        if (sameHands(hands, handsIn(player, song))) return;
        const { [song]: _, ...others } = player.songs;
        change(player.id, { songs: sameHands(hands, player.hands) ? others : { ...others, [song]: hands } });
      },
      /** Songs were brought in with hands that somebody set: these stay with them where no others were ever set here. */
      welcome(brought: readonly { readonly song: string; readonly hands: Hands }[]): void {
        const { id, hands, songs } = store.current();
        const set = brought.filter((b) => !sameHands(b.hands, handsOf()));
        if (set.length === 0 || !sameHands(hands, handsOf())) return;
        change(id, { songs: { ...songs, ...Object.fromEntries(set.map((b) => [b.song, b.hands])) } });
      },
      /** Has the hands of a song for every song, or the usual ones in this song too. */
      settleHands(song: string, which: 'everywhere' | 'usual'): void {
        const { id, songs } = store.current();
        const { [song]: own, ...others } = songs;
        if (own) change(id, which === 'everywhere' ? { hands: own, songs: others } : { songs: others });
      },
      /** Adds a player, named already, and answers the id. */
      add(name: string): string {
        const id = crypto.randomUUID();
        const now = Date.now();
        // The first one is kept from now on, too: until there were others, nothing needed to be.
        store.here().forEach(keep);
        keep({ ...FIRST, id, name: name.trim().slice(0, LONGEST_NAME), createdAt: now, wishes: wishesIn(settings.all()) });
        return id;
      },
      change,
      playNow,
      /** Takes a player off the list; the log stays until the player is forgotten. The last one stays. */
      remove(id: string): void {
        if (!store.several()) return;
        change(id, { removedAt: Date.now() });
        if (store.now() === id) playNow(store.here()[0].id);
      },
      putBack: (id: string): void => change(id, { removedAt: null }),
      /** Deletes a player who was taken off the list permanently, with the log. */
      async forget(id: string): Promise<void> {
        patchState(store, { all: store.all().filter((p) => p.id !== id) });
        await library.forgetPlayer(id).catch(() => undefined);
      },
    };
  }),
  withHooks((store, settings = inject(SettingsStore)) => ({
    onInit() {
      // What a player wishes is kept as it is chosen, wherever that is.
      effect(() => {
        const wishes = wishesIn(settings.all());
        untracked(() => {
          const { id, wishes: kept } = store.current();
          if (!store.loaded() || !kept || JSON.stringify(kept) === JSON.stringify(wishes)) return;
          store.change(id, { wishes });
        });
      });
    },
  })),
);

/** A player's name; the first one may have none yet. */
export const nameOfPlayer = ({ name }: PlayerRecord): string => name || $localize`Me`;
