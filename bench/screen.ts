import { arrange } from '@joined-hands/core/arrange';
import { notesOf, stepsOf } from '@joined-hands/core/practice';
import { chromium, type Page } from '@playwright/test';
import { gzipSync } from 'node:zlib';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { demo } from '../core/testing/songs.js';
import { firstScript, withImports } from '../scripts/first-script.mjs';
import { listen } from '../server/src/listen.js';
import { makeApp } from '../server/src/app.js';
import { CHROMIUM } from '../e2e/chromium.js';
import { clicksOf, dropdown, noteClicks, standInDevice } from '../e2e/app.js';
import { atScale } from './scale.js';
import { throughMicrophone } from './microphone.js';
import { middle, ms, type Row } from './table.js';

const root = fileURLToPath(new URL('..', import.meta.url));

async function rehearse(target: Page, home: string, title: string): Promise<void> {
  await target.goto(`${home}/shelf`);
  await target.getByRole('button', { name: `Open ${title}` }).click();
  await target.getByTestId('stack').first().waitFor();
  await target.getByRole('link', { name: 'Rehearse' }).click();
  await target.getByTestId('step').waitFor();
}

/** Edits before those that count: the browser compiles what is used again. */
const WARMING = 4;

const sizeOf = (path: string): number => gzipSync(readFileSync(path)).length;

const kB = (bytes: number): string => `${(bytes / 1000).toFixed(0)} kB`;

function sizes(dist: string): Row[] {
  const all = readdirSync(dist)
    .filter((name) => name.endsWith('.js'))
    .map((name) => sizeOf(join(dist, name)));
  const weight = (names: Iterable<string>) => [...names].reduce((sum, name) => sum + sizeOf(join(dist, name)), 0);
  // Only the ear has this question among those that it answers.
  const ear = readdirSync(dist).find(
    (name) => /^worker-.*\.js$/.test(name) && readFileSync(join(dist, name), 'utf8').includes('freeLine'),
  );
  const model = readdirSync(join(dist, 'models', 'notes')).map((name) => join('models', 'notes', name));
  const engraver = `of it the engraver ${(Math.max(...all) / 1e6).toFixed(1)} MB, loaded with the first sheet`;
  return [
    { what: 'initial script, compressed as it is sent', measured: kB(firstScript(dist)), against: '260 kB' },
    {
      what: 'the ear, with what it loads, compressed',
      measured: kB(weight(ear ? withImports(dist, ear) : [])),
      against: '30 kB',
    },
    { what: 'the model that hears notes in recordings, compressed', measured: kB(weight(model)), against: '1,000 kB' },
    { what: 'all scripts, compressed', measured: `${(all.reduce((x, y) => x + y, 0) / 1e6).toFixed(1)} MB`, against: engraver },
  ];
}

async function firstPaint(page: Page, home: string): Promise<Row> {
  await page.goto(`${home}/shelf`);
  await page.getByTestId('song-card').first().waitFor();
  const paint = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0].startTime);
  return { what: 'first paint, first visit', measured: `${paint.toFixed(0)} ms`, against: '1,500 ms' };
}

/** From the press that keeps another place for a chord to the frame that shows it, measured inside the page. */
async function edit(page: Page): Promise<Row> {
  await page.getByRole('button', { name: 'Open Harbour Glass' }).click();
  await page.getByTestId('stack').first().waitFor();
  const edits: number[] = [];
  for (let i = 0; i < WARMING + 9; i++) {
    await page
      .getByTestId('alternative')
      .nth(i % 2)
      .click();
    edits.push(
      await page.evaluate(async (n) => {
        const stack = document.querySelector('[data-testid=stack]');
        const before = stack?.getAttribute('aria-label');
        const start = performance.now();
        document.querySelectorAll<HTMLElement>('[data-testid=alternative]')[n].click();
        while (document.querySelector('[data-testid=stack]')?.getAttribute('aria-label') === before)
          await new Promise(requestAnimationFrame);
        return performance.now() - start;
      }, i % 2),
    );
  }
  return {
    what: 'an edit on the desk, on screen',
    measured: `${middle(edits.slice(WARMING)).toFixed(0)} ms`,
    against: '100 ms',
  };
}

