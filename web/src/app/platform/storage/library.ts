import { Injectable } from '@angular/core';
import { isSavedPass, type Pass } from '@joined-hands/core/log';
import type { SongCard } from '@joined-hands/core/sheet';
import { oneLine, type Document } from '@joined-hands/core/song';
import { Dexie, type Collection, type Table } from 'dexie/dist/modern/dexie.mjs';
import { FIRST_PLAYER, giveToFirstPlayer } from './first-player';

/** A song as it lies in the browser. The document is stored whole and checked as it is read; `version` inside it says how to bring it forward. */
export interface StoredSong {
  readonly id: string;
  readonly createdAt: number;
  readonly updatedAt: number;
  readonly demo: boolean;
  readonly document: unknown;
}

/** A song that was taken off the shelf. */
interface BinnedSong extends StoredSong {
  readonly removedAt: number;
}

/** A song of the bin as it is listed. */
export interface BinEntry {
  readonly id: string;
  readonly title: string;
  readonly removedAt: number;
}

/** What a song shows of itself, remembered with the time of the document that it was made from. */
interface StoredCard extends SongCard {
  readonly id: string;
  readonly at: number;
  readonly demo: boolean;
}

/** A place on the shelf: its song's card, or null until that is made. */
export interface ShelfEntry {
  readonly id: string;
  readonly createdAt: number;
  readonly updatedAt: number;
  readonly demo: boolean;
  readonly card: SongCard | null;
}

/** How a song stood at some time, kept without being asked for. */
export interface Snapshot {
  readonly key?: number;
  readonly song: string;
  readonly at: number;
  readonly document: unknown;
}

/** A pass of practice, and whose it is. */
interface StoredPass extends Pass {
  readonly player: string;
}

/** Milliseconds between two snapshots of a song that is worked on, and most snapshots that are kept of one. */
const SNAPSHOT_EVERY = 10 * 60_000;
const MOST_SNAPSHOTS = 40;

class Database extends Dexie {
  readonly songs!: Table<StoredSong, string>;
  readonly cards!: Table<StoredCard, string>;
  readonly bin!: Table<BinnedSong, string>;
  readonly snapshots!: Table<Snapshot, number>;
  readonly passes!: Table<StoredPass, string>;
  readonly players!: Table<{ readonly id: string }, string>;
  readonly settings!: Table<{ key: string; value: unknown }, string>;

  constructor() {
    super('joined-hands');
    this.version(1).stores({ songs: 'id, createdAt', settings: 'key' });
    // Songs and settings stay as they are; documents are brought forward as they are read.
    this.version(2).stores({ bin: 'id, removedAt', snapshots: '++key, [song+at]' });
    this.version(3).stores({ passes: 'id, song, at' });
    // The shelf reads its order and its cards without reading a song.
    this.version(4).stores({ songs: 'id, createdAt, [createdAt+updatedAt+id]', cards: 'id' });
    // Saving an edit asks whether a song is there and what it is called without reading the song.
    this.version(5).stores({
      songs: 'id, createdAt, [createdAt+updatedAt+id], [id+document.song.title+createdAt+updatedAt]',
    });
    // Documents are saved as text with the title beside them; those that lie there as objects are read as before.
    this.version(6).stores({ songs: 'id, createdAt, [createdAt+updatedAt+id], [id+title+createdAt+updatedAt]' });
    this.version(7).stores({ passes: 'id, song, [player+at]', players: 'id' }).upgrade(giveToFirstPlayer);
    this.songs.hook('reading', withDocument);
  }
}

/**
 * A song as a record of the browser. Its document is text, which the browser takes as it is; an object of thousands of notes it
 * would copy note by note while the page waits.
 */
function recordOf<T extends StoredSong>(song: T): T & { readonly title?: string } {
  const { title } = (song.document as Document | null)?.song ?? {};
  return { ...song, ...(typeof title === 'string' ? { title } : {}), document: JSON.stringify(song.document) };
}

/** A song out of its record; a text that cannot be read stays as it is, so that the check says that the song is damaged. */
function withDocument<T extends StoredSong | undefined>(record: T): T {
  if (typeof record?.document !== 'string') return record;
  try {
    return { ...record, document: JSON.parse(record.document) as unknown };
  } catch {
    return record;
  }
}

/** Songs and settings in the browser's own storage. Nothing leaves it. */
@Injectable({ providedIn: 'root' })
export class Library {
  private readonly db = new Database();
  /** Whether a song came with the product, by its id: known once it was read, and it never changes. */
  private readonly demos = new Map<string, boolean>();

