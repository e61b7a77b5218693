import type { Page } from '@playwright/test';
import { expect, openSong, parts, soundingAfter, stacks, test } from './app.js';

const pop = (page: Page, label: string) => page.locator(`summary[aria-label^='${label}:']`);
const attacks = (page: Page) => page.getByTestId('attack');

test('a texture dresses the chords once they hold, for a part or the song, and the plain ones stay', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: 'With fills' }).click();
  await expect(attacks(page)).toHaveCount(0);
  await pop(page, 'Texture').click();
  await page.getByTestId('texture').filter({ hasText: 'bass, chord, chord' }).click();
  await expect(attacks(page)).toHaveCount(7);
  await expect(pop(page, 'Texture')).toContainText('bass, chord, chord');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Joined', exact: true }).click();
  await expect(attacks(page)).toHaveCount(0);
  await expect(stacks(page)).toHaveCount(4);
  await page.getByRole('button', { name: 'Count in' }).click();
  const plain = await soundingAfter(page, () => page.keyboard.press('Space'), 3);
  expect(plain.length).toBeGreaterThanOrEqual(3);
  await page.keyboard.press('Space');

  await page.getByRole('button', { name: 'With fills' }).click();
  await page.getByRole('button', { name: 'Undo: bass, chord, chord' }).click();
  await expect(attacks(page)).toHaveCount(0);
});

test('a plan gives every part a texture, and says how it bends', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('button', { name: 'With fills' }).click();
  await pop(page, 'Texture').click();
  await page.getByRole('button', { name: 'A plan for every part' }).click();
  await expect(attacks(page).first()).toBeVisible();
  await page.getByRole('button', { name: 'Whole song' }).click();
  await page.getByTestId('texture').filter({ hasText: 'rolling over two octaves' }).click();
  await expect(page.getByTestId('bend').first()).toContainText(/under the tune|left out|octave/);
  await page.keyboard.press('Escape');
  for (const part of [2, 5, 8]) {
    await parts(page)
      .nth(part - 1)
      .getByRole('button')
      .first()
      .click();
    await expect(attacks(page).first()).toBeVisible();
  }
});

test('harmony hangs under the tune in the measure that is asked for', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('button', { name: 'With fills' }).click();
  await pop(page, 'Texture').click();
  await page.getByRole('button', { name: 'half', exact: true }).click();
  const under = page.locator('jh-join-strip .under');
  await expect(under).toHaveCount(5);
  await page.getByRole('button', { name: 'a quarter' }).click();
  await expect(under).toHaveCount(2);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Joined', exact: true }).click();
  await expect(under).toHaveCount(0);
});
