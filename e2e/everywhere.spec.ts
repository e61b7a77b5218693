import type { Page } from '@playwright/test';
import { goToScreen, SCREENS } from './screens.js';
import { barriersOn, dropdown, expect, find, openShelf, openSong, parts, test } from './app.js';

const SONG = 'Harbour Glass';

/** The screens that work on a song; each half is a test of its own, since one of them on all screens would take long. */
const OF_SONG = SCREENS.filter((s) => s.of !== 'none');
const half = Math.ceil(OF_SONG.length / 2);
const HALVES = [
  { half: 'first', screens: OF_SONG.slice(0, half) },
  { half: 'other', screens: OF_SONG.slice(half) },
];

/** Looks for barriers on what is open in the day theme, and for what cannot be read in the evening one. */
async function check(page: Page, of: string): Promise<void> {
  const day = await barriersOn(page);
  await page.getByRole('button', { name: 'Evening theme' }).click();
  const evening = await barriersOn(page, 'color-contrast');
  await page.getByRole('button', { name: 'Day theme' }).click();
  expect.soft([...day, ...evening], of).toEqual([]);
}

for (const { half, screens } of HALVES)
  test(`the ${half} screens of a song can be read by everybody, in both themes`, async ({ page }) => {
    await openSong(page, SONG);
    const id = page.url().split('/').at(-1) ?? '';
    for (const screen of screens) {
      await goToScreen(page, screen, id);
      await check(page, screen.path);
    }
  });

test('the screens without a song can be read by everybody, in both themes', async ({ page }) => {
  await openShelf(page);
  await check(page, 'shelf');
  await page.getByRole('link', { name: 'Log' }).click();
  await expect(page.getByTestId('pass').first()).toBeVisible();
  await check(page, 'log');
  await page.goto('/intake');
  await expect(page.getByRole('button', { name: 'Choose a file' })).toBeVisible();
  await check(page, 'intake');
  await page.getByRole('button', { name: 'Play it in' }).click();
  await check(page, 'playing in');
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog')).toBeVisible();
  expect(await barriersOn(page)).toEqual([]);
});

