import { computed, effect, inject, untracked } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import type { Arrangement, Part } from '@joined-hands/core/arrange';
import { applyEdit, linkedEdit, type Edit, type EditFact, type LinkedEdit } from '@joined-hands/core/song';
import type { SongCard } from '@joined-hands/core/sheet';
import type { Document } from '@joined-hands/core/song';
import { Library, saveTrouble, STORAGE_SENTENCES, storageTrouble, withTitle } from '../storage/library';
import { Tabs } from '../storage/tabs';
import { Toasts } from '../toasts';
import { patched } from '../workers/arrangement-patch';
import type { EditedSong } from '../workers/arranger.worker';
import { TROUBLE, Workers } from '../workers/workers';
import { latestWins } from '../latest';
import { sameHands } from './player';
import { PlayersStore } from './players.store';

/** The order of the work: right hand, left hand, joined, with fills. */
export type HandView = 'right' | 'left' | 'joined' | 'fills';

/** What is selected on the strip: a chord, a melody note or room for a fill, by its place in ticks. */
export interface Selection {
  readonly kind: 'chord' | 'note' | 'room';
  readonly at: number;
}

/** A song that cannot be shown: what it is called, why, and what is saved of it. */
export interface Unopened {
  readonly id: string;
  readonly title: string;
  readonly why: string;
  /** The saved data as it is, to be exported; null where the storage does not give it out. */
  readonly saved: unknown;
}

/** An arrangement as the worker sent it, and under which number. */
interface Received {
  readonly id: number;
  readonly arrangement: Arrangement;
}

/** A step of the history: the document on its other side, and the change that lies between. */
interface HistoryEntry {
  readonly document: Document;
  readonly edit: EditFact;
}

interface DeskState {
  readonly id: string | null;
  readonly document: Document | null;
  readonly arrangement: Arrangement | null;
  readonly past: readonly HistoryEntry[];
  readonly future: readonly HistoryEntry[];
  readonly part: number;
  readonly selection: Selection | null;
  readonly view: HandView;
  readonly missing: boolean;
  /** The song that was to be opened and could not be, or null. */
  readonly unopened: Unopened | null;
  /** True where the open song was taken off the shelf elsewhere: nothing more is kept of it until it is put back. */
  readonly gone: boolean;
  /** Why the last change is not saved, or null. */
  readonly unsaved: string | null;
  /** The last edit, where repeats of its part could take it too. */
  readonly linked: LinkedEdit | null;
}

const EMPTY: DeskState = {
  id: null,
  document: null,
  arrangement: null,
  past: [],
  future: [],
  part: 1,
  selection: null,
  view: 'joined',
  missing: false,
  unopened: null,
  gone: false,
  unsaved: null,
  linked: null,
};

const MOST_STEPS = 200;

/** What is said of an open song that was taken off the shelf elsewhere. */
const GONE = $localize`This song was taken off the shelf in another tab. What you change here is not saved until you put it back.`;

/** Why saved data cannot be opened, with a way out. */
export function faultSentence({ why, place }: NonNullable<SongCard['fault']>): string {
  return why === 'newer'
    ? $localize`This song was saved by a newer version of Joined Hands (${place}). Reload the page to update, or save the song as a file.`
    : $localize`The saved song is damaged${place ? ` (at ${place})` : ''}. Save it as a file, or open an earlier copy.`;
}

/** What is looked at first in a part: its first chord, or its first note where the right hand is learned by itself. */
function firstOf(part: Part, view: HandView): Selection | null {
  const [note, chord] = [part.melody[0], part.chords[0]];
  if (note && (view === 'right' || !chord)) return { kind: 'note', at: note.at };
  return chord ? { kind: 'chord', at: chord.at } : null;
}

/** What stays selected in a view: a hand that is learned by itself is looked at, the note or chord at the same place. */
function inView(part: Part | null, selection: Selection | null, view: HandView): Selection | null {
  if (!part || !selection) return selection;
  const { kind, at } = selection;
  if (kind === 'room') return view === 'fills' ? selection : firstOf(part, view);
  if (view === 'right' && kind === 'chord') {
    const note = part.melody.find((n) => n.at + n.length > at) ?? part.melody.at(-1);
    return note ? { kind: 'note', at: note.at } : selection;
  }
  if (view === 'left' && kind === 'note') {
    const chord = part.chords.findLast((c) => c.at <= at) ?? part.chords[0];
    return chord ? { kind: 'chord', at: chord.at } : selection;
  }
  return selection;
}

