// Takes a whole lesson in Chromium, as long as it lasts, with a simulated player who answers: once waiting for every key, once in time.
// Then makes a film of all of it and opens that. Built application first; "npm run whole-lesson", and another folder that was built may follow.
import { chromium, type Browser, type Page } from '@playwright/test';
import { statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { arrange } from '@joined-hands/core/arrange';
import { lessonScript } from '@joined-hands/core/lesson';
import { demo } from '../core/testing/songs.js';
import { makeApp } from '../server/src/app.js';
import { listen } from '../server/src/listen.js';
import { CHROMIUM } from './chromium.js';

const TITLE = 'All Aboard for Nettle Point';
/** Milliseconds that a lesson may take. */
const LONGEST = 60 * 60_000;

const built = process.argv[2] ?? fileURLToPath(new URL('../web/dist/browser', import.meta.url));
const { server, port } = await listen(makeApp(built), 4750);
const arrangement = arrange(demo('all-aboard-for-nettle-point.musicxml'));
const script = lessonScript(arrangement, { first: 'right', by: 'words', joins: 'chain' });
const scenes = script.chapters.flatMap((c) => c.scenes);
const planned = script.chapters.reduce((sum, c) => sum + c.seconds, 0);
console.log(
  `${TITLE}: ${script.chapters.length} chapters, ${scenes.length} scenes, ${Math.round(planned / 60)} minutes as planned`,
);

const minutesSince = (start: number): string => ((Date.now() - start) / 60_000).toFixed(1);

async function openLesson(browser: Browser): Promise<{ page: Page; faults: string[] }> {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const faults: string[] = [];
  page.on('pageerror', (e) => faults.push(e.message));
  page.on('console', (m) => m.type() === 'error' && faults.push(m.text()));
  page.on('request', (r) => !/^(data|blob):/.test(r.url()) && !r.url().includes(`:${port}/`) && faults.push(r.url()));
  await page.goto(`http://127.0.0.1:${port}/shelf`);
  await page.getByRole('button', { name: `Open ${TITLE}` }).click();
  await page.waitForURL('**/desk/**');
  await page.goto(page.url().replace('/desk/', '/lesson/'));
  await page.getByTestId('caption').waitFor();
  return { page, faults };
}

/** Takes the lesson to its end, and says which captions there were. */
async function take(browser: Browser, waits: boolean): Promise<void> {
  const start = Date.now();
  const { page, faults } = await openLesson(browser);
  await page.getByRole('button', { name: /^How it teaches/ }).click();
  await page.getByRole('checkbox', { name: 'A simulated player takes your turns' }).check();
  await page.keyboard.press('Escape');
  if (waits) await page.getByRole('button', { name: 'Wait for me' }).click();
  await page.evaluate(() => {
    const said: string[] = [];
    Object.assign(window, { said });
    new MutationObserver(() => {
      const text = document.querySelector('[data-testid=caption]')?.textContent?.trim() ?? '';
      if (text && text !== said.at(-1)) said.push(text);
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
  });
  await page.getByTestId('start').click();
  await page.getByText('That was the whole lesson').waitFor({ timeout: LONGEST });
  const said = await page.evaluate(() => (window as unknown as { said: string[] }).said);
  const way = waits ? 'waiting for every key' : 'in time';
  console.log(`${way}: through in ${minutesSince(start)} minutes, ${said.length} captions, faults: ${JSON.stringify(faults)}`);
  await page.context().close();
}

/** Makes a film of the whole lesson and opens it. */
async function film(browser: Browser): Promise<void> {
  const start = Date.now();
  const { page, faults } = await openLesson(browser);
  await page.getByRole('button', { name: 'Take it along' }).click();
  const saving = page.waitForEvent('download', { timeout: LONGEST });
  await page.getByTestId('take-along').getByRole('button', { name: 'The whole lesson' }).first().click();
  const path = await (await saving).path();
  const made = minutesSince(start);
  const bytes = statSync(path).size;
  const screen = await page.context().newPage();
  await screen.goto(`file://${path}`);
  const seconds = await screen.locator('video').evaluate(async (video: HTMLVideoElement) => {
    if (!(video.duration > 0)) await new Promise((done) => video.addEventListener('durationchange', done, { once: true }));
    return video.duration;
  });
  console.log(
    `film: ${(seconds / 60).toFixed(1)} minutes, ${(bytes / 1e6).toFixed(1)} MB, made in ${made} minutes, faults: ${JSON.stringify(faults)}`,
  );
  await page.context().close();
}

const browser = await chromium.launch(CHROMIUM);
await Promise.all([take(browser, true), take(browser, false)]);
await film(browser);
await browser.close();
server.close();