  /** Every song, newest first, with the card that is remembered of it where that is still true. No song is read. */
  async shelf(): Promise<ShelfEntry[]> {
    const [keys, ids, cards] = await this.db.transaction('r', this.db.songs, this.db.cards, () =>
      Promise.all([
        this.db.songs.orderBy('[createdAt+updatedAt+id]').reverse().keys(),
        this.db.songs.toCollection().primaryKeys(),
        this.db.cards.toArray(),
      ]),
    );
    const remembered = new Map(cards.map((c) => [c.id, c]));
    const entry = (id: string, createdAt: number, updatedAt: number): ShelfEntry => {
      const card = remembered.get(id);
      return { id, createdAt, updatedAt, demo: card?.demo ?? false, card: card?.at === updatedAt ? card : null };
    };
    const listed = (keys as unknown as [number, number, string][]).map(([created, updated, id]) => entry(id, created, updated));
    // A record without its times is in no order, but it is there.
    const found = new Set(listed.map((e) => e.id));
    return [...listed, ...ids.filter((id) => !found.has(id)).map((id) => entry(id, 0, 0))];
  }

  /** Songs as they are stored, unchecked, in the order of their ids; those that are gone are left out. */
  async raw(ids: readonly string[]): Promise<StoredSong[]> {
    const songs = await this.db.songs.bulkGet([...ids]);
    return songs.filter((s) => s !== undefined);
  }

  /** Remembers cards of songs as they were read. */
  async keepCards(cards: readonly { readonly song: StoredSong; readonly card: SongCard }[]): Promise<void> {
    await this.db.cards.bulkPut(
      cards.map(({ song, card }) => ({ ...card, id: song.id, at: song.updatedAt ?? 0, demo: song.demo ?? false })),
    );
  }

  /** A song as it is stored, unchecked; null where it is not on the shelf. */
  async get(id: string): Promise<StoredSong | null> {
    const song = await this.db.songs.get(id);
    if (song) this.demos.set(id, song.demo ?? false);
    return song ?? null;
  }

  /** Adds a document and answers its id. */
  async add(document: Document, options: { demo?: boolean; createdAt?: number } = {}): Promise<string> {
    const [id] = await this.addAll([document], options);
    return id;
  }

  /** Adds documents and answers their ids: all of them, or none. */
  async addAll(
    documents: readonly Document[],
    { demo = false, createdAt }: { demo?: boolean; createdAt?: number } = {},
  ): Promise<string[]> {
    const now = createdAt ?? Date.now();
    const songs = documents.map((document) => ({ id: crypto.randomUUID(), createdAt: now, updatedAt: now, demo, document }));
    await this.db.transaction('rw', this.db.songs, () => this.db.songs.bulkAdd(songs.map(recordOf)));
    return songs.map((s) => s.id);
  }

  /**
   * Saves a song, and from time to time how it stood before, both or neither. A title that another tab gave it since it was known as
   * `knownTitle` stays. Answers the title that it has now; null where the song is no longer on the shelf: then nothing is written.
   */
  save(id: string, document: Document, knownTitle?: string): Promise<string | null> {
    return this.db.transaction('rw', this.db.songs, this.db.snapshots, async () => {
      const stored = await this.entry(id);
      if (!stored) return null;
      const { title, ...entry } = stored;
      const renamed = title !== null && knownTitle !== undefined && title !== knownTitle;
      await this.takeSnapshot(id);
      const kept = renamed ? withTitle(document, title) : document;
      await this.put(entry, kept);
      return kept.song.title;
    });
  }

  /** Gives a song another name, whatever it holds by now. False where it is no longer on the shelf, or the name is none. */
  rename(id: string, title: string): Promise<boolean> {
    const line = oneLine(title);
    return this.change(id, (document) => (line ? withTitle(document, line) : null));
  }

  /** Reads a song, changes it and writes it back before anyone else can; null leaves it as it is. */
  private change(id: string, make: (document: Document) => Document | null): Promise<boolean> {
    return this.db.transaction('rw', this.db.songs, this.db.snapshots, async () => {
      const before = await this.db.songs.get(id);
      const document = before && make(before.document as Document);
      if (!before || !document) return false;
      await this.takeSnapshot(id);
      await this.put(before, document);
      return true;
    });
  }

