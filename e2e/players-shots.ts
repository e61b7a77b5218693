import { chromium } from '@playwright/test';
import { addPlayer, choose } from './app.js';
import { CHROMIUM } from './chromium.js';

/** A class: who plays, what a song becomes for each, what is known of a player, everyone's sheets, and the desk as a pupil has it. */
export async function playersPictures(address: string): Promise<Buffer[]> {
  const browser = await chromium.launch(CHROMIUM);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
  const page = await context.newPage();
  const seen = () => page.screenshot({ animations: 'disabled' });
  await page.goto(`${address}/shelf`);
  await page.getByRole('button', { name: 'Open All Aboard for Nettle Point' }).click();
  await page.getByTestId('stack').first().waitFor();
  await choose(page, 'More screens', 'Players');
  await page.getByRole('button', { name: 'Change Me' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Mara');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await addPlayer(page, 'Ines', { Hand: 'child hand', Keyboard: '49 keys', 'Left hand at most': 'two-note chords' });
  await addPlayer(page, 'Tove', { Hand: 'small hand', 'Notes are called': 'do re mi', 'Left hand at most': 'bass notes' });
  await addPlayer(page, 'Jonas', { Hand: 'large hand' });
  const versions = page.getByTestId('version-for');
  await versions.nth(3).locator('li').first().waitFor();
  const everyone = await seen();
  await page.getByRole('button', { name: 'Change Tove' }).click();
  const facts = await seen();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'See it as Tove' }).click();
  await page.getByTestId('stack').first().waitFor();
  const desk = await seen();
  await choose(page, 'More screens', 'Players');
  await page.getByRole('link', { name: 'Print everyone’s sheets' }).click();
  await page.getByRole('group', { name: 'Kind of sheet' }).getByRole('button', { name: 'Letters' }).click();
  const own = page.getByTestId('paper-for').nth(2);
  await own.waitFor();
  await own.evaluate((paper: HTMLElement) => paper.scrollIntoView({ block: 'start' }));
  await page.mouse.move(640, 500);
  await page.mouse.wheel(0, -160);
  await page.getByTestId('paper-for').nth(3).waitFor();
  const sheets = await seen();
  await browser.close();
  return [everyone, facts, desk, sheets];
}
