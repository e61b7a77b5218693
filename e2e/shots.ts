import { chromium, type Page } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { dropdown, goBeside, pick } from './app.js';
import { CHROMIUM } from './chromium.js';
import { listen } from '../server/src/listen.js';
import { makeApp } from '../server/src/app.js';

// Takes the pictures of docs/screenshots from demo data: npm run shots, after npm start has built the application.
const root = fileURLToPath(new URL('..', import.meta.url));
const folder = join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const { server, port } = await listen(makeApp(join(root, 'web', 'dist', 'browser')), 4700);
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
const shot = (name: string) => page.screenshot({ path: join(folder, `${name}.png`), animations: 'disabled' });

/** Names the notes in another way, by the finder. */
async function nameNotes(way: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(`note names ${way}`);
  await page.keyboard.press('Enter');
}

async function desk(target: Page, title: string, part: number, chord: number): Promise<void> {
  await target.goto(`http://127.0.0.1:${port}/shelf`);
  await target.getByRole('button', { name: `Open ${title}` }).click();
  await target.getByTestId('stack').first().waitFor();
  for (let i = 1; i < part; i++) await target.keyboard.press('ArrowDown');
  for (let i = 1; i < chord; i++) await target.keyboard.press('ArrowRight');
}

await page.goto(`http://127.0.0.1:${port}/shelf`);
await page.getByTestId('song-card').nth(2).waitFor();
await page.evaluate(() => document.fonts.ready);
await shot('shelf');

await page.getByRole('link', { name: 'Add a song' }).click();
await page.getByTestId('preview').waitFor();
await page.getByRole('button', { name: 'Choose a file' }).click();
await page.locator('input[type=file]').setInputFiles(join(root, 'e2e', 'quayside-band.musicxml'));
await page.getByTestId('questions').waitFor();
await page.getByRole('button', { name: /^Found in the file/ }).click();
await page.waitForFunction(
  () =>
    (document.querySelector('.found td')?.checkVisibility() ?? false) &&
    (document.querySelector('.found')?.clientHeight ?? 0) > 120,
);
await shot('intake-report');
await desk(page, 'Lamps Across the Sound', 2, 2);
await shot('desk-joined');
await page.keyboard.press('ArrowRight');
await nameNotes('german');
await page.getByRole('heading', { name: 'B major' }).waitFor();
// Why this finger, with notes in German.
await page.getByTestId('stone').nth(1).click();
await page.getByTestId('finger-prices').waitFor();
await shot('desk-finger');
await nameNotes('C D E');
await page.keyboard.press('3');
await dropdown(page, 'Difficulty').click();
await page.getByTestId('ease').first().waitFor();
await page.keyboard.press('Escape');
await page.getByRole('link', { name: 'First look' }).click();
await page.getByTestId('chord').first().waitFor();
await shot('first-look');
await page.getByRole('link', { name: 'Choose a key' }).click();
await page.getByTestId('key').first().waitFor();
await page.locator('.chart svg text').first().waitFor();
await shot('key');
await page.getByRole('link', { name: 'Sheet' }).click();
await page.getByRole('button', { name: 'Letters', exact: true }).click();
await page.locator('jh-paper article').waitFor();
await shot('sheet-letters');

