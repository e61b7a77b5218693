import { arrange } from '@joined-hands/core/arrange';
import { dayOf } from '@joined-hands/core/log';
import { simulateLog } from '@joined-hands/core/practice';
import { newDocument, type Document } from '@joined-hands/core/song';
import type { Page } from '@playwright/test';
import { demo } from '../core/testing/songs.js';
import { ofBars } from './arranging.js';
import { middle, type Row } from './table.js';

/** Puts records into the browser's storage, many at a time. */
async function putAll(page: Page, store: string, records: readonly unknown[]): Promise<void> {
  for (let i = 0; i < records.length; i += 2000)
    await page.evaluate(
      ([name, some]) =>
        new Promise<void>((resolve, reject) => {
          const request = indexedDB.open('joined-hands');
          request.onsuccess = () => {
            const change = request.result.transaction(name, 'readwrite');
            for (const record of some) change.objectStore(name).put(record);
            change.oncomplete = () => (request.result.close(), resolve());
            change.onerror = () => reject(change.error);
          };
        }),
      [store, records.slice(i, i + 2000)] as const,
    );
}

const stored = (id: string, createdAt: number, document: Document) => ({
  id,
  createdAt,
  updatedAt: createdAt,
  demo: false,
  document,
});

/** Milliseconds from the start of a navigation until something is on screen, and the nodes of the page then. */
async function shown(page: Page, address: string, what: string): Promise<{ time: number; nodes: number }> {
  await page.goto(address);
  return page.evaluate(async (selector) => {
    while (!document.querySelector(selector)) {
      if (performance.now() > 60_000) throw new Error(`${selector} does not come.`);
      await new Promise(requestAnimationFrame);
    }
    return { time: performance.now(), nodes: document.querySelectorAll('*').length };
  }, what);
}

/** A shelf of a thousand songs: opened for the first time, and again. */
async function bigShelf(page: Page, home: string): Promise<Row[]> {
  await page.goto(`${home}/shelf`);
  await page.getByTestId('song-card').first().waitFor();
  const songs = ['harbour-glass.abc', 'lamps-across-the-sound.letters', 'all-aboard-for-nettle-point.musicxml'].map((name) =>
    demo(name),
  );
  const records = Array.from({ length: 1000 }, (_, i) => {
    const { song, ...rest } = songs[i % 3];
    return stored(`many-${i}`, 1000 + i, { ...rest, song: { ...song, title: `${song.title} ${i}` } });
  });
  await putAll(page, 'songs', records);
  const first = await shown(page, `${home}/shelf`, '[data-testid=song-card]');
  // Every card is made before the shelf is opened again.
  await page.waitForFunction(
    () =>
      new Promise<boolean>((resolve) => {
        const request = indexedDB.open('joined-hands');
        request.onsuccess = () => {
          const count = request.result.transaction('cards').objectStore('cards').count();
          count.onsuccess = () => (request.result.close(), resolve(count.result >= 1003));
        };
      }),
    undefined,
    { timeout: 120_000, polling: 500 },
  );
  const again = [];
  for (let i = 0; i < 5; i++) again.push(await shown(page, `${home}/shelf`, '[data-testid=song-card]'));
  const nodes = Math.max(first.nodes, ...again.map((a) => a.nodes));
  return [
    { what: 'a shelf of 1,000 songs, on screen, the first time', measured: `${first.time.toFixed(0)} ms`, against: '1,000 ms' },
    {
      what: 'a shelf of 1,000 songs, on screen, later',
      measured: `${middle(again.map((a) => a.time)).toFixed(0)} ms`,
      against: '1,000 ms',
    },
    { what: 'nodes of its page', measured: `${nodes}`, against: '3,000' },
  ];
}

/** An edit in a song of a thousand bars: until it is on screen, and how long the page itself is busy with it. */
async function longSong(page: Page, home: string): Promise<Row[]> {
  await page.goto(`${home}/shelf`);
  await page.getByTestId('song-card').first().waitFor();
  await putAll(page, 'songs', [stored('long', 1, newDocument(ofBars(1024).song))]);
  await page.goto(`${home}/desk/long`);
  await page.getByTestId('stack').first().waitFor();
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  /** Milliseconds of script, style and layout so far. */
  const busy = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    const spent = ['ScriptDuration', 'RecalcStyleDuration', 'LayoutDuration'];
    return 1000 * metrics.reduce((sum, m) => sum + (spent.includes(m.name) ? m.value : 0), 0);
  };
  const [edits, works]: [number[], number[]] = [[], []];
  for (let i = 0; i < 14; i++) {
    // Heard once, it is kept by the next press, which is measured when it is silent again.
    await page
      .getByTestId('alternative')
      .nth(i % 2)
      .click();
    await page.waitForTimeout(2000);
    const before = await busy();
    const took = await page.evaluate(async (n) => {
      const stack = document.querySelector('[data-testid=stack]');
      const label = stack?.getAttribute('aria-label');
      const start = performance.now();
      document.querySelectorAll<HTMLElement>('[data-testid=alternative]')[n].click();
      while (document.querySelector('[data-testid=stack]')?.getAttribute('aria-label') === label)
        await new Promise((next) => setTimeout(next, 4));
      return performance.now() - start;
    }, i % 2);
    edits.push(took);
    works.push((await busy()) - before);
  }
  return [
    { what: 'an edit in 1,024 bars, on screen', measured: `${middle(edits.slice(4)).toFixed(0)} ms`, against: '150 ms' },
    { what: 'of it script, style and layout on the page', measured: `${middle(works.slice(4)).toFixed(0)} ms`, against: '50 ms' },
  ];
}

/** A log of fifty thousand passes. */
async function longLog(page: Page, home: string): Promise<Row[]> {
  await page.goto(`${home}/log`);
  await page.locator('h1').waitFor();
  const made = simulateLog(arrange(demo('harbour-glass.abc')), 'song', {
    ago: [12, 9, 6, 3, 1],
    minutes: 30,
    warmUp: 'Warm-up',
    seed: 1,
    today: new Date(),
  });
  const now = Date.now();
  const passes = Array.from({ length: 50_000 }, (_, i) => {
    const at = now - (50_000 - i) * 600_000;
    return { ...made[i % made.length], id: `long-${i}`, song: `song-${i % 40}`, at, day: dayOf(new Date(at)), player: 'first' };
  });
  await putAll(page, 'passes', passes);
  const times = [];
  for (let i = 0; i < 5; i++) times.push((await shown(page, `${home}/log`, '[data-testid=pass]')).time);
  return [{ what: 'a log of 50,000 passes, on screen', measured: `${middle(times).toFixed(0)} ms`, against: '1,000 ms' }];
}

/** What years of work weigh: many songs, a long one, a long log; each in a browser of its own. */
export async function atScale(open: () => Promise<Page>, home: string): Promise<Row[]> {
  const rows: Row[] = [];
  for (const measure of [bigShelf, longSong, longLog]) {
    const page = await open();
    rows.push(...(await measure(page, home)));
    await page.context().close();
  }
  return rows;
}
