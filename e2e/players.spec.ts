import type { Page } from '@playwright/test';
import { writeParcel } from '@joined-hands/core/passing';
import { addPlayer, barriersOn, choose, expect, openSong, parts, pick, test } from './app.js';

test.use({ viewport: { width: 1280, height: 800 } });

const place = (page: Page, name: string) => page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name });

/** Three players around the open song: the first one, a child and a first-year pupil who reads do re mi. */
async function withClass(page: Page): Promise<void> {
  await openSong(page, 'Harbour Glass');
  await choose(page, 'More screens', 'Players');
  await addPlayer(page, 'Ines', { Hand: 'child hand', Keyboard: '61 keys', 'Left hand at most': 'two-note chords' });
  await addPlayer(page, 'Tove', { Hand: 'small hand', 'Notes are called': 'do re mi' }, true);
}

test('each player has a version of a song, told against the first, and a press changes places', async ({ page }) => {
  await withClass(page);
  await page.getByRole('button', { name: 'Change Me' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Mara');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  const versions = page.getByTestId('version-for');
  await expect(versions).toHaveCount(3);
  await expect(versions.nth(0)).toContainText('The others are compared with this version.');
  await expect(versions.nth(1)).toContainText('fewer keys at once');
  expect(await barriersOn(page)).toEqual([]);
  // A simpler left hand for one of them in this song alone.
  await pick(page, 'Left hand of Ines at most', 'bass notes');
  await expect(versions.nth(1)).toContainText(/Left hand .*fewer keys at once, \S+ instead of/);

  // As Ines, the desk has her left hand; as Mara, everything is as it was.
  await page.getByRole('button', { name: 'See it as Ines' }).click();
  await expect(page.getByTestId('stack').first()).toBeVisible();
  const firstStack = page.getByTestId('stack').first();
  await expect(firstStack).toHaveAttribute('aria-label', /, \S+$/);
  await choose(page, 'Who plays now', 'Mara');
  await expect(firstStack).toHaveAttribute('aria-label', /, \S+ \S+ \S+/);
});

test('the log, the names of notes and the plan are those of whoever plays', async ({ page }) => {
  await withClass(page);
  await page.getByRole('link', { name: 'Joined Hands, to the shelf' }).click();
  const places = page.getByRole('group', { name: 'Who plays now' });
  await place(page, 'Log').click();
  await expect(page.getByTestId('summary')).not.toBeEmpty();
  await page.getByRole('link', { name: 'Joined Hands, to the shelf' }).click();
  await places.getByRole('button', { name: 'Tove' }).click();
  await place(page, 'Log').click();
  await expect(page.getByText('The log is empty.')).toBeVisible();
  await page.getByRole('link', { name: 'Joined Hands, to the shelf' }).click();
  await page.getByRole('button', { name: 'Open Harbour Glass' }).click();
  await expect(page.getByTestId('stack').first()).toHaveAttribute('aria-label', /(do|re|mi|fa|sol|la|si)\d/);
  // Who plays is known after the page was closed.
  await page.reload();
  await expect(page.getByRole('button', { name: 'Who plays now: Tove' })).toBeVisible();
  await expect(page.getByTestId('stack').first()).toHaveAttribute('aria-label', /(do|re|mi|fa|sol|la|si)\d/);
  await choose(page, 'Who plays now', 'Me');
  await expect(page.getByTestId('stack').first()).not.toHaveAttribute('aria-label', /(do|re|mi|fa|sol|la|si)\d/);
  await expect(parts(page)).toHaveCount(8);
});

test('everyone’s sheets are printed in one go, each with its own notes', async ({ page }) => {
  await withClass(page);
  await page.getByRole('link', { name: 'Print everyone’s sheets' }).click();
  const pages = page.getByTestId('page');
  for (const name of ['Me', 'Ines', 'Tove'])
    await expect(pages.filter({ hasText: name }).locator('svg').first()).toBeVisible({ timeout: 60_000 });
  await page.getByRole('group', { name: 'Kind of sheet' }).getByRole('button', { name: 'Letters' }).click();
  const papers = page.getByTestId('paper-for');
  await expect(papers).toHaveCount(3);
  await expect(papers.nth(2)).toContainText(/sol|mi/);
  await expect(papers.nth(0)).not.toContainText('sol');
  await page.evaluate(() => {
    window.print = () =>
      document.body.setAttribute('data-printed', `${document.querySelectorAll('[data-testid=paper-for]').length}`);
  });
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await expect(page.locator('body')).toHaveAttribute('data-printed', '3');
  await page.getByRole('group', { name: 'For' }).getByRole('button', { name: 'Me' }).click();
  await expect(papers).toHaveCount(1);
});

test('a player who is taken off the list comes back with everything', async ({ page }) => {
  await withClass(page);
  await page.getByRole('button', { name: 'Take Ines off the list' }).click();
  await expect(page.getByTestId('player')).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('player').filter({ hasText: 'Ines' })).toContainText('child hand · 61 keys');
});

test('a log that comes by a link goes to the player whose name it has', async ({ page, baseURL }) => {
  await withClass(page);
  const pass = {
    id: 'hers',
    song: null,
    title: 'Harbour Glass',
    at: 1_900_000_000_000,
    day: '2030-03-17',
    step: 'right:1',
    kind: 'right' as const,
    parts: '1',
    hands: 'right' as const,
    tempo: 60,
    goal: 76,
    figures: null,
    clean: true,
    seconds: 300,
    note: '',
  };
  await page.goto(`${baseURL}/received#${writeParcel({ kind: 'log', title: 'Harbour Glass', from: 'tove', passes: [pass] })}`);
  await expect(page.getByRole('button', { name: 'Whose practice is it?: Tove' })).toBeVisible();
  await page.getByTestId('merge').click();
  await expect(page.getByText('It is in the log of Tove.')).toBeVisible();
  await page.getByRole('button', { name: 'Go to the shelf' }).click();
  await page.getByRole('group', { name: 'Who plays now' }).getByRole('button', { name: 'Tove' }).click();
  await place(page, 'Log').click();
  await expect(page.getByText('Harbour Glass').first()).toBeVisible();
  await expect(page.getByText('The log is empty.')).toBeHidden();
});
