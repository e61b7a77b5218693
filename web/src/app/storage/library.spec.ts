import '@angular/compiler';
import { Dexie } from 'dexie';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demo } from '../../../../core/testing/songs';
import { emptyStorage } from '../../../testing/storage';
import { Library, saveTrouble, type StoredSong } from './library';

const HARBOUR = demo('harbour-glass.abc');
const LAMPS = demo('lamps-across-the-sound.letters');
const titled = (title: string) => ({ ...HARBOUR, song: { ...HARBOUR.song, title } });
const titles = (songs: readonly { readonly document: StoredSong['document'] }[]) => songs.map((s) => s.document.song.title);
const MINUTE = 60_000;

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
    expect(titles(await library.all())).toEqual([HARBOUR.song.title, LAMPS.song.title]);
    expect(await library.get(id)).toMatchObject({ id, demo: false, createdAt: 1_000_000_000, document: HARBOUR });
    expect(await library.get('none')).toBeNull();
  });

  it('passes over a song that cannot be read any more, and leaves it where it is', async () => {
    const id = await library.add(HARBOUR);
    await raw((db) => db.table('songs').update(id, { document: { ...HARBOUR, version: 99 } }));
    await library.add(LAMPS);
    expect(titles(await library.all())).toEqual([LAMPS.song.title]);
    expect(await library.get(id)).toBeNull();
    expect(await raw((db) => db.table('songs').count())).toBe(2);
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
    expect((await library.get(id))?.document.song.title).toBe('fourth');
    expect((await library.get(id))?.updatedAt).toBe(Date.now());
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
    await library.save('gone', HARBOUR);
    expect(await library.all()).toEqual([]);
    expect(await library.snapshots('gone')).toEqual([]);
  });

  it('has a bin, out of which a song comes back as it was', async () => {
    const id = await library.add(HARBOUR);
    const before = await library.get(id);
    await library.remove(id);
    expect(await library.all()).toEqual([]);
    expect(titles(await library.binned())).toEqual([HARBOUR.song.title]);
    await library.putBack(id);
    expect(await library.binned()).toEqual([]);
    expect(await library.get(id)).toEqual(before);
  });

  it('forgets a song of the bin for good, with how it stood before', async () => {
    const id = await library.add(HARBOUR);
    await library.save(id, LAMPS);
    await library.remove(id);
    await library.forget(id);
    await library.putBack(id);
    expect([await library.all(), await library.binned(), await library.snapshots(id)]).toEqual([[], [], []]);
  });

  it('keeps passes in order of time, replaces one of the same id, and passes over what is no pass', async () => {
    const pass = (id: string, at: number, clean: boolean) => ({
      ...{ id, at, clean, song: null, title: 'Scales', day: '2031-05-01', step: 'drill:scales', kind: 'drill' as const },
      ...{ parts: '', hands: 'both' as const, tempo: 0, goal: 0, figures: null, seconds: 60, note: '' },
    });
    await library.keepPasses([pass('b', 2, false), pass('a', 1, false)]);
    await library.keepPasses([pass('b', 2, true)]);
    await raw((db) => db.table('passes').add({ id: 'c', at: 3, song: 4 }));
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
    expect(titles(await library.all())).toEqual([HARBOUR.song.title]);
    expect(await library.setting('demos')).toBe(true);
    await library.save('old', LAMPS);
    expect(titles(await library.snapshots('old'))).toEqual([HARBOUR.song.title]);
    expect(await library.passes()).toEqual([]);
  });

  it('says why a song is not saved, with a way out', () => {
    expect(saveTrouble(new DOMException('no room', 'QuotaExceededError'))).toMatch(/no room left.*Save it as a file/);
    expect(saveTrouble(new Error('closed'))).toMatch(/does not let.*Save it as a file/);
  });
});
