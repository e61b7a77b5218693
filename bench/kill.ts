// Ends the whole browser in the moment after an edit was seen, again and again, and looks whether it is there: tsx bench/kill.ts [times].
import { chromium, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CHROMIUM } from '../e2e/chromium.js';
import { listen } from '../server/src/listen.js';
import { makeApp } from '../server/src/app.js';

const times = Number(process.argv[2] ?? 30);
const folder = mkdtempSync(join(tmpdir(), 'killed-'));
const { server, port } = await listen(makeApp(fileURLToPath(new URL('../web/dist/browser', import.meta.url))), 4680);
const home = `http://127.0.0.1:${port}`;

const open = () => chromium.launchPersistentContext(folder, { ...CHROMIUM, viewport: { width: 1280, height: 800 } });
const desk = async (page: Page): Promise<void> => {
  await page.goto(`${home}/shelf`);
  await page.getByRole('button', { name: 'Open Harbour Glass' }).click();
  await page.getByTestId('stack').first().waitFor();
};
/** What the first chord of the song is, as the panel names it. */
const seen = (page: Page) => page.getByLabel('Chord symbol').inputValue();

let lost = 0;
for (let i = 0; i < times; i++) {
  const symbol = ['Gm9', 'Dm9', 'Am7', 'C7', 'Bbmaj7'][i % 5];
  const context = await open();
  const page = context.pages()[0] ?? (await context.newPage());
  await desk(page);
  const before = await page.getByTestId('stack').first().getAttribute('aria-label');
  await page.getByLabel('Chord symbol').fill(symbol);
  await page.keyboard.press('Enter');
  await page.waitForFunction(
    (label) => document.querySelector('[data-testid=stack]')?.getAttribute('aria-label') !== label,
    before,
  );
  // Every process of this browser, at once.
  execFileSync('pkill', ['-9', '-f', `user-data-dir=${folder}`]);
  await context.close().catch(() => undefined);
  const after = await open();
  const again = after.pages()[0] ?? (await after.newPage());
  await desk(again);
  const found = await seen(again);
  if (found !== symbol) lost++;
  console.log(`${i + 1}: ${symbol} ${found === symbol ? 'is there' : `is lost, ${found} is there`}`);
  await after.close();
}
server.close();
rmSync(folder, { recursive: true, force: true });
console.log(`${times} times ended after an edit that was seen: ${lost} lost`);
process.exitCode = lost === 0 ? 0 : 1;
