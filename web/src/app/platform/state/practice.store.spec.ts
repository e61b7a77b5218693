// @vitest-environment happy-dom
import type { Pass } from '@joined-hands/core/log';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demo } from '../../../../../core/testing/songs';
import { TestBed } from '../../../../testing/bed';
import { heldBack } from '../../../../testing/held';
import { PLAYED } from '../../../../testing/played';
import { emptyStorage } from '../../../../testing/storage';
import { standInWorkers } from '../../../../testing/workers';
import { Library } from '../storage/library';
import { Workers } from '../workers/workers';
import { DEMO_LOG } from './demo-log';
import { PracticeStore } from './practice.store';

let practice: InstanceType<typeof PracticeStore>;
let library: Library;

beforeEach(() => {
  emptyStorage();
  vi.useFakeTimers({ toFake: ['Date'], now: new Date(2031, 4, 10, 21, 30) });
  TestBed.configureTestingModule({ providers: [{ provide: Workers, useValue: standInWorkers().workers }] });
  library = TestBed.inject(Library);
  practice = TestBed.inject(PracticeStore);
});
afterEach(() => {
  TestBed.resetTestingModule();
  vi.useRealTimers();
});

/** A new program on the same storage. */
function reopened(): InstanceType<typeof PracticeStore> {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [{ provide: Workers, useValue: standInWorkers().workers }] });
  return TestBed.inject(PracticeStore);
}

describe('the log', () => {
  it('keeps what was played, by the calendar day of the pianist, over a restart', async () => {
    const pass = practice.write(PLAYED);
    expect(pass).toMatchObject({ ...PLAYED, day: '2031-05-10', note: '' });
    await expect.poll(() => library.passes()).toEqual([pass]);
    const again = reopened();
    await again.load();
    expect(again.passes()).toEqual([pass]);
    expect(again.bySong().get('one')).toEqual([pass]);
  });

  it('stays in order of time when an older pass is added, and changes one in its place', async () => {
    const pass = practice.write(PLAYED);
    const older: Pass = { ...pass, id: 'older', at: pass.at - 1000 };
    await practice.keep([older]);
    expect(practice.passes().map((p) => p.id)).toEqual(['older', pass.id]);
    await practice.keep([{ ...older, note: 'with the lamp on' }]);
    expect(practice.passes().map((p) => p.note)).toEqual(['with the lamp on', '']);
    await practice.remove([pass]);
    expect(practice.passes().map((p) => p.id)).toEqual(['older']);
    expect((await library.passes()).map((p) => p.id)).toEqual(['older']);
  });

  it('says that a pass could not be kept, and still shows it, also when the log is looked at again', async () => {
    const { keepPasses } = library;
    library.keepPasses = () => Promise.reject(new Error('closed'));
    const pass = practice.write(PLAYED);
    await expect.poll(() => practice.trouble()).toContain('Save it as a file');
    expect(practice.passes()).toEqual([pass]);
    await practice.load();
    expect(practice.passes()).toEqual([pass]);
    expect(practice.atRisk()).toBe(true);
    library.keepPasses = keepPasses;
    await practice.keep([{ ...pass, note: 'kept after all' }]);
    expect(practice.atRisk()).toBe(false);
    await practice.load();
    expect(practice.passes().map((p) => p.note)).toEqual(['kept after all']);
  });

  it('shows a pass that is still being written when the log is read', async () => {
    const { held, letGo } = heldBack(library.keepPasses.bind(library));
    library.keepPasses = held;
    const pass = practice.write(PLAYED);
    await practice.load();
    expect(practice.passes()).toEqual([pass]);
    expect(practice.atRisk()).toBe(true);
    letGo();
    await expect.poll(() => practice.atRisk()).toBe(false);
    expect(await library.passes()).toEqual([pass]);
  });

  it('opens without what the browser does not let it read, and says so', async () => {
    const pass = practice.write(PLAYED);
    library.passes = () => Promise.reject(new Error('closed'));
    await practice.load();
    expect(practice.loaded()).toBe(true);
    expect(practice.trouble()).toContain('does not let the log be read');
    expect(practice.passes()).toEqual([pass]);
  });

  it('knows the day that has begun since it was opened', async () => {
    expect(practice.today()).toBe('2031-05-10');
    vi.setSystemTime(new Date(2031, 4, 11, 0, 10));
    await practice.load();
    expect(practice.today()).toBe('2031-05-11');
  });

  it('has made-up practice for the demo songs, on the days before, once', async () => {
    const song = await library.add(demo('harbour-glass.abc'), { demo: true, createdAt: 1 });
    await library.keepSetting(DEMO_LOG, [{ song, ago: [3, 1], minutes: 20, seed: 1 }]);
    await practice.load();
    const days = new Set(practice.passes().map((p) => p.day));
    expect(days).toEqual(new Set(['2031-05-07', '2031-05-09']));
    const before = practice.passes().length;
    const again = reopened();
    await again.load();
    expect(again.passes()).toHaveLength(before);
  });
});