test('anything that can be done, and any song, is found by its name', async ({ page }) => {
  await openSong(page, SONG);
  await find(page, 'root pos');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: root position' })).toBeVisible();
  await find(page, 'undo');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  // What had the focus before is not pressed by the key that chose from the list.
  await page.getByRole('button', { name: 'Evening theme' }).click();
  await find(page, 'two notes');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: two notes' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
  await page.getByRole('button', { name: 'Day theme' }).click();
  await find(page, 'go to');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  await page.getByRole('option', { name: 'Go to: Accompaniment' }).click();
  await expect(page.getByRole('heading', { name: 'Accompaniment' })).toBeVisible();
  // Opened again as soon as it has closed, it is empty and lists what there is.
  await find(page, 'undo');
  await page.getByRole('option').first().click();
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: 'Find an action or a song' })).toHaveValue('');
  await expect(page.getByRole('option')).not.toHaveCount(0);
  await page.keyboard.press('Escape');
  await find(page, 'nettle');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('song-title')).toHaveText('All Aboard for Nettle Point');
  // A change made in an open panel is taken back by the same keys as any other.
  await dropdown(page, 'Left hand').click();
  await page.getByTestId('school').filter({ hasText: 'one bass note' }).getByRole('button').first().click();
  await expect(page.getByRole('button', { name: 'Undo: one bass note' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  await page.keyboard.press('Escape');
  await find(page, 'zzz');
  await expect(page.getByText('Nothing matches.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('combobox', { name: 'Find an action or a song' })).toBeHidden();
});

test('who is new is shown round the desk, may leave, and is not asked again', async ({ page }) => {
  await openShelf(page);
  await page.getByRole('button', { name: 'Take the tour' }).click();
  const card = page.getByRole('dialog', { name: 'Take the tour' });
  await expect(card).toContainText('short numbered parts');
  for (let stop = 1; stop < 6; stop++) await card.getByRole('button', { name: 'Next' }).click();
  await expect(card).toContainText('6 of 6');
  await card.getByRole('button', { name: 'Begin' }).click();
  await expect(card).toBeHidden();
  await page.getByRole('link', { name: 'Shelf', exact: true }).click();
  await expect(page.getByTestId('song-card').first()).toBeVisible();
  await expect(page.getByTestId('welcome')).toBeHidden();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('tour');
  await page.keyboard.press('Enter');
  await expect(card).toContainText('1 of 6');
  await page.keyboard.press('Escape');
  await expect(card).toBeHidden();
});

/** 200 bars of 6/8 in five flats, with wide chords, many words and a long title. */
function longSong(): string {
  const tune = ['d3 f3', 'e2d c3', 'B2c d2e', 'f3 a3', 'g2f e2d', 'c3 e3', 'd2c B2A', 'c6'];
  const chords = ['Dbmaj9', 'Ab7sus4/Gb', 'Bbm7', 'Gbmaj7#11', 'Ebm9', 'Ab13', 'Gb/Ab', 'Dbmaj7'];
  const words = 'w: We car- ry slow-ly the e-ve-ning wa-ters be-hind the har-bour lamps are turn-ing\n';
  const bar = (i: number) =>
    `"${chords[(i * 3 + (i >> 3)) % 8]}"${tune[(i + (i >> 4)) % 8]} |${i % 4 === 3 ? `\n${words}` : ' '}`;
  const title = 'The Very Long Evening Crossing of the Harrow Sound with All Its Lamps and Bells';
  return `X:1\nT:${title}\nM:6/8\nL:1/8\nQ:3/8=60\nK:Db\n${Array.from({ length: 200 }, (_, i) => bar(i)).join('')}`;
}

for (const { half, screens } of HALVES)
  test(`a long song of five flats fits the ${half} screens, and is large enough to be read at the piano`, async ({ page }) => {
    await page.goto('/intake');
    await page.getByRole('button', { name: 'Paste ABC' }).click();
    await page.getByLabel('ABC text').fill(longSong());
    await expect(page.getByTestId('preview')).toContainText('53 parts');
    await page.getByTestId('keep').click();
    await expect(parts(page)).toHaveCount(53);
    for (const { name, path, ready } of screens) {
      await find(page, `Go to: ${name}`);
      await page.keyboard.press('Enter');
      await page.waitForURL(`**/${path}/**`);
      await expect(page.locator(ready).first()).toBeVisible();
      for (const [width, height] of [
        [1280, 800],
        [1024, 768],
        [1920, 1080],
        [820, 1180],
      ]) {
        await page.setViewportSize({ width, height });
        const sideways = () =>
          page.evaluate(() => {
            // What may go sideways by itself: a figure's grid, the roadmap of a long song, a page of music, what is written in lines.
            const may = '.grid, jh-roadmap, jh-roadmap *, textarea, pre';
            const boxes = [...document.querySelectorAll('html, header, main, main *')].filter(
              (b) =>
                b.scrollWidth > b.clientWidth + 1 &&
                b.clientWidth > 0 &&
                (/auto|scroll/.test(getComputedStyle(b).overflowX) || !b.closest('main')) &&
                !b.matches(may),
            );
            return boxes.map((b) => `${b.tagName} ${b.className} ${b.scrollWidth} in ${b.clientWidth}`);
          });
        await expect.poll(sideways, `${path} at ${width} × ${height}`).toEqual([]);
        if (path !== 'rehearse') continue;
        const small = await page.evaluate(() =>
          [...document.querySelectorAll('main *')]
            .filter((e) => e.checkVisibility() && [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent?.trim()))
            .filter((e) => !e.closest('.cdk-overlay-container, .sign') && parseFloat(getComputedStyle(e).fontSize) < 16)
            .map((e) => `${e.className} ${e.textContent} ${getComputedStyle(e).fontSize}`),
        );
        expect(small, `at ${width} × ${height}`).toEqual([]);
      }
    }
  });

test('the finder knows what pianists call things', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  const first = page.getByRole('dialog', { name: 'Find an action or a song' }).getByRole('option').first();
  for (const [words, entry] of [
    ['waltz', 'Texture: bass, chord, chord'],
    ['slower', 'Slower'],
    ['left hand only', 'Left hand'],
    ['print', 'Go to: Sheet'],
    ['transpose', 'Go to: Choose a key'],
    ['easier', 'Go to: Choose a key'],
  ] as const) {
    await find(page, words);
    await expect(first).toContainText(entry);
    await page.keyboard.press('Escape');
  }
  await find(page, 'slower');
  // Closed and opened again within one frame, it is there.
  await page.evaluate(() => {
    for (const press of [
      { key: 'Escape', keyCode: 27 },
      { key: 'k', ctrlKey: true },
    ])
      document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', { ...press, bubbles: true, cancelable: true }));
  });
  await page.getByRole('combobox', { name: 'Find an action or a song' }).fill('slower');
  const tempo = await page.getByTestId('tempo').textContent();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('tempo')).not.toHaveText(tempo ?? '');
});
