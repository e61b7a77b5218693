import { computed, effect, inject, untracked } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import { grouped } from '@joined-hands/core/lists';
import { dayOf, type Day, type Pass, type PassDraft } from '@joined-hands/core/log';
import { Library } from '../storage/library';
import { Workers } from '../workers/workers';
import { writeDemoLogs } from './demo-log';
import { PlayersStore } from './players.store';

interface PracticeState {
  /** Everything that was practised, in order of time. */
  readonly passes: readonly Pass[];
  readonly loaded: boolean;
  /** The last of it, which is there before the whole log is read. */
  readonly recent: readonly Pass[];
  readonly today: Day;
  /** Why the last pass was not kept, or null. */
  readonly trouble: string | null;
}

/** Passes that are looked at before the others are read. */
const RECENT = 60;

const inOrder = (passes: readonly Pass[]): Pass[] => [...passes].sort((a, b) => a.at - b.at);

/** The practice log of whoever plays now: what was played, kept in the browser. */
export const PracticeStore = signalStore(
  { providedIn: 'root' },
  withState<PracticeState>(() => ({ passes: [], loaded: false, recent: [], today: dayOf(new Date()), trouble: null })),
  withComputed((store) => ({
    bySong: computed(() => grouped(store.passes(), (p) => p.song)),
  })),
  withMethods((store, library = inject(Library), workers = inject(Workers), players = inject(PlayersStore)) => {
    let demoLogs: Promise<void> | null = null;
    const { playing } = players;
    /** What the browser has not kept, or not yet, by its id, with whose it is; it is there until the page is closed. */
    const unsaved = new Map<string, { readonly pass: Pass; readonly player: string }>();
    const keep = async (passes: readonly Pass[], player: string = playing()): Promise<void> => {
      const ids = new Set(passes.map((p) => p.id));
      for (const pass of passes) unsaved.set(pass.id, { pass, player });
      patchState(store, { trouble: null });
      if (player === playing())
        patchState(store, { passes: inOrder([...store.passes().filter((p) => !ids.has(p.id)), ...passes]) });
      try {
        await library.keepPasses(passes, player);
        // One that was changed again in the meantime is not kept yet.
        for (const pass of passes) if (unsaved.get(pass.id)?.pass === pass) unsaved.delete(pass.id);
      } catch {
        patchState(store, {
          trouble: $localize`The browser does not let the log be saved here. Save it as a file on the Log page.`,
        });
      }
    };
    return {
      /** Reads the log, and looks what day it is. */
      async load(): Promise<void> {
        await players.load();
        const player = playing();
        const overtaken = () => player !== playing();
        if (!store.loaded()) {
          const recent = await library.lastPasses(RECENT, player).catch(() => []);
          if (!store.loaded() && !overtaken()) patchState(store, { recent });
        }
        // Without them there is only less to see.
        await (demoLogs ??= writeDemoLogs(library, workers).catch(() => undefined));
        try {
          const kept = (await library.passes(player)).filter((p) => !unsaved.has(p.id));
          if (overtaken()) return;
          const own = [...unsaved.values()].filter((u) => u.player === player).map((u) => u.pass);
          patchState(store, { passes: inOrder([...kept, ...own]), loaded: true, today: dayOf(new Date()) });
        } catch {
          const trouble = $localize`The browser does not let the log be read here. Open the page anew, or bring in a log that you saved as a file.`;
          patchState(store, { loaded: true, today: dayOf(new Date()), trouble });
        }
      },
      /** Adds passes, or changes those of the same id; of whoever plays now, or of another player. */
      keep,
      /** Writes down what was played just now. */
      write(played: PassDraft): Pass {
        const now = new Date();
        const pass = { ...played, id: crypto.randomUUID(), at: now.getTime(), day: dayOf(now), note: '' };
        void keep([pass]);
        return pass;
      },
      async remove(passes: readonly Pass[]): Promise<void> {
        const ids = new Set(passes.map((p) => p.id));
        for (const id of ids) unsaved.delete(id);
        patchState(store, { passes: store.passes().filter((p) => !ids.has(p.id)) });
        await library.removePasses([...ids]);
      },
      /** Begins with the log of another player. */
      async turnTo(): Promise<void> {
        patchState(store, { passes: [], recent: [], loaded: false });
        await this.load();
      },
      /** True where a pass would be lost if the page were left now. */
      atRisk: (): boolean => unsaved.size > 0,
    };
  }),
  withHooks((store, players = inject(PlayersStore)) => ({
    onInit() {
      let before = players.playing();
      effect(() => {
        const now = players.playing();
        if (now !== before) untracked(() => void store.turnTo());
        before = now;
      });
    },
  })),
);
