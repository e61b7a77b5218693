import '@angular/compiler';
import { Dexie } from 'dexie/dist/modern/dexie.mjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demo } from '../../../../../core/testing/songs';
import { emptyStorage } from '../../../../testing/storage';
import { cardOf } from '@joined-hands/core/sheet';
import type { Document } from '@joined-hands/core/song';
import { readPlayers } from '../state/player';
import { FIRST_PLAYER, keptFor } from './first-player';
import { Library, saveTrouble, STORAGE_SENTENCES, storageTrouble } from './library';

const HARBOUR = demo('harbour-glass.abc');
const LAMPS = demo('lamps-across-the-sound.letters');
const titled = (title: string) => ({ ...HARBOUR, song: { ...HARBOUR.song, title } });
const titles = (songs: readonly { readonly document: unknown }[]) => songs.map((s) => (s.document as Document).song.title);
/** The titles on the shelf in its order. */
const onShelf = async (): Promise<string[]> => {
  const songs = new Map((await library.raw((await library.shelf()).map((s) => s.id))).map((s) => [s.id, s]));
  return titles((await library.shelf()).flatMap((s) => songs.get(s.id) ?? []));
};
const MINUTE = 60_000;
const PASS = {
  id: '',
  at: 0,
  clean: true,
  song: null,
  title: 'Scales',
  day: '2031-05-01',
  step: 'drill:scales',
  kind: 'drill' as const,
  parts: '',
  hands: 'both' as const,
  tempo: 0,
  goal: 0,
  figures: null,
  seconds: 60,
  note: '',
};

let library: Library;
beforeEach(() => {
  emptyStorage();
  library = new Library();
  // Only the clock on the wall: what the storage waits for goes on.
  vi.useFakeTimers({ toFake: ['Date'], now: 1_000_000_000 });
});
afterEach(() => vi.useRealTimers());

/** Reads the storage beside the library, as another program would. */
async function raw<T>(act: (db: Dexie) => Promise<T>): Promise<T> {
  const db = await new Dexie('joined-hands').open();
  try {
    return await act(db);
  } finally {
    db.close();
  }
}