// The dressed song: a plan, a texture with harmony and a fill, its own figure, a version beside it, the staff with all its signs.
await desk(page, 'Harbour Glass', 1, 1);
await goBeside(page, 'Versions');
await page.getByLabel('Name for the version').fill('Plain');
await page.getByRole('button', { name: 'Save a version' }).click();
await page.getByTestId('version').waitFor();
await page.getByRole('link', { name: 'Accompaniment' }).click();
await page.getByRole('button', { name: 'Suggest one for every part' }).click();
await page.getByRole('button', { name: 'Louder each time it returns' }).click();
await page.getByRole('button', { name: 'First and second endings' }).click();
await pick(page, 'Loudness of part 1', 'p');
await pick(page, 'Texture of part 6', 'freely, in your own way');
await page.getByText('for instance').waitFor();
await shot('accompaniment');
await page.getByRole('link', { name: 'Desk', exact: true }).click();
await page.getByTestId('stack').first().waitFor();
await page.keyboard.press('4');
await dropdown(page, 'Texture').click();
await page.getByTestId('texture').filter({ hasText: 'bass, then chord' }).click();
await page.getByRole('button', { name: 'half', exact: true }).click();
await page.getByRole('button', { name: 'Whole song' }).click();
await page.getByText('changed with every chord').click();
await page.keyboard.press('Escape');
await dropdown(page, 'Sound').click();
await page.getByRole('button', { name: 'louder, then softer' }).click();
await page.getByRole('button', { name: 'rolled' }).click();
await page.keyboard.press('Escape');
await page.getByTestId('room').first().click();
const broken = page.getByTestId('fill').filter({ hasText: 'broken chord' });
await broken.click();
await broken.click();
await page.getByTestId('pebble').first().waitFor();
await page.getByRole('button', { name: 'Only here' }).click();
await page.getByRole('button', { name: 'Stop (space)' }).click();
await page.locator('jh-keyboard rect.sounding').first().waitFor({ state: 'detached' });
await page.getByRole('button', { name: 'Evening theme' }).click();
await page.locator('html[data-theme=evening]').waitFor();
await page.context().setOffline(true);
await page.getByText('offline').waitFor();
await nameNotes('do re mi');
await shot('desk-evening-offline');
await nameNotes('C D E');
await page.context().setOffline(false);
await page.getByRole('button', { name: 'Day theme' }).click();
await page.getByRole('link', { name: 'Sheet' }).click();
await page.getByTestId('page').first().waitFor({ timeout: 60_000 });
await shot('sheet-staff');
// The lesson of a part with its pattern, count by count.
await page.getByRole('button', { name: 'Lesson', exact: true }).click();
await page.getByTestId('pattern').first().scrollIntoViewIfNeeded();
await page.mouse.move(640, 500);
await page.mouse.wheel(0, 220);
await page.getByTestId('pattern').nth(1).waitFor();
await shot('sheet-lesson');
await goBeside(page, 'Versions');
await page.getByTestId('bar').first().waitFor();
await page.getByRole('button', { name: /^Saved automatically/ }).click();
await shot('versions');
await page.getByRole('button', { name: 'Go back to Plain' }).click();

await desk(page, 'Lamps Across the Sound', 3, 4);
await page.getByTestId('fix').first().waitFor();
await pick(page, 'Hand', 'child hand');
await goBeside(page, 'Hands');
await page.getByTestId('misfit').first().waitFor();
await page.getByRole('button', { name: 'Measure' }).first().click();
await page.locator('jh-keyboard rect[data-midi="48"]').click();
await page.locator('jh-keyboard rect.sounding').first().waitFor({ state: 'detached' });
await shot('hands');
await page.getByRole('link', { name: 'Desk', exact: true }).click();
await page.getByTestId('stack').first().waitFor();
await page.keyboard.press('Control+z');

// At the piano: the step at hand, a pass of the stand-in with its slips, the log, a drill.
await desk(page, 'Harbour Glass', 1, 1);
await page.getByRole('link', { name: 'Rehearse' }).click();
await page.getByTestId('step').filter({ hasText: 'together' }).waitFor();
await shot('rehearse');
await page.getByTestId('all-steps').waitFor({ state: 'attached' });
await dropdown(page, 'Keys').click();
await page.getByRole('button', { name: 'Many slips' }).click();
await page.getByRole('button', { name: 'Let it play' }).click();
await page.getByTestId('result').waitFor({ timeout: 60_000 });
await page.locator('jh-keyboard rect.sounding').first().waitFor({ state: 'detached' });
await shot('rehearse-result');
await goBeside(page, 'Log');
await page.getByTestId('chart').last().locator('svg text').first().waitFor();
await shot('log');
await page.getByRole('link', { name: 'Drills' }).click();
await page.getByRole('button', { name: 'Cadences' }).click();
await page.getByRole('button', { name: 'Start (space)' }).click();
await page.locator('jh-keyboard circle.left').first().waitFor();
await shot('drill');

// On a phone: upright, and turned at the piano.
const phone = await (
  await browser.newContext({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce', hasTouch: true })
).newPage();
await desk(phone, 'Lamps Across the Sound', 2, 2);
await phone.evaluate(() => document.fonts.ready);
await phone.screenshot({ path: join(folder, 'phone-desk.png'), animations: 'disabled' });
await phone.setViewportSize({ width: 844, height: 390 });
await phone.getByRole('button', { name: 'Go to: Desk' }).click();
await phone.getByRole('menuitem', { name: 'Rehearse' }).click();
await phone.getByTestId('step').waitFor();
await phone.screenshot({ path: join(folder, 'phone-rehearse-turned.png'), animations: 'disabled' });
await browser.close();
server.close();
