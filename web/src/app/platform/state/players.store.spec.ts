// @vitest-environment happy-dom
import { applyEdit, handsOf } from '@joined-hands/core/song';
import { arrange } from '@joined-hands/core/arrange';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { edits } from '../../../../../core/testing/edits';
import { demo } from '../../../../../core/testing/songs';
import { TestBed } from '../../../../testing/bed';
import { PLAYED } from '../../../../testing/played';
import { emptyStorage } from '../../../../testing/storage';
import { standInWorkers } from '../../../../testing/workers';
import { FIRST_PLAYER } from '../storage/first-player';
import { Library } from '../storage/library';
import { Tasks } from '../tasks';
import { Workers } from '../workers/workers';
import { DeskStore } from './desk.store';
import { PlayersStore } from './players.store';
import { PracticeStore } from './practice.store';
import { SettingsStore } from './settings.store';
import { ShelfStore } from './shelf.store';

const GLASS = demo('harbour-glass.abc');
const SMALL = { ...handsOf('small', 61), most: 'triads' as const };

/** The program as it starts on the storage that is there. */
function start() {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [{ provide: Workers, useValue: standInWorkers().workers }] });
  return {
    library: TestBed.inject(Library),
    players: TestBed.inject(PlayersStore),
    settings: TestBed.inject(SettingsStore),
    desk: TestBed.inject(DeskStore),
    practice: TestBed.inject(PracticeStore),
  };
}

let app: ReturnType<typeof start>;
beforeEach(async () => {
  emptyStorage();
  localStorage.clear();
  app = start();
  await app.players.load();
});
afterEach(() => {
  TestBed.resetTestingModule();
  vi.useRealTimers();
});

/** What follows a change of signals has run, and what was written is kept. */
const settled = async (): Promise<void> => {
  TestBed.tick();
  await app.desk.saved();
  await expect.poll(() => app.practice.atRisk()).toBe(false);
};

describe('those who play', () => {
  it('are one at first, and stay in order with what they were given after the page was closed', async () => {
    expect(app.players.here().map((p) => [p.id, p.name])).toEqual([[FIRST_PLAYER, '']]);
    const ines = app.players.add('  Ines ');
    app.players.change(ines, { hands: SMALL });
    app.players.change(FIRST_PLAYER, { name: 'Mara' });
    await expect.poll(() => app.library.players()).toHaveLength(2);
    app = start();
    await app.players.load();
    expect(app.players.here().map((p) => [p.name, p.hands])).toEqual([
      ['Mara', handsOf()],
      ['Ines', SMALL],
    ]);
  });

  it('each have their wishes, which follow whoever plays, also over a restart', async () => {
    const ines = app.players.add('Ines');
    app.players.playNow(ines);
    app.settings.set({ noteNames: 'solfege', minutes: 10 });
    TestBed.tick();
    app.players.playNow(FIRST_PLAYER);
    expect([app.settings.noteNames(), app.settings.minutes()]).toEqual(['letters', 20]);
    app.settings.set({ noteNames: 'german', theme: 'evening' });
    TestBed.tick();
    app.players.playNow(ines);
    expect([app.settings.noteNames(), app.settings.minutes(), app.settings.theme()]).toEqual(['solfege', 10, 'evening']);
    await expect.poll(async () => JSON.stringify(await app.library.players())).toContain('german');
    app = start();
    await app.players.load();
    expect(app.players.current().name).toBe('Ines');
    expect(app.settings.noteNames()).toBe('solfege');
    app.players.playNow(FIRST_PLAYER);
    expect(app.settings.noteNames()).toBe('german');
  });

  it('are taken off the list with nothing lost, and deleted with their log alone when that is asked for', async () => {
    const ines = app.players.add('Ines');
    app.players.playNow(ines);
    app.practice.write(PLAYED);
    await settled();
    app.players.remove(ines);
    expect([app.players.current().id, app.players.removed().length]).toEqual([FIRST_PLAYER, 1]);
    app.players.remove(FIRST_PLAYER);
    expect(app.players.here()).toHaveLength(1);
    app.players.putBack(ines);
    expect(await app.library.passes(ines)).toHaveLength(1);
    app.players.remove(ines);
    app.practice.write(PLAYED);
    await settled();
    await app.players.forget(ines);
    expect([await app.library.passes(ines), await app.library.passes(FIRST_PLAYER)]).toEqual([[], [expect.anything()]]);
    expect(await app.library.players()).toHaveLength(1);
    // The first one goes for good as well, once there is another.
    const tove = app.players.add('Tove');
    app.players.remove(FIRST_PLAYER);
    await app.players.forget(FIRST_PLAYER);
    app = start();
    await app.players.load();
    expect(app.players.all().map((p) => p.id)).toEqual([tove]);
  });

  it('play on without a storage', async () => {
    app.library.players = () => Promise.reject(new Error('closed'));
    app.library.keepPlayer = () => Promise.reject(new Error('closed'));
    await app.players.refresh();
    app.players.playNow(app.players.add('Ines'));
    expect(app.players.current().name).toBe('Ines');
    await expect.poll(() => app.players.trouble()).toContain('gone when this page is closed');
  });
});