  private async put(entry: Omit<StoredSong, 'document'>, document: Document): Promise<void> {
    await this.db.songs.put(recordOf({ ...entry, document, updatedAt: later(entry.updatedAt) }));
  }

  /** What is stored beside a song's document, and its title (null where it has none that can be read): without reading the document. */
  private async entry(id: string): Promise<(Omit<StoredSong, 'document'> & { readonly title: string | null }) | null> {
    const demo = this.demos.get(id);
    const keys = await this.db.songs
      .where('[id+title+createdAt+updatedAt]')
      .between([id, Dexie.minKey], [id, Dexie.maxKey])
      .keys();
    const [key] = keys as unknown as [string, string, number, number][];
    if (key && demo !== undefined) return { id, title: key[1], createdAt: key[2], updatedAt: key[3], demo };
    const song = await this.get(id);
    return song && { ...song, title: (song.document as Document | null)?.song?.title ?? null };
  }

  /** Keeps how a song stands now, where the last time it was kept is long enough ago. */
  private async takeSnapshot(id: string): Promise<void> {
    const times = (await this.snapshotsOf(id).keys()) as unknown as [string, number][];
    if (Date.now() - (times.at(-1)?.[1] ?? -Infinity) < SNAPSHOT_EVERY) return;
    const song = await this.db.songs.get(id);
    if (!song) return;
    await this.db.snapshots.add({ song: id, at: Date.now(), document: song.document });
    const keys = await this.snapshotsOf(id).primaryKeys();
    await this.db.snapshots.bulkDelete(keys.slice(0, Math.max(0, keys.length - MOST_SNAPSHOTS)));
  }

  /** Puts a song on the shelf again that is not there any more, as it stands now. What lies of it in the bin goes. */
  async restore(id: string, document: Document): Promise<void> {
    await this.db.transaction('rw', this.db.songs, this.db.bin, async () => {
      const known = (await this.db.songs.get(id)) ?? (await this.db.bin.get(id));
      const now = Date.now();
      const createdAt = known?.createdAt ?? now;
      await this.db.songs.put(recordOf({ id, createdAt, updatedAt: now, demo: known?.demo ?? false, document }));
      await this.db.bin.delete(id);
    });
  }

  /** Puts a copy of a song beside it; null where the song is no longer there. */
  async duplicate(id: string): Promise<string | null> {
    return this.db.transaction('rw', this.db.songs, async () => {
      const song = await this.db.songs.get(id);
      if (!song) return null;
      const document = song.document as Document;
      const now = Date.now();
      const copy = withTitle(document, oneLine(`${oneLine(document.song.title, 190)} (copy)`));
      return this.db.songs.add(
        recordOf({ id: crypto.randomUUID(), createdAt: now, updatedAt: now, demo: false, document: copy }),
      );
    });
  }

  /** How a song stood at earlier times, unchecked, the newest first. */
  async snapshots(id: string): Promise<Snapshot[]> {
    return this.snapshotsOf(id).reverse().toArray();
  }

  /** The snapshots of a song from the first on, to be asked once: asking for the last of them leaves only that one. */
  private snapshotsOf(id: string): Collection<Snapshot, number> {
    return this.db.snapshots.where('[song+at]').between([id, 0], [id, Infinity]);
  }

  /** Puts a song into the bin as it stands now. */
  async remove(id: string): Promise<void> {
    await this.db.transaction('rw', this.db.songs, this.db.bin, this.db.cards, async () => {
      const song = await this.db.songs.get(id);
      if (!song) return;
      await this.db.bin.put({ ...song, removedAt: Date.now() });
      await this.db.songs.delete(id);
      await this.db.cards.delete(id);
    });
  }

  /** What lies in the bin, the last first. */
  async binned(): Promise<BinEntry[]> {
    const songs = await this.db.bin.orderBy('removedAt').reverse().toArray();
    return songs.map(({ id, document, removedAt }) => ({ id, title: titleOf(document), removedAt }));
  }

  /** Puts a song from the bin back on the shelf. */
  async putBack(id: string): Promise<void> {
    await this.db.transaction('rw', this.db.songs, this.db.bin, async () => {
      const song = await this.db.bin.get(id);
      if (!song) return;
      const { removedAt: _removedAt, ...stored } = song;
      await this.db.songs.put(recordOf(stored));
      await this.db.bin.delete(id);
    });
  }

  /** Deletes a song of the bin permanently, with its snapshots. */
  async forget(id: string): Promise<void> {
    await this.db.transaction('rw', this.db.bin, this.db.snapshots, async () => {
      await this.db.bin.delete(id);
      await this.snapshotsOf(id).delete();
    });
  }

