// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import '@angular/compiler';
import { Tabs } from './tabs';

interface Waiting {
  readonly keep: (lock: Lock | null) => Promise<void> | undefined;
  readonly resolve: () => void;
  readonly reject: (error: unknown) => void;
}

/** The browser's locks as far as they are used here: one holder of a name, a row of those who wait, taking one by force. */
function standInLocks() {
  const held = new Map<string, { reject: (error: unknown) => void }>();
  const rows = new Map<string, Waiting[]>();
  const aborted = () => new DOMException('gone', 'AbortError');
  const grant = (name: string, waiting: Waiting): void => {
    const holder = { reject: waiting.reject };
    held.set(name, holder);
    void Promise.resolve(waiting.keep({ name, mode: 'exclusive' })).then(() => {
      if (held.get(name) !== holder) return;
      held.delete(name);
      waiting.resolve();
      const next = rows.get(name)?.shift();
      if (next) grant(name, next);
    });
  };
  return {
    request: (name: string, options: LockOptions, keep: Waiting['keep']) =>
      new Promise<void>((resolve, reject) => {
        const waiting = { keep, resolve, reject };
        if (options.steal) {
          held.get(name)?.reject(aborted());
          return grant(name, waiting);
        }
        if (!held.has(name)) return grant(name, waiting);
        if (options.ifAvailable) return void Promise.resolve(keep(null)).then(() => resolve());
        const row = rows.get(name) ?? [];
        rows.set(name, [...row, waiting]);
        options.signal?.addEventListener('abort', () => {
          rows.set(
            name,
            (rows.get(name) ?? []).filter((w) => w !== waiting),
          );
          reject(aborted());
        });
      }),
    waiting: (name: string) => rows.get(name)?.length ?? 0,
  };
}

/** Lets everything that is promised happen. */
const settled = () => new Promise<void>((resolve) => setImmediate(resolve));

let locks: ReturnType<typeof standInLocks>;
beforeEach(() => {
  locks = standInLocks();
  vi.stubGlobal('navigator', { locks });
});
afterEach(() => vi.unstubAllGlobals());

/** Two tabs with the same song open, the first one first. */
async function twoTabs(): Promise<[Tabs, Tabs]> {
  const [first, second] = [new Tabs(), new Tabs()];
  first.open('song');
  await settled();
  second.open('song');
  await settled();
  return [first, second];
}

describe('several tabs', () => {
  it('have a song worked on in the first of them, and shown in the others', async () => {
    const [first, second] = await twoTabs();
    expect([first.isReadOnly(), second.isReadOnly()]).toEqual([false, true]);
  });

  it('may work on different songs', async () => {
    const [, second] = await twoTabs();
    second.open('another');
    await settled();
    expect(second.isReadOnly()).toBe(false);
    expect(locks.waiting('joined-hands:song')).toBe(0);
  });

  it('hand the song on when the first lets go of it', async () => {
    const [first, second] = await twoTabs();
    first.open(null);
    await settled();
    expect(second.isReadOnly()).toBe(false);
  });

  it('let the song be taken over, and back again', async () => {
    const [first, second] = await twoTabs();
    second.takeOver();
    await settled();
    expect([first.isReadOnly(), second.isReadOnly()]).toEqual([true, false]);
    first.takeOver();
    await settled();
    expect([first.isReadOnly(), second.isReadOnly()]).toEqual([false, true]);
    first.open(null);
    await settled();
    expect(second.isReadOnly()).toBe(false);
  });

  it('leave nobody waiting for a song that is no longer open', async () => {
    const [first, second] = await twoTabs();
    second.open(null);
    await settled();
    expect(locks.waiting('joined-hands:song')).toBe(0);
    first.open(null);
    await settled();
    second.open('song');
    await settled();
    expect(second.isReadOnly()).toBe(false);
  });

  it('all work where the browser has no locks', async () => {
    vi.stubGlobal('navigator', {});
    const [first, second] = await twoTabs();
    expect([first.isReadOnly(), second.isReadOnly()]).toEqual([false, false]);
    second.takeOver();
    expect(second.isReadOnly()).toBe(false);
  });
});
