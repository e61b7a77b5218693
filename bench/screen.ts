import { arrange, notesOf, stepsOf } from '@joined-hands/core';
import { chromium, type Page } from '@playwright/test';
import { gzipSync } from 'node:zlib';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { demo } from '../core/testing/songs.js';
import { listen } from '../server/src/listen.js';
import { makeApp } from '../server/src/app.js';
import { CHROMIUM } from '../e2e/chromium.js';
import { clicksOf, noteClicks, standInDevice } from '../e2e/app.js';
import { ms, type Row } from './table.js';

const root = fileURLToPath(new URL('..', import.meta.url));

async function rehearse(target: Page, port: number, title: string): Promise<void> {
  await target.goto(`http://127.0.0.1:${port}/shelf`);
  await target.getByRole('button', { name: `Open ${title}` }).click();
  await target.getByTestId('stack').first().waitFor();
  await target.getByRole('link', { name: 'Rehearse' }).click();
  await target.getByTestId('step').waitFor();
}

/** Edits before those that count: the browser compiles what is used again. */
const WARMING = 4;

/** A script and all that it imports before it runs. */
function withImports(folder: string, script: string, found = new Set<string>()): Set<string> {
  if (found.has(script)) return found;
  found.add(script);
  const text = readFileSync(join(folder, script), 'utf8');
  for (const [, name] of text.matchAll(/(?:from|import)"\.\/([\w-]+\.js)"/g)) withImports(folder, name, found);
  return found;
}

/** What is measured in the built application: sizes, first paint, an edit, a graded pass, a sheet; with `long` the click for five minutes. */
export async function onScreen(long: boolean): Promise<Row[]> {
  const rows: Row[] = [];
  const dist = join(root, 'web/dist/browser');
  const initial = withImports(dist, /src="(main[\w-]*\.js)"/.exec(readFileSync(join(dist, 'index.html'), 'utf8'))?.[1] ?? '');
  const weight = [...initial].reduce((sum, name) => sum + gzipSync(readFileSync(join(dist, name))).length, 0);
  rows.push({ what: 'initial script, compressed', measured: `${(weight / 1000).toFixed(0)} kB`, against: '500 kB' });
  const sizes = readdirSync(dist)
    .filter((name) => name.endsWith('.js'))
    .map((name) => gzipSync(readFileSync(join(dist, name))).length);
  rows.push({
    what: 'all scripts, compressed',
    measured: `${(sizes.reduce((x, y) => x + y, 0) / 1e6).toFixed(1)} MB`,
    against: `of it the engraver ${(Math.max(...sizes) / 1e6).toFixed(1)} MB, loaded with the first sheet`,
  });

  const { server, port } = await listen(makeApp(dist), 4620);
  const browser = await chromium.launch(CHROMIUM);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  // What compiles this script names functions by a helper that a page does not have.
  await context.addInitScript('globalThis.__name = (made) => made');
  const page = await context.newPage();
  const paints: number[] = [];
  for (let i = 0; i < 5; i++) {
    await page.goto(`http://127.0.0.1:${port}/shelf`);
    await page.getByTestId('song-card').first().waitFor();
    paints.push(await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0].startTime));
  }
  rows.push({ what: 'first paint, first visit', measured: `${paints[0].toFixed(0)} ms`, against: '1,500 ms' });

  await page.getByRole('button', { name: 'Open Harbour Glass' }).click();
  await page.getByTestId('stack').first().waitFor();
  // From the press that keeps another place for a chord to the frame that shows it, measured inside the page.
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
  rows.push({
    what: 'an edit on the desk, on screen',
    measured: `${edits
      .slice(WARMING)
      .sort((a, b) => a - b)[4]
      .toFixed(0)} ms`,
    against: '100 ms',
  });

  // A pass: from the last key on a connected keyboard to the frame that says how it went, measured inside the page.
  const device = await standInDevice(page);
  await rehearse(page, port, 'All Aboard for Nettle Point');
  await device.plugIn();
  await page.locator('summary[aria-label^=Keys]').click();
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
  rows.push({
    what: 'a graded pass, on screen after its last note',
    measured: `${graded.sort((a, b) => a - b)[4].toFixed(0)} ms`,
    against: '100 ms',
  });

  // The click over five minutes of a whole song, against an even beat by the audio clock. Five minutes is what it takes.
  if (long) {
    const still = await context.newPage();
    await noteClicks(still);
    await rehearse(still, port, 'Harbour Glass');
    await still.getByText('All steps').click();
    await still.getByRole('button', { name: 'plainly, from start to end' }).click();
    for (let i = 0; i < 5; i++) await still.getByRole('button', { name: 'Slower' }).click();
    const tempo = Number(await still.getByTestId('rehearse-tempo').locator('b').textContent());
    await still.getByTestId('start').click();
    await still.getByTestId('asking').waitFor({ timeout: 420_000 });
    const clicks = await clicksOf(still);
    const off = clicks.map((when, i) => Math.abs(when - clicks[0] - (i * 60) / tempo));
    const minutes = (clicks[clicks.length - 1] - clicks[0]) / 60;
    rows.push({
      what: `the click, farthest from its beat in ${minutes.toFixed(1)} minutes`,
      measured: `${(1000 * Math.max(...off)).toFixed(2)} ms`,
      against: '2 ms',
    });
  }
  // The engraver, for comparison: from the choice of the sheet to its last page, the engraver loaded already.
  const sheets: number[] = [];
  for (let i = 0; i < 4; i++) {
    await page.goto(`http://127.0.0.1:${port}/shelf`);
    await page.getByRole('button', { name: 'Open Harbour Glass' }).click();
    await page.getByTestId('stack').first().waitFor();
    await page.getByRole('link', { name: 'Sheet' }).click();
    const start = performance.now();
    await page.getByTestId('page').locator('svg').first().waitFor();
    sheets.push(performance.now() - start);
  }
  rows.push({
    what: 'the engraver, 32 bars, first sheet of a visit',
    measured: ms(sheets.sort((a, b) => a - b)[1]),
    against: 'arranging them: see above',
  });
  await browser.close();
  server.close();
  return rows;
}