describe('the library', () => {
  it('holds songs whole, the newest first', async () => {
    await library.add(LAMPS, { demo: true, createdAt: 1 });
    const id = await library.add(HARBOUR);
    expect(await onShelf()).toEqual([HARBOUR.song.title, LAMPS.song.title]);
    expect(await library.get(id)).toMatchObject({ id, demo: false, createdAt: 1_000_000_000, document: HARBOUR });
    expect(await library.get('none')).toBeNull();
  });

  it('lists every song, also one that cannot be read, and remembers cards until the song changes', async () => {
    const id = await library.add(HARBOUR);
    await raw((db) => db.table('songs').update(id, { document: { ...HARBOUR, version: 99 } }));
    await raw((db) => db.table('songs').add({ id: 'bare' }));
    expect((await library.shelf()).map((s) => [s.id, s.card])).toEqual([
      [id, null],
      ['bare', null],
    ]);
    const [song] = await library.raw([id]);
    await library.keepCards([{ song, card: cardOf(song.document) }]);
    const [{ card }] = await library.shelf();
    expect(card).toMatchObject({ title: 'Harbour Glass', fault: { why: 'newer', place: '99' } });
    await library.save(id, LAMPS);
    expect((await library.shelf())[0].card).toBeNull();
  });

  it('adds many songs or none of them', async () => {
    await expect(library.addAll([HARBOUR, { ...LAMPS, choices: 1n } as unknown as Document])).rejects.toThrow();
    expect(await library.shelf()).toEqual([]);
    expect(await library.addAll([HARBOUR, LAMPS])).toHaveLength(2);
    expect(await library.shelf()).toHaveLength(2);
  });

  it('renames what is there by now, and an edit made without knowing keeps the name', async () => {
    const id = await library.add(titled('first'));
    const edited = { ...titled('first'), hands: LAMPS.hands };
    await library.save(id, edited, 'first');
    expect(await library.rename(id, '  second\nname ')).toBe(true);
    const doc = async () => (await library.get(id))?.document as Document;
    expect([(await doc()).song.title, (await doc()).hands]).toEqual(['second name', LAMPS.hands]);
    await library.save(id, HARBOUR, 'first');
    expect(await onShelf()).toEqual(['second name']);
    expect(await library.rename(id, '   ')).toBe(false);
    expect(await library.rename('gone', 'x')).toBe(false);
  });

  it('duplicates a song as it stands now', async () => {
    const id = await library.add(titled('a'.repeat(200)));
    await library.save(id, titled('b'.repeat(200)));
    const copy = await library.duplicate(id);
    expect(((await library.get(copy ?? ''))?.document as Document).song.title).toBe(`${'b'.repeat(190)} (copy)`);
    expect(await library.duplicate('gone')).toBeNull();
  });

  it('puts a song that was taken off back as it stands now, out of the bin too', async () => {
    const id = await library.add(HARBOUR, { createdAt: 7 });
    await library.remove(id);
    await library.restore(id, LAMPS);
    expect(await library.get(id)).toMatchObject({ id, createdAt: 7, document: LAMPS });
    expect(await library.binned()).toEqual([]);
  });

  it('keeps how a song stood, at most every ten minutes', async () => {
    const id = await library.add(titled('first'));
    await library.save(id, titled('second'));
    vi.advanceTimersByTime(9 * MINUTE);
    await library.save(id, titled('third'));
    expect(titles(await library.snapshots(id))).toEqual(['first']);
    vi.advanceTimersByTime(MINUTE);
    await library.save(id, titled('fourth'));
    expect(titles(await library.snapshots(id))).toEqual(['third', 'first']);
    const song = await library.get(id);
    expect([song && titles([song]), song?.updatedAt]).toEqual([['fourth'], Date.now()]);
  });

  it('keeps the last forty of them, of each song for itself', async () => {
    const [id, other] = [await library.add(titled('0')), await library.add(LAMPS)];
    await library.save(other, titled('other'));
    for (let i = 1; i <= 43; i++) {
      await library.save(id, titled(`${i}`));
      vi.advanceTimersByTime(10 * MINUTE);
    }
    const kept = titles(await library.snapshots(id));
    expect(kept).toHaveLength(40);
    expect([kept[0], kept.at(-1)]).toEqual(['42', '3']);
    expect(await library.snapshots(other)).toHaveLength(1);
  });

  it('saves nothing of a song that is gone', async () => {
    expect(await library.save('gone', HARBOUR)).toBeNull();
    expect(await library.shelf()).toEqual([]);
    expect(await library.snapshots('gone')).toEqual([]);
  });

  it('has a bin, out of which a song comes back as it was', async () => {
    const id = await library.add(HARBOUR);
    const before = await library.get(id);
    await library.remove(id);
    expect(await library.shelf()).toEqual([]);
    expect((await library.binned()).map((b) => b.title)).toEqual([HARBOUR.song.title]);
    await library.putBack(id);
    expect(await library.binned()).toEqual([]);
    expect(await library.get(id)).toEqual(before);
  });

  it('deletes a song of the bin permanently, with how it stood before', async () => {
    const id = await library.add(HARBOUR);
    await library.save(id, LAMPS);
    await library.remove(id);
    await library.forget(id);
    await library.putBack(id);
    expect([await library.shelf(), await library.binned(), await library.snapshots(id)]).toEqual([[], [], []]);
  });

  it('keeps passes in order of time, replaces one of the same id, and passes over what is no pass', async () => {
    const pass = (id: string, at: number, clean: boolean) => ({ ...PASS, id, at, clean });
    await library.keepPasses([pass('b', 2, false), pass('a', 1, false)]);
    await library.keepPasses([pass('b', 2, true)]);
    await raw((db) => db.table('passes').add({ id: 'c', at: 3, song: 4, player: FIRST_PLAYER }));
    expect((await library.passes()).map((p) => [p.id, p.clean])).toEqual([
      ['a', false],
      ['b', true],
    ]);
    await library.removePasses(['a']);
    expect((await library.passes()).map((p) => p.id)).toEqual(['b']);
  });

  it('keeps what the first program kept', async () => {
    const old = new Dexie('joined-hands');
    old.version(1).stores({ songs: 'id, createdAt', settings: 'key' });
    await old.table('songs').add({ id: 'old', createdAt: 5, updatedAt: 5, demo: false, document: HARBOUR });
    await old.table('settings').add({ key: 'demos', value: true });
    old.close();
    expect(await onShelf()).toEqual([HARBOUR.song.title]);
    expect(await library.setting('demos')).toBe(true);
    await library.save('old', LAMPS);
    expect(titles(await library.snapshots('old'))).toEqual([HARBOUR.song.title]);
    expect(await library.passes()).toEqual([]);
  });

  it('gives everything that one person kept to a first player, and nothing is lost', async () => {
    const old = new Dexie('joined-hands');
    old.version(6).stores({
      songs: 'id, createdAt, [createdAt+updatedAt+id], [id+title+createdAt+updatedAt]',
      settings: 'key',
      bin: 'id, removedAt',
      snapshots: '++key, [song+at]',
      passes: 'id, song, at',
      cards: 'id',
    });
    const small = { ...HARBOUR, hands: { profile: 'small', keys: 61, firstYear: false, left: null, right: null } };
    const record = (id: string, document: unknown) => ({ id, createdAt: 1, updatedAt: 1, demo: false, document });
    const passes = Array.from({ length: 30 }, (_, i) => ({ ...PASS, id: `p${i}`, at: i }));
    await old
      .table('songs')
      .bulkAdd([
        record('a', JSON.stringify(HARBOUR)),
        record('b', LAMPS),
        record('c', JSON.stringify(small)),
        record('d', '{"damaged'),
      ]);
    await old.table('bin').add({ ...record('e', JSON.stringify(small)), removedAt: 4 });
    await old.table('passes').bulkAdd([...passes, { id: 'odd', at: 99, song: 4 }]);
    const task = { note: 'slowly', items: [] };
    await old.table('settings').bulkAdd([
      { key: 'task:a', value: task },
      { key: 'lesson:c', value: 'part:2/left' },
      { key: 'tags', value: { a: ['ferry'] } },
    ]);
    const songs = await old.table('songs').toArray();
    old.close();
    expect(await library.passes()).toEqual(passes);
    expect(await library.passes('another')).toEqual([]);
    expect(await raw((db) => db.table('passes').count())).toBe(31);
    expect(await raw((db) => db.table('songs').toArray())).toEqual(songs);
    expect(readPlayers(await library.players())).toEqual([
      {
        id: FIRST_PLAYER,
        name: '',
        createdAt: 0,
        hands: HARBOUR.hands,
        songs: { c: { ...small.hands, most: 'full' }, e: { ...small.hands, most: 'full' } },
        wishes: null,
        removedAt: null,
      },
    ]);
    expect(await library.setting(keptFor('task', FIRST_PLAYER, 'a'))).toEqual(task);
    expect(await library.setting(keptFor('lesson', FIRST_PLAYER, 'c'))).toBe('part:2/left');
    expect(await library.setting('task:a')).toBeNull();
    expect(await library.setting('tags')).toEqual({ a: ['ferry'] });
  });

  it('reads a song that was saved as an object or as text, and gives a damaged text out as it is', async () => {
    const id = await library.add(HARBOUR);
    const read = async () => (await library.get(id))?.document;
    await raw((db) => db.table('songs').update(id, { document: LAMPS }));
    expect(await read()).toEqual(LAMPS);
    await library.save(id, HARBOUR);
    const saved = await raw((db) => db.table('songs').get(id) as Promise<Record<string, unknown>>);
    expect(saved).toMatchObject({ title: HARBOUR.song.title, document: JSON.stringify(HARBOUR) });
    await raw((db) => db.table('songs').update(id, { document: '{"version":' }));
    expect(await read()).toBe('{"version":');
    expect(cardOf(await read())).toMatchObject({ fault: { why: 'damaged' } });
  });

  it('says why a song is not saved, with a way out', () => {
    expect(saveTrouble(new DOMException('no room', 'QuotaExceededError'))).toMatch(/no room left.*Save it as a file/);
    expect(saveTrouble(new Error('closed'))).toMatch(/does not save.*Save it as a file/);
  });

  it.each([
    [new DOMException('no room', 'QuotaExceededError'), 'full'],
    [Object.assign(new Error('IndexedDB API missing'), { name: 'MissingAPIError' }), 'closed'],
    [new DOMException('not here', 'SecurityError'), 'closed'],
    [new Error('something else'), 'refused'],
  ] as const)('tells what keeps the shelf from being changed: %s', (error, trouble) => {
    expect(storageTrouble(error)).toBe(trouble);
    expect(STORAGE_SENTENCES[trouble]).toMatch(/\. (Save|Open|Reload) .+\.$/);
  });
});
