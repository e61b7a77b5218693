import type { Page } from '@playwright/test';
import { choose, dropdown, expect, goBeside, find, openShelf, openSong, parts, stacks, test } from './app.js';

test.use({ serviceWorkers: 'allow' });

/** Waits until the browser keeps all of the application and the piano, opens it from there, and cuts the network. */
async function cutNetwork(page: Page): Promise<void> {
  await openShelf(page);
  // Ready means active; the files are there when the last sound of the piano is.
  const kept = () =>
    page.evaluate(async () => {
      const registration = await navigator.serviceWorker.ready;
      return registration.active !== null && (await caches.match('/samples/piano/C8.mp3')) !== undefined;
    });
  await expect.poll(kept, { intervals: [500], timeout: 180_000 }).toBe(true);
  await page.reload();
  await expect(page.getByTestId('song-card').first()).toBeVisible();
  await page.context().setOffline(true);
  await page.reload();
}

test('with the network cut a tune is typed, divided, voiced, heard, filled, practised, logged and engraved', async ({ page }) => {
  await cutNetwork(page);
  await page.getByRole('link', { name: 'Add a song' }).click();
  await page
    .getByLabel('Letter lines')
    .fill('title: Two Buoys\ntime: 2/4\ntempo: 120\n\ntune : E4 G | A G | F E | D - | E4 G | A G | F D | C - |');
  await expect(page.getByTestId('preview')).toContainText('Two Buoys');
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('song-title')).toHaveText('Two Buoys');
  await expect(parts(page).first()).toBeVisible();
  await expect(stacks(page).first()).toBeVisible();
  const take = async (name: string) => {
    await find(page, name);
    await expect(page.locator('[role=dialog] [aria-selected=true]')).toContainText(name);
    await page.keyboard.press('Enter');
  };
  await take('Left hand: root position');
  await expect(page.getByRole('button', { name: 'Undo: root position' })).toBeVisible();
  await take('With fills');
  await take('Texture: alternating bass');
  await expect(page.getByRole('button', { name: 'Undo: alternating bass' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByTestId('playhead')).toHaveCount(1);
  await page.keyboard.press('Space');

  await take('Go to: Rehearse');
  await dropdown(page, 'Keys').click();
  await page.getByRole('button', { name: 'Clean', exact: true }).click();
  await page.getByRole('button', { name: 'Let it play' }).click();
  await expect(page.getByTestId('result')).toContainText('Clean', { timeout: 90_000 });
  await goBeside(page, 'Log');
  await expect(page.getByTestId('pass').first()).toContainText('right hand alone');

  await page.goBack();
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(page.getByTestId('page').locator('svg').first()).toBeVisible({ timeout: 90_000 });
  const saved = page.waitForEvent('download');
  await choose(page, 'Save', 'MusicXML');
  expect((await saved).suggestedFilename()).toBe('two-buoys.musicxml');
});

test('a newer program is told of, and waits until it is asked for', async ({ page, context }) => {
  await openShelf(page);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await openSong(page, 'Harbour Glass');
  await context.route('**/ngsw.json*', async (route) => {
    const plan = (await (await route.fetch()).json()) as { timestamp: number };
    await route.fulfill({ json: { ...plan, timestamp: plan.timestamp + 1 } });
  });
  await page.reload();
  await expect(page.getByText('A newer Joined Hands is ready.')).toBeVisible();
  await expect(stacks(page).first()).toBeVisible();
  await page.getByRole('button', { name: 'Use it now' }).click();
  await expect(page.getByText('A newer Joined Hands is ready.')).toHaveCount(0);
  await expect(stacks(page).first()).toBeVisible();
});