describe('the log and the tasks', () => {
  it('are those of whoever plays, and a pass stays with whom it belongs to', async () => {
    await app.practice.load();
    const mine = app.practice.write(PLAYED);
    await settled();
    const ines = app.players.add('Ines');
    app.players.playNow(ines);
    TestBed.tick();
    await expect.poll(() => app.practice.loaded()).toBe(true);
    expect(app.practice.passes()).toEqual([]);
    const hers = app.practice.write({ ...PLAYED, clean: false });
    // Her log comes in again from a file, with one of another's in it.
    await app.practice.keep([{ ...mine, note: 'again' }]);
    await settled();
    await app.practice.load();
    expect(app.practice.passes().map((p) => p.id)).toEqual([hers.id]);
    app.players.playNow(FIRST_PLAYER);
    TestBed.tick();
    await expect.poll(() => app.practice.passes().map((p) => [p.id, p.note])).toEqual([[mine.id, 'again']]);
  });

  it('take in what another practised without showing it as one’s own', async () => {
    await app.practice.load();
    const ines = app.players.add('Ines');
    await app.practice.keep([{ ...PLAYED, id: 'a', at: 1, day: '2031-05-01', note: '' }], ines);
    expect(app.practice.passes()).toEqual([]);
    expect((await app.library.passes(ines)).map((p) => p.id)).toEqual(['a']);
  });

  it('keep a task for the one who was given it', async () => {
    const tasks = TestBed.inject(Tasks);
    const task = { note: 'slowly', items: [] };
    await tasks.keep('one', task);
    app.players.playNow(app.players.add('Ines'));
    await tasks.load('one');
    expect(tasks.of('one')).toBeNull();
    app.players.playNow(FIRST_PLAYER);
    expect(tasks.of('one')).toEqual(task);
  });
});

describe('a song', () => {
  let id: string;
  beforeEach(async () => {
    id = await app.library.add(GLASS);
  });

  it('is played with the hands of whoever plays; choices are shared, and looking changes nothing that is saved', async () => {
    const ines = app.players.add('Ines');
    app.players.change(ines, { hands: SMALL });
    await app.desk.open(id);
    const before = await app.library.get(id);
    app.players.playNow(ines);
    TestBed.tick();
    await expect.poll(() => app.desk.arrangement()).toEqual(arrange({ ...GLASS, hands: SMALL }));
    await settled();
    expect(await app.library.get(id)).toEqual(before);
    await app.desk.edit({ code: 'edit.school', range: null, school: 'root' });
    app.players.playNow(FIRST_PLAYER);
    TestBed.tick();
    const shared = applyEdit(GLASS, { code: 'edit.school', range: null, school: 'root' });
    await expect.poll(() => app.desk.arrangement()).toEqual(arrange(shared));
    await app.desk.undo();
    expect(app.desk.document()).toEqual(GLASS);
  });

  it('keeps hands that were changed in it for that player alone, until they are to be the usual ones', async () => {
    const ines = app.players.add('Ines');
    await app.desk.open(id);
    app.players.playNow(ines);
    await app.desk.edit({ code: 'edit.hands', change: { profile: 'child' } });
    expect(app.players.handsFor(id).profile).toBe('child');
    expect(app.players.handsFor('another').profile).toBe('medium');
    app.players.playNow(FIRST_PLAYER);
    expect(app.players.handsFor(id).profile).toBe('medium');
    app.players.playNow(ines);
    app.players.settleHands(id, 'everywhere');
    expect(app.players.handsFor('another').profile).toBe('child');
    await app.desk.edit({ code: 'edit.hands', change: { profile: 'large' } });
    app.players.settleHands(id, 'usual');
    expect(app.players.handsFor(id).profile).toBe('child');
  });

  it('opens after one that is played with other hands', async () => {
    const [first, second] = [await app.library.add(GLASS), await app.library.add(GLASS)];
    await app.desk.open(first);
    await app.desk.edit({ code: 'edit.hands', change: { profile: 'small' } });
    await settled();
    const opening = app.desk.open(second);
    // The hands of no song are others than those of the first one; this is seen before the second one has been read.
    TestBed.tick();
    await opening;
    expect(app.desk.id()).toBe(second);
    expect(app.desk.document()?.hands).toEqual(handsOf());
  });

  it('has the same choices whoever made them, and leaves the hands of the others alone', async () => {
    const [ines, tove] = [app.players.add('Ines'), app.players.add('Tove')];
    app.players.change(ines, { hands: SMALL });
    app.players.change(tove, { hands: { ...handsOf('large'), firstYear: true } });
    const usual = new Map(app.players.here().map((p) => [p.id, p.hands]));
    const seats = [FIRST_PLAYER, ines, tove];
    const parts = arrange(GLASS);
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom(...seats), edits(GLASS, parts)), { minLength: 1, maxLength: 4 }),
        async (made) => {
          const song = await app.library.add(GLASS);
          await app.desk.open(song);
          let alone = GLASS;
          for (const [who, edit] of made) {
            app.players.playNow(who);
            TestBed.tick();
            await app.desk.edit(edit);
            alone = applyEdit(alone, edit) ?? alone;
          }
          await settled();
          const saved = (await app.library.get(song))?.document as typeof GLASS;
          expect([saved.choices, saved.song]).toEqual([alone.choices, alone.song]);
          for (const player of app.players.here()) {
            expect(player.hands).toEqual(usual.get(player.id));
            const own = made.some(([who, edit]) => who === player.id && edit.code === 'edit.hands');
            if (!own) expect(player.songs[song]).toBeUndefined();
          }
        },
      ),
      { numRuns: 15 },
    );
  });

  it('that comes with hands keeps them where no others were ever set, and has those of its player elsewhere', async () => {
    const shelf = TestBed.inject(ShelfStore);
    const brought = { ...GLASS, hands: SMALL };
    const first = await shelf.add(brought);
    expect(app.players.handsFor(first)).toEqual(SMALL);
    const ines = app.players.add('Ines');
    app.players.change(ines, { hands: handsOf('large') });
    app.players.playNow(ines);
    expect(app.players.handsFor(await shelf.add(brought))).toEqual(handsOf('large'));
  });
});
