import { chromium, type Browser, type Page } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { goBeside, pick } from './app.js';
import { CHROMIUM } from './chromium.js';
import { tiled } from './tiled.js';

const TITLE = 'Lamps Across the Sound';

/** Opens the lesson of a demo song and goes to a scene. */
async function lesson(page: Page, address: string, chapter: string, scenes: number): Promise<void> {
  await page.goto(`${address}/shelf`);
  await page.getByRole('button', { name: `Open ${TITLE}` }).click();
  await page.waitForURL('**/desk/**');
  await page.goto(page.url().replace('/desk/', '/lesson/'));
  await page.getByTestId('caption').waitFor();
  await pick(page, 'Chapter', chapter);
  for (let i = 0; i < scenes; i++) await page.getByTestId('go-on').click();
}

/** Something is shown to be played: a place is marked on the strip, or a key sounds. */
const marked = (page: Page) => page.locator('.stone.on, .stack.on, jh-keyboard rect.sounding').first().waitFor();

/** The lesson on a tablet and on a phone both ways, the page that is taken along, a song that is passed on, and what the pupil sees of it. */
export async function lessonPictures(address: string): Promise<Buffer[]> {
  const browser = await chromium.launch(CHROMIUM);
  const seen = (page: Page) => page.screenshot({ animations: 'disabled' });
  const open = (width: number, height: number) => newPage(browser, width, height);
  const wide = await open(1280, 800);
  await lesson(wide, address, 'Part 1', 2);
  await marked(wide);
  const chords = await seen(wide);
  await wide.getByTestId('start').click();
  await wide.getByRole('button', { name: 'Take it along' }).click();
  const saving = wide.waitForEvent('download');
  await wide.getByRole('button', { name: 'Save as a page' }).click();
  const path = join(mkdtempSync(join(tmpdir(), 'lesson-')), 'lesson.html');
  await (await saving).saveAs(path);
  const taken = await open(1280, 800);
  await taken.goto(pathToFileURL(path).href);
  await taken.getByRole('button', { name: 'Parts 1 and 2' }).click();
  await taken.locator('#keyboard .sounding').first().waitFor();
  const page = await seen(taken);
  // Three moments on a phone: a note is named, the hands meet, parts are played one after another.
  const moments = [
    ['Part 2', 1],
    ['Part 1', 4],
    ['Parts 1 and 2', 0],
  ] as const;
  const phone: Buffer[] = [];
  for (const [[width, height], across] of [
    [[390, 844], 240],
    [[844, 390], 640],
  ] as const) {
    const shown: Buffer[] = [];
    for (const [chapter, scenes] of moments) {
      const small = await open(width, height);
      await lesson(small, address, chapter, scenes);
      await marked(small);
      shown.push(await seen(small));
      await small.context().close();
    }
    phone.push(await tiled(browser, shown, across, width < height ? 3 : 1));
  }
  await wide.keyboard.press('Escape');
  await goBeside(wide, 'Pass it on');
  await wide.getByTestId('code').waitFor();
  await wide.getByRole('button', { name: 'Add a part to practise' }).click();
  await wide.getByLabel('A note to go with it').fill('Slowly, and count aloud.');
  const link = await wide.getByTestId('link').inputValue();
  const sent = await seen(wide);
  const pupil = await open(1280, 800);
  await pupil.goto(link);
  await pupil.getByTestId('stone').first().waitFor();
  const received = await seen(pupil);
  await browser.close();
  return [chords, page, ...phone, sent, received];
}

async function newPage(browser: Browser, width: number, height: number): Promise<Page> {
  const context = await browser.newContext({ viewport: { width, height }, reducedMotion: 'reduce' });
  return context.newPage();
}
