import { Dexie } from 'dexie/dist/modern/dexie.mjs';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';

/** Has the storage begin empty, in memory. */
export function emptyStorage(): IDBFactory {
  const indexedDB = new IDBFactory();
  Dexie.dependencies.indexedDB = indexedDB;
  Dexie.dependencies.IDBKeyRange = IDBKeyRange;
  return indexedDB;
}
