import { Injectable } from '@angular/core';
import { DocumentSchema, PassSchema, type Document, type Pass } from '@joined-hands/core';
import { Dexie, type Collection, type Table } from 'dexie';

/** A song on the shelf. The document is stored whole; `version` inside it says how to bring it forward. */
export interface StoredSong {
  readonly id: string;
  readonly createdAt: number;
  readonly updatedAt: number;
  readonly demo: boolean;
  readonly document: Document;
}

/** A song that was taken off the shelf. */
export interface BinnedSong extends StoredSong {
  readonly removedAt: number;
}

/** How a song stood at some time, kept without being asked for. */
export interface Snapshot {
  readonly key?: number;
  readonly song: string;
  readonly at: number;
  readonly document: Document;
}

/** Milliseconds between two snapshots of a song that is worked on, and most snapshots that are kept of one. */
const SNAPSHOT_EVERY = 10 * 60_000;
const MOST_SNAPSHOTS = 40;

class Database extends Dexie {
  readonly songs!: Table<StoredSong, string>;
  readonly bin!: Table<BinnedSong, string>;
  readonly snapshots!: Table<Snapshot, number>;
  readonly passes!: Table<Pass, string>;
  readonly settings!: Table<{ key: string; value: unknown }, string>;

  constructor() {
    super('joined-hands');
    this.version(1).stores({ songs: 'id, createdAt', settings: 'key' });
    // Songs and settings stay as they are; documents are brought forward as they are read.
    this.version(2).stores({ bin: 'id, removedAt', snapshots: '++key, [song+at]' });
    this.version(3).stores({ passes: 'id, song, at' });
  }
}

/** Songs and settings in the browser's own storage. Nothing leaves it. */
@Injectable({ providedIn: 'root' })
export class Library {
  private readonly db = new Database();

  /** All songs, newest first. A song that cannot be read any more is left in place and passed over. */
  async all(): Promise<StoredSong[]> {
    const songs = await this.db.songs.orderBy('createdAt').reverse().toArray();
    return songs.flatMap((s) => forward(s) ?? []);
  }

  async get(id: string): Promise<StoredSong | null> {
    const found = await this.db.songs.get(id);
    return found ? forward(found) : null;
  }

  /** Adds a document and answers its id. */
  async add(document: Document, options: { demo?: boolean; createdAt?: number } = {}): Promise<string> {
    const now = options.createdAt ?? Date.now();
    const id = crypto.randomUUID();
    await this.db.songs.add({ id, createdAt: now, updatedAt: now, demo: options.demo ?? false, document });
    return id;
  }

  /** Saves a song, and from time to time how it stood before, both or neither. */
  async save(id: string, document: Document): Promise<void> {
    await this.db.transaction('rw', this.db.songs, this.db.snapshots, async () => {
      const before = await this.db.songs.get(id);
      await this.db.songs.update(id, { document, updatedAt: Date.now() });
      const last = await this.snapshotsOf(id).last();
      if (!before || (last && Date.now() - last.at < SNAPSHOT_EVERY)) return;
      await this.db.snapshots.add({ song: id, at: Date.now(), document: before.document });
      const keys = await this.snapshotsOf(id).primaryKeys();
      await this.db.snapshots.bulkDelete(keys.slice(0, Math.max(0, keys.length - MOST_SNAPSHOTS)));
    });
  }

  /** How a song stood at earlier times, the newest first. */
  async snapshots(id: string): Promise<Snapshot[]> {
    const found = await this.snapshotsOf(id).reverse().toArray();
    return found.flatMap((s) => forward(s) ?? []);
  }

  /** The snapshots of a song from the first on, to be asked once: asking for the last of them leaves only that one. */
  private snapshotsOf(id: string): Collection<Snapshot, number> {
    return this.db.snapshots.where('[song+at]').between([id, 0], [id, Infinity]);
  }

  /** Puts a song into the bin. */
  async remove(id: string): Promise<void> {
    await this.db.transaction('rw', this.db.songs, this.db.bin, async () => {
      const song = await this.db.songs.get(id);
      if (!song) return;
      await this.db.bin.put({ ...song, removedAt: Date.now() });
      await this.db.songs.delete(id);
    });
  }

  /** What lies in the bin, the last first. */
  async binned(): Promise<BinnedSong[]> {
    const songs = await this.db.bin.orderBy('removedAt').reverse().toArray();
    return songs.flatMap((s) => forward(s) ?? []);
  }

  /** Puts a song from the bin back on the shelf. */
  async putBack(id: string): Promise<void> {
    await this.db.transaction('rw', this.db.songs, this.db.bin, async () => {
      const song = await this.db.bin.get(id);
      if (!song) return;
      const { removedAt: _removedAt, ...stored } = song;
      await this.db.songs.put(stored);
      await this.db.bin.delete(id);
    });
  }

  /** Forgets a song of the bin for good, with its snapshots. */
  async forget(id: string): Promise<void> {
    await this.db.transaction('rw', this.db.bin, this.db.snapshots, async () => {
      await this.db.bin.delete(id);
      await this.snapshotsOf(id).delete();
    });
  }

  /** Every pass of practice in order of time; what cannot be read any more is passed over. */
  async passes(): Promise<Pass[]> {
    const all = await this.db.passes.orderBy('at').toArray();
    return all.flatMap((p) => {
      const read = PassSchema.safeParse(p);
      return read.success ? [read.data] : [];
    });
  }

  /** Keeps passes; one with the same id is replaced. All of them or none. */
  async keepPasses(passes: readonly Pass[]): Promise<void> {
    await this.db.passes.bulkPut([...passes]);
  }

  async removePasses(ids: readonly string[]): Promise<void> {
    await this.db.passes.bulkDelete([...ids]);
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

/** A stored thing with its document brought forward; null where that cannot be read any more. */
function forward<T extends { readonly document: Document }>(stored: T): T | null {
  const checked = DocumentSchema.safeParse(stored.document);
  return checked.success ? { ...stored, document: checked.data } : null;
}

/** Why a save failed, in a sentence with a way out. */
export function saveTrouble(error: unknown): string {
  const name = error instanceof Error ? `${error.name} ${error.message}` : '';
  return /quota/i.test(name)
    ? 'The browser has no room left for this song. Save it as a file, then take other songs off the shelf.'
    : 'The browser does not let this song be saved here. Save it as a file, so that nothing is lost.';
}