/** The open document: its arrangement, what is selected, and the way back. Every change is saved as it is made, and seen once it is. */
export const DeskStore = signalStore(
  { providedIn: 'root' },
  withState<DeskState>(EMPTY),
  withComputed(({ arrangement, part, selection, past, future }) => {
    const currentPart = computed((): Part | null => {
      const parts = arrangement()?.parts ?? [];
      return parts[Math.min(part(), parts.length) - 1] ?? null;
    });
    return {
      currentPart,
      selectedChord: computed(() => {
        const chosen = selection();
        return chosen?.kind === 'chord' ? (currentPart()?.chords.find((c) => c.at === chosen.at) ?? null) : null;
      }),
      selectedNote: computed(() => {
        const chosen = selection();
        return chosen?.kind === 'note' ? (currentPart()?.melody.find((n) => n.at === chosen.at) ?? null) : null;
      }),
      selectedRoom: computed(() => {
        const chosen = selection();
        return chosen?.kind === 'room' ? (currentPart()?.rooms.find((r) => r.at === chosen.at) ?? null) : null;
      }),
      /** What a step back would undo, and a step forth would do again. */
      undoable: computed(() => past().at(-1)?.edit ?? null),
      redoable: computed(() => future().at(-1)?.edit ?? null),
    };
  }),
  withMethods((store, library = inject(Library), workers = inject(Workers), tabs = inject(Tabs), toasts = inject(Toasts)) => {
    const players = inject(PlayersStore);
    /** A song as whoever plays now plays it: its choices are shared, the hands are the player's. */
    const played = (document: Document): Document => {
      const hands = players.handsFor(store.id());
      return sameHands(hands, document.hands) ? document : { ...document, hands };
    };
    const keepHands = ({ hands }: Document): void => {
      const id = store.id();
      if (id) players.keepHands(id, hands);
    };
    /** Counts what is shown; what finishes out of turn is dropped. */
    const begin = latestWins();
    let saving: Promise<void> = Promise.resolve();
    /** How many changes are being saved. */
    let saves = 0;

    const display = (document: Document, arrangement: Arrangement): void =>
      patchState(store, { document, arrangement, part: Math.min(store.part(), arrangement.parts.length) });
    /** The last that was shown whole: what cannot be arranged goes back to it. */
    let good: { readonly document: Document; readonly arrangement: Arrangement } | null = null;
    const displayWhole = (document: Document, arrangement: Arrangement): void => {
      good = { document, arrangement };
      display(document, arrangement);
    };

    /**
     * Shows a document once it is kept: arranged off the main thread meanwhile, of a long song the parts near the one at work first; an
     * answer that was overtaken is dropped. Answers why it could not be arranged, or null.
     */
    const arrangeAndDisplay = async (document: Document, kept?: Promise<void>): Promise<string | null> => {
      const isLatest = begin();
      const on = base;
      const [edited] = await Promise.all([workers.arranger.call('edit', document, on?.id ?? null, store.part()), kept]);
      if (!edited.ok) return isLatest() ? TROUBLE[edited.trouble] : null;
      const first = built(on, edited.value);
      if (!isLatest()) return null;
      if (edited.value.settled) {
        displayWhole(document, first.arrangement);
        return null;
      }
      display(document, first.arrangement);
      const rest = await workers.arranger.call('settle', first.id);
      if (!rest.ok) return isLatest() ? TROUBLE[rest.trouble] : null;
      const whole = rest.value && built(first, rest.value);
      if (!isLatest()) return null;
      if (whole) displayWhole(document, whole.arrangement);
      // The worker has been started anew since, and knows of nothing: it is asked for all of it.
      else return arrangeAndDisplay(document);
      return null;
    };

    /** The arrangement that the worker sent last, with its number there: of the next one only what changed is sent. */
    let base: Received | null = null;
    const built = (on: Received | null, { id, change }: EditedSong): Received => {
      const arrangement = 'whole' in change ? change.whole : patched((on as Received).arrangement, change.patch);
      return (base = { id, arrangement });
    };

    /** The title under which the open song was last saved or read here. */
    let knownTitle = '';

    /** Saves the open song, after what is being saved already; where that fails it is said. */
    const enqueueSave = (document: Document, edit: Edit | null): Promise<void> => {
      const id = store.id();
      if (!id) return saving;
      const save = async (): Promise<void> => {
        try {
          const title = await library.save(id, document, knownTitle);
          if (title !== null) {
            // A title that was given here is known from now on; one that another tab gave is taken over when it is told.
            if (title === document.song.title && store.id() === id) knownTitle = title;
            tabs.tell(id, 'saved', edit);
            patchState(store, { unsaved: null, gone: false });
          } else if (store.id() === id) patchState(store, { gone: true, unsaved: GONE });
        } catch (error) {
          patchState(store, { unsaved: saveTrouble(error) });
        }
        saves--;
      };
      saves++;
      return (saving = saving.then(save));
    };

    /** The document to change, unless another tab works on it: then that is said, with a way to work on it here. */
    const editableDocument = (): Document | null => {
      if (!newest || !tabs.isReadOnly()) return newest;
      const here = { label: $localize`Edit it here`, run: () => tabs.takeOver() };
      toasts.say($localize`Nothing was changed: this song is being edited in another tab.`, here);
      return null;
    };

    /** The document as the next edit finds it, which may be ahead of the one on screen. */
    let newest: Document | null = null;
    const change = async (
      document: Document,
      past: readonly HistoryEntry[],
      future: readonly HistoryEntry[],
      edit: Edit | null = null,
    ): Promise<void> => {
      const before = { document: newest, past: store.past(), future: store.future() };
      newest = document;
      keepHands(document);
      patchState(store, { past: past.slice(-MOST_STEPS), future });
      const why = await arrangeAndDisplay(document, enqueueSave(document, edit));
      // A change that cannot be arranged is taken back: what is seen, what is kept and what is worked on are one song.
      if (why === null || newest !== document || !good) return;
      const { document: last, arrangement } = good;
      newest = last;
      keepHands(last);
      // Where several changes were under way, all of them go.
      const step = store.past().findIndex((s) => s.document === last);
      const back = before.document === last ? before : { past: store.past().slice(0, Math.max(0, step)), future: [] };
      patchState(store, { past: back.past, future: back.future });
      display(last, arrangement);
      await enqueueSave(last, null);
      toasts.say($localize`This change could not be arranged: ${why}. The song is as it was before.`);
    };

    /** Another tab gave the song another name: it has it here too, and at every step of its history. */
    const takeTitle = (mine: Document, title: string): Document => {
      knownTitle = title;
      const renamed = (steps: readonly HistoryEntry[]) => steps.map((s) => ({ ...s, document: withTitle(s.document, title) }));
      patchState(store, { past: renamed(store.past()), future: renamed(store.future()) });
      return withTitle(mine, title);
    };

    /** Another tab saved the song: what it made of it is shown here too, and can be taken back. Or it took it off the shelf. */
    const follow = async (id: string, edit: Edit | null): Promise<void> => {
      const was = newest;
      // What is changed here in the meantime is newer than what is read: it is looked at once more when that is saved.
      const overtaken = () => saves > 0 || newest !== was;
      const again = (): Promise<void> => saving.then(() => follow(id, edit));
      if (overtaken()) return again();
      const song = await library.get(id);
      if (store.id() !== id || !newest) return;
      if (overtaken()) return again();
      if (!song) {
        patchState(store, { gone: true, unsaved: GONE });
        return;
      }
      await players.refresh();
      const checked = await workers.checker.call('check', [song.document]);
      const saved = checked.ok ? checked.value[0] : null;
      if (store.id() !== id || !newest || !saved) return;
      const theirs = played(saved);
      if (overtaken()) return again();
      if (store.gone()) patchState(store, { gone: false, unsaved: null });
      const mine = theirs.song.title === newest.song.title ? newest : takeTitle(newest, theirs.song.title);
      const same = JSON.stringify(theirs) === JSON.stringify(mine);
      if (same && mine === newest) return;
      const entry = { document: mine, edit: { code: 'edit.elsewhere', edit } as const };
      if (!same) patchState(store, { past: [...store.past(), entry], future: [] });
      newest = same ? mine : theirs;
      await arrangeAndDisplay(newest);
    };
    // What cannot be read just now is followed with the next change.
    tabs.changed = (id, _news, edit) => void saving.then(() => follow(id, edit)).catch(() => undefined);

    /** From here on nothing is worked on, until a song has been read: what comes in the meantime is not meant for the one before. */
    const forget = (): void => {
      newest = null;
      good = null;
      knownTitle = '';
    };

    /** Reads a song and shows it; says why where it cannot be shown. */
    const read = async (id: string): Promise<void> => {
      const isLatest = begin();
      const failed = (title: string, why: string, saved: unknown): void => {
        if (isLatest()) patchState(store, { unopened: { id, title, why, saved } });
      };
      await Promise.all([saving, players.load()]);
      let song;
      try {
        song = await library.get(id);
      } catch (error) {
        failed($localize`This song`, STORAGE_SENTENCES[storageTrouble(error)], null);
        return;
      }
      if (!isLatest()) return;
      if (!song) {
        patchState(store, { missing: true });
        return;
      }
      const opened = await workers.arranger.call('open', song.document, players.handsFor(id));
      if (!isLatest()) return;
      if (!opened.ok) {
        const title = (song.document as { song?: { title?: string } } | null)?.song?.title ?? $localize`This song`;
        failed(title, $localize`It could not be arranged: ${TROUBLE[opened.trouble]}.`, song.document);
        return;
      }
      if (!opened.value.ok) {
        failed(opened.value.title, faultSentence(opened.value.fault), song.document);
        return;
      }
      const { document, arrangement } = opened.value;
      base = { id: opened.value.id, arrangement };
      patchState(store, { id });
      tabs.open(id);
      newest = document;
      knownTitle = document.song.title;
      displayWhole(document, arrangement);
      const part = store.currentPart();
      if (part) patchState(store, { selection: firstOf(part, store.view()) });
    };

    return {
      async open(id: string): Promise<void> {
        if (store.id() === id && store.document()) return;
        forget();
        patchState(store, { ...EMPTY, view: store.view() });
        await read(id);
      },
      /** Shows the open song as whoever plays now plays it; nothing of it is saved by that. */
      async turnTo(): Promise<void> {
        if (!newest || played(newest) === newest) return;
        const asPlayed = (steps: readonly HistoryEntry[]) => steps.map((s) => ({ ...s, document: played(s.document) }));
        newest = played(newest);
        patchState(store, { past: asPlayed(store.past()), future: asPlayed(store.future()) });
        const why = await arrangeAndDisplay(newest);
        if (why !== null) toasts.say($localize`The song could not be arranged for this player: ${why}.`);
      },
      /** Puts the open song back on the shelf from which it was taken elsewhere. */
      async putBack(): Promise<void> {
        const id = store.id();
        if (!id || !newest) return;
        try {
          await library.restore(id, newest);
          tabs.tell(id, 'saved', null);
          patchState(store, { gone: false, unsaved: null });
        } catch (error) {
          patchState(store, { unsaved: saveTrouble(error) });
        }
      },
      /** Makes a change that can be undone. One that is not possible, or none (null), changes nothing. */
      async edit(edit: Edit | null): Promise<void> {
        if (!edit) return;
        const before = editableDocument();
        const after = before && applyEdit(before, edit);
        if (!after || after === before) return;
        const [parts, part] = [store.arrangement()?.parts ?? [], store.part()];
        patchState(store, { linked: null });
        await change(after, [...store.past(), { document: before, edit }], [], edit);
        // What repeats could take of it is looked for once it is on screen.
        if (newest === after) patchState(store, { linked: linkedEdit(edit, parts, part) });
      },
      /** Does what was done last in a part in its repeats too. */
      async applyToRepeats(): Promise<void> {
        const linked = store.linked();
        const before = editableDocument();
        if (!linked || !before) return;
        patchState(store, { linked: null });
        const { edit } = linked;
        await change(applyEdit(before, edit), [...store.past(), { document: before, edit }], [], edit);
      },
      dismissRepeatOffer(): void {
        patchState(store, { linked: null });
      },
      async undo(): Promise<void> {
        patchState(store, { linked: null });
        const step = store.past().at(-1);
        const before = editableDocument();
        if (!step || !before) return;
        await change(step.document, store.past().slice(0, -1), [...store.future(), { document: before, edit: step.edit }]);
      },
      async redo(): Promise<void> {
        patchState(store, { linked: null });
        const step = store.future().at(-1);
        const before = editableDocument();
        if (!step || !before) return;
        await change(step.document, [...store.past(), { document: before, edit: step.edit }], store.future().slice(0, -1));
      },
      choosePart(number: number): void {
        const part = store.arrangement()?.parts[number - 1];
        if (!part) return;
        patchState(store, { part: number, linked: null, selection: firstOf(part, store.view()) });
      },
      select(selection: Selection | null): void {
        patchState(store, { selection });
      },
      setView(view: HandView): void {
        patchState(store, { view, selection: inView(store.currentPart(), store.selection(), view) });
      },
      /** Forgets the open song, for one that was taken off the shelf or renamed there. */
      close(): void {
        forget();
        tabs.open(null);
        begin();
        patchState(store, EMPTY);
      },
      /** Resolves when everything so far is saved. */
      saved: (): Promise<void> => saving,
      /** True where a change would be lost if the page were left now. */
      atRisk: (): boolean => saves > 0 || store.unsaved() !== null,
    };
  }),
  withHooks((store, players = inject(PlayersStore)) => ({
    onInit() {
      effect(() => {
        players.handsFor(store.id());
        untracked(() => void store.turnTo());
      });
    },
  })),
);