/** A pass: from the last key on a connected keyboard to the frame that says how it went, measured inside the page. */
async function pass(page: Page, home: string): Promise<Row> {
  const device = await standInDevice(page);
  await rehearse(page, home, 'All Aboard for Nettle Point');
  await device.plugIn();
  await dropdown(page, 'Keys').click();
  await page.getByRole('button', { name: 'Connect a keyboard' }).click();
  await page.getByText('Stand-in keys', { exact: true }).waitFor();
  await page.keyboard.press('Escape');
  const played = arrange(demo('all-aboard-for-nettle-point.musicxml'));
  const [first] = stepsOf(played, { order: 'song', joins: 'chain' });
  const midis = notesOf(played, first).map((n) => n.midi);
  const graded: number[] = [];
  for (let i = 0; i < 9; i++) {
    await page.getByTestId('start').click();
    await page.getByTestId('playhead').waitFor({ state: 'attached' });
    graded.push(
      await page.evaluate(async (keys) => {
        const { sendMidi } = window as unknown as { sendMidi(message: number[]): void };
        for (const midi of keys.slice(0, -1)) sendMidi([0x90, midi, 80]);
        await new Promise(requestAnimationFrame);
        const start = performance.now();
        sendMidi([0x90, keys[keys.length - 1], 80]);
        while (!document.querySelector('[data-testid=result]')) await new Promise(requestAnimationFrame);
        return performance.now() - start;
      }, midis),
    );
  }
  return {
    what: 'a graded pass, on screen after its last note',
    measured: `${middle(graded).toFixed(0)} ms`,
    against: '100 ms',
  };
}

/** The click over five minutes of a whole song, against an even beat by the audio clock. Five minutes is what it takes. */
async function click(page: Page, home: string): Promise<Row> {
  await noteClicks(page);
  await rehearse(page, home, 'Harbour Glass');
  await page.getByText('All steps').click();
  await page.getByRole('button', { name: 'plainly, from start to end' }).click();
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'Slower' }).click();
  const tempo = Number(await page.getByTestId('rehearse-tempo').locator('b').textContent());
  await page.getByTestId('start').click();
  await page.getByTestId('asking').waitFor({ timeout: 420_000 });
  const clicks = await clicksOf(page);
  const off = clicks.map((when, i) => Math.abs(when - clicks[0] - (i * 60) / tempo));
  const minutes = (clicks[clicks.length - 1] - clicks[0]) / 60;
  return {
    what: `the click, farthest from its beat in ${minutes.toFixed(1)} minutes`,
    measured: `${(1000 * Math.max(...off)).toFixed(2)} ms`,
    against: '2 ms',
  };
}

/** Two hundred bars with a chord or two in each. */
const LONG = (() => {
  const line = (bars: readonly string[]) => Array.from({ length: 200 }, (_, i) => bars[i % bars.length]).join(' | ');
  const tune = line(['C4 E G E', 'A4 G F E', 'D4 E F G', 'E4 - C -']);
  return `title: Long Crossing\nkey: C major\ntime: 4/4\ntune: ${tune}\nchord: ${line(['C - G7 -', 'F - C -', 'G7 - - -', 'C - - -'])}\n`;
})();

/** Milliseconds from the choice of the sheet to its first page; then back to the desk. */
async function firstPage(page: Page): Promise<number> {
  await page.getByRole('link', { name: 'Sheet' }).click();
  const start = performance.now();
  await page.getByTestId('page').locator('svg').first().waitFor();
  const taken = performance.now() - start;
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await page.getByTestId('stack').first().waitFor();
  return taken;
}

/** The engraver: the first sheet of a visit, and those after it, short and long. */
async function engraver(page: Page, home: string): Promise<Row[]> {
  const visits: number[] = [];
  for (let i = 0; i < 5; i++) {
    await page.goto(`${home}/shelf`);
    await page.getByRole('button', { name: 'Open Harbour Glass' }).click();
    await page.getByTestId('stack').first().waitFor();
    visits.push(await firstPage(page));
  }
  const several = async (): Promise<number> => {
    const sheets: number[] = [];
    for (let i = 0; i < 5; i++) sheets.push(await firstPage(page));
    return middle(sheets);
  };
  const warm = await several();
  await page.goto(`${home}/intake`);
  await page.getByLabel('Letter lines').fill(LONG);
  await page.getByTestId('keep').click();
  await page.getByTestId('stack').first().waitFor();
  await firstPage(page);
  return [
    { what: 'the engraver, 32 bars, first sheet of a visit', measured: ms(middle(visits)), against: 'it loads with it' },
    { what: 'the first page of a sheet of 32 bars, warm', measured: ms(warm), against: '700 ms' },
    { what: 'the first page of a sheet of 200 bars, warm', measured: ms(await several()), against: '1500 ms' },
  ];
}

/** What is measured in the built application: sizes, first paint, an edit, a graded pass, a sheet; with `long` the click for five minutes. */
export async function onScreen(long: boolean): Promise<Row[]> {
  const dist = join(root, 'web/dist/browser');
  const { server, port } = await listen(makeApp(dist), 4620);
  const home = `http://127.0.0.1:${port}`;
  const browser = await chromium.launch(CHROMIUM);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  // What compiles this script names functions by a helper that a page does not have.
  await context.addInitScript('globalThis.__name = (made) => made');
  const page = await context.newPage();
  const rows = [...sizes(dist), await firstPaint(page, home), await edit(page), await pass(page, home)];
  if (long) rows.push(await click(await context.newPage(), home));
  rows.push(...(await engraver(page, home)));
  rows.push(
    ...(await atScale(async () => (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage(), home)),
  );
  await browser.close();
  rows.push(...(await throughMicrophone(home)));
  server.close();
  return rows;
}