  /** Every pass of a player in order of time; what cannot be read any more is left out. */
  async passes(player: string = FIRST_PLAYER): Promise<Pass[]> {
    return readable(await this.passesOf(player).toArray());
  }

  /** The last passes of a player, in order of time, without reading the others. */
  async lastPasses(most: number, player: string = FIRST_PLAYER): Promise<Pass[]> {
    const last = await this.passesOf(player).reverse().limit(most).toArray();
    return readable(last.reverse());
  }

  private passesOf(player: string): Collection<StoredPass, string> {
    return this.db.passes.where('[player+at]').between([player, Dexie.minKey], [player, Dexie.maxKey]);
  }

  /** Keeps passes of a player; one with the same id is replaced, and stays with whom it belongs to. All of them or none. */
  async keepPasses(passes: readonly Pass[], player: string = FIRST_PLAYER): Promise<void> {
    await this.db.transaction('rw', this.db.passes, async () => {
      const known = await this.db.passes.bulkGet(passes.map((p) => p.id));
      await this.db.passes.bulkPut(passes.map((p, i) => ({ ...p, player: known[i]?.player ?? player })));
    });
  }

  async removePasses(ids: readonly string[]): Promise<void> {
    await this.db.passes.bulkDelete([...ids]);
  }

  /** Whoever plays on this device, unchecked. */
  async players(): Promise<unknown[]> {
    return this.db.players.toArray();
  }

  async keepPlayer(player: { readonly id: string }): Promise<void> {
    await this.db.players.put(player);
  }

  /** Deletes a player permanently, with the log. */
  async forgetPlayer(id: string): Promise<void> {
    await this.db.transaction('rw', this.db.players, this.db.passes, async () => {
      await this.passesOf(id).delete();
      await this.db.players.delete(id);
    });
  }

  /** Asks the browser not to clear this storage by itself; it may say no. */
  async askToStay(): Promise<void> {
    if (!(await navigator.storage?.persisted?.().catch(() => true))) await navigator.storage?.persist?.().catch(() => false);
  }

  async setting<T>(key: string): Promise<T | null> {
    return ((await this.db.settings.get(key))?.value as T | undefined) ?? null;
  }

  async keepSetting(key: string, value: unknown): Promise<void> {
    await this.db.settings.put({ key, value });
  }
}

/** Passes as they are told, without whose they are; what cannot be read is left out. */
const readable = (passes: readonly StoredPass[]): Pass[] =>
  passes.filter(isSavedPass).map(({ player: _player, ...pass }) => pass);

/** A document under another title. */
export const withTitle = (document: Document, title: string): Document => ({ ...document, song: { ...document.song, title } });

/** Now, or a moment after the last change where the clock has not gone on: a change is always told from the one before. */
const later = (before: number): number => Math.max(Date.now(), (Number.isFinite(before) ? before : 0) + 1);

/** The title of saved data, whatever it is. */
function titleOf(document: unknown): string {
  const title = (document as { song?: { title?: unknown } } | null)?.song?.title;
  return (typeof title === 'string' && oneLine(title)) || $localize`Untitled`;
}

/** Why the browser's storage did not do what it was asked for. */
export type StorageTrouble = 'full' | 'closed' | 'refused';

export function storageTrouble(error: unknown): StorageTrouble {
  const said = error instanceof Error ? `${error.name} ${error.message}` : '';
  if (/quota/i.test(said)) return 'full';
  return /MissingAPI|OpenFailed|DatabaseClosed|InvalidState|Security|Unknown/i.test(said) ? 'closed' : 'refused';
}

/** Each with its way out, for a change to the shelf. */
export const STORAGE_SENTENCES: Readonly<Record<StorageTrouble, string>> = {
  full: $localize`The browser has no room left. Save songs as files, then delete songs from the bin permanently.`,
  closed: $localize`This window cannot save songs: its storage is switched off, as in some private windows. Open this page in a normal window.`,
  refused: $localize`The browser did not save this. Reload the page and try again.`,
};

/** Why a song that is worked on is not saved, in a sentence with a way out. */
export function saveTrouble(error: unknown): string {
  return storageTrouble(error) === 'full'
    ? $localize`The browser has no room left for this song. Save it as a file, then take other songs off the shelf.`
    : $localize`The browser does not save this song here. Save it as a file so that nothing is lost.`;
}
