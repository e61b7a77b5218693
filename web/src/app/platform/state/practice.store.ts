import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import { grouped } from '@joined-hands/core/lists';
import { dayOf, type Day, type Pass, type PassDraft } from '@joined-hands/core/log';
import { Library } from '../storage/library';
import { Workers } from '../workers/workers';
import { writeDemoLogs } from './demo-log';

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

/** The practice log: what was played, kept in the browser. */
export const PracticeStore = signalStore(
  { providedIn: 'root' },
  withState<PracticeState>(() => ({ passes: [], loaded: false, recent: [], today: dayOf(new Date()), trouble: null })),
  withComputed((store) => ({
    bySong: computed(() => grouped(store.passes(), (p) => p.song)),
  })),
  withMethods((store, library = inject(Library), workers = inject(Workers)) => {
    let demoLogs: Promise<void> | null = null;
    /** What the browser has not kept, or not yet, by its id; it is there until the page is closed. */
    const unsaved = new Map<string, Pass>();
    const keep = async (passes: readonly Pass[]): Promise<void> => {
      const ids = new Set(passes.map((p) => p.id));
      for (const pass of passes) unsaved.set(pass.id, pass);
      patchState(store, { passes: inOrder([...store.passes().filter((p) => !ids.has(p.id)), ...passes]), trouble: null });
      try {
        await library.keepPasses(passes);
        // One that was changed again in the meantime is not kept yet.
        for (const pass of passes) if (unsaved.get(pass.id) === pass) unsaved.delete(pass.id);
      } catch {
        patchState(store, {
          trouble: $localize`The browser does not let the log be saved here. Save it as a file on the Log page.`,
        });
      }
    };
    return {
      /** Reads the log, and looks what day it is. */
      async load(): Promise<void> {
        if (!store.loaded()) {
          const recent = await library.lastPasses(RECENT).catch(() => []);
          if (!store.loaded()) patchState(store, { recent });
        }
        // Without them there is only less to see.
        await (demoLogs ??= writeDemoLogs(library, workers).catch(() => undefined));
        try {
          const kept = (await library.passes()).filter((p) => !unsaved.has(p.id));
          patchState(store, { passes: inOrder([...kept, ...unsaved.values()]), loaded: true, today: dayOf(new Date()) });
        } catch {
          const trouble = $localize`The browser does not let the log be read here. Open the page anew, or bring in a log that you saved as a file.`;
          patchState(store, { loaded: true, today: dayOf(new Date()), trouble });
        }
      },
      /** Adds passes, or changes those of the same id. */
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
      /** True where a pass would be lost if the page were left now. */
      atRisk: (): boolean => unsaved.size > 0,
    };
  }),
);
