import { Injectable } from '@angular/core';
import { DocumentSchema, type Document } from '@joined-hands/core';
import { Dexie, type Table } from 'dexie';

/** A song on the shelf. The document is stored whole; `version` inside it says how to bring it forward. */
export interface StoredSong {
  readonly id: string;
  readonly createdAt: number;
  readonly updatedAt: number;
  readonly demo: boolean;
  readonly document: Document;
}

class Database extends Dexie {
  readonly songs!: Table<StoredSong, string>;
  readonly settings!: Table<{ key: string; value: unknown }, string>;

  constructor() {
    super('joined-hands');
    this.version(1).stores({ songs: 'id, createdAt', settings: 'key' });
  }
}

/** Songs and settings in the browser's own storage. Nothing leaves it. */
@Injectable({ providedIn: 'root' })
export class Library {
  private readonly db = new Database();

  /** All songs, newest first. A song that cannot be read any more is left in place and passed over. */
  async all(): Promise<StoredSong[]> {
    const songs = await this.db.songs.orderBy('createdAt').reverse().toArray();
    return songs.filter((s) => DocumentSchema.safeParse(s.document).success);
  }

  async get(id: string): Promise<StoredSong | null> {
    const found = await this.db.songs.get(id);
    if (!found) return null;
    const checked = DocumentSchema.safeParse(found.document);
    return checked.success ? { ...found, document: checked.data } : null;
  }

  /** Adds a document and answers its id. */
  async add(document: Document, options: { demo?: boolean; createdAt?: number } = {}): Promise<string> {
    const now = options.createdAt ?? Date.now();
    const id = crypto.randomUUID();
    await this.db.songs.add({ id, createdAt: now, updatedAt: now, demo: options.demo ?? false, document });
    return id;
  }

  async save(id: string, document: Document): Promise<void> {
    await this.db.songs.update(id, { document, updatedAt: Date.now() });
  }

  async remove(id: string): Promise<StoredSong | null> {
    const song = await this.db.songs.get(id);
    await this.db.songs.delete(id);
    return song ?? null;
  }

  async putBack(song: StoredSong): Promise<void> {
    await this.db.songs.put(song);
  }

  async setting<T>(key: string): Promise<T | null> {
    return ((await this.db.settings.get(key))?.value as T | undefined) ?? null;
  }

  async keepSetting(key: string, value: unknown): Promise<void> {
    await this.db.settings.put({ key, value });
  }
}
