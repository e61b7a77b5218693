import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { unzip } from '../core/src/formats/zip.js';
import { demo } from '../core/testing/songs.js';
import { choose, expect, openShelf, openSong, parts, putSongs, test } from './app.js';

const card = 'song-card';
const toast = (page: Page, text: string | RegExp) => expect(page.locator('.toast')).toContainText(text);
const writeChord = async (page: Page, symbol: string) => {
  await page.getByLabel('Chord symbol').fill(symbol);
  await page.keyboard.press('Enter');
};

/** Workers that never answer what is about a song of this title. */
const stuckOn = (page: Page, title: string) =>
  page.addInitScript((words) => {
    const post = Worker.prototype.postMessage as (this: Worker, ...given: unknown[]) => void;
    Worker.prototype.postMessage = function (this: Worker, ...given: unknown[]) {
      if (!JSON.stringify(given[0])?.includes(words)) post.apply(this, given);
    } as Worker['postMessage'];
  }, title);

test('a song that another tab takes off says so, keeps showing, and is put back with what was changed', async ({
  page,
  context,
}) => {
  await openSong(page, 'Harbour Glass');
  const other = await context.newPage();
  await other.goto('/shelf');
  await choose(other, 'More for Harbour Glass', 'Take off the shelf');
  const gone = page.getByText('taken off the shelf in another tab');
  await expect(gone).toBeVisible();
  await writeChord(page, 'Gm9');
  await expect(page.getByRole('heading', { name: 'G minor ninth' })).toBeVisible();
  await page.getByRole('button', { name: 'Put it back on the shelf' }).click();
  await expect(gone).toBeHidden();
  await expect(other.getByTestId(card)).toHaveCount(3);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'G minor ninth' })).toBeVisible();
});

test('a name given on the shelf of another tab reaches the desk, and neither loses what the other did', async ({
  page,
  context,
}) => {
  const other = await context.newPage();
  await openShelf(other);
  await openSong(page, 'Harbour Glass');
  await writeChord(page, 'Gm9');
  await expect(page.getByRole('heading', { name: 'G minor ninth' })).toBeVisible();
  await choose(other, 'More for Harbour Glass', 'Rename');
  await other.getByLabel('New name').fill('Glass, quietly');
  await other.keyboard.press('Enter');
  await expect(page.getByTestId('song-title')).toHaveText('Glass, quietly');
  await writeChord(page, 'Dm9');
  await expect(page.getByRole('heading', { name: 'D minor ninth' })).toBeVisible();
  await page.reload();
  await expect(page.getByTestId('song-title')).toHaveText('Glass, quietly');
  await expect(page.getByRole('heading', { name: 'D minor ninth' })).toBeVisible();
  await expect(other.getByTestId(card).filter({ hasText: 'Glass, quietly' })).toHaveCount(1);
});

test('songs that cannot be read stand on the shelf, go out untouched, and can be tried again', async ({ page }) => {
  await openShelf(page);
  const newer = { ...demo('harbour-glass.abc'), version: 99, hints: ['kept'] };
  const times = { createdAt: Date.now(), updatedAt: 5, demo: false };
  await putSongs(page, [{ id: 'newer', ...times, document: newer }]);
  await putSongs(page, [{ id: 'broken', ...times, document: { version: 4, song: { title: 'Half a Song', length: 1e10 } } }]);
  await page.reload();
  const unreadable = page.getByTestId('unreadable');
  await expect(unreadable).toHaveCount(2);
  await expect(unreadable.filter({ hasText: 'Harbour Glass' })).toContainText('saved by a newer version of Joined Hands (99)');
  await expect(unreadable.filter({ hasText: 'Half a Song' })).toContainText('The saved song is damaged (at song');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save Harbour Glass as a file' }).click(),
  ]);
  expect(JSON.parse(readFileSync(await file.path(), 'utf8'))).toEqual({ kind: 'joined-hands', ...newer });
  const [shelf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the whole shelf as a file' }).click(),
  ]);
  const songs = unzip(new Uint8Array(readFileSync(await shelf.path())), { files: 9, bytes: 1e7, wanted: () => true }).map((f) =>
    JSON.parse(new TextDecoder().decode(f.data)),
  );
  expect(songs).toHaveLength(5);
  expect(songs).toContainEqual({ kind: 'joined-hands', ...newer });
  await putSongs(page, [{ id: 'newer', ...times, document: demo('harbour-glass.abc') }]);
  await page.getByRole('button', { name: 'Try to open Harbour Glass again' }).click();
  await expect(unreadable).toHaveCount(1);
  await page.goto('/desk/broken');
  await expect(page.getByRole('heading', { name: '“Half a Song” cannot be opened' })).toBeVisible();
});

test('a song that cannot be arranged is named, given out as it is saved, and holds up no other', async ({ page }) => {
  await openShelf(page);
  const { song } = demo('harbour-glass.abc');
  await putSongs(page, [
    {
      id: 'stuck',
      createdAt: 9,
      updatedAt: 9,
      demo: false,
      document: { ...demo('harbour-glass.abc'), song: { ...song, title: 'Never Ends' } },
    },
  ]);
  await page.clock.install();
  await stuckOn(page, 'Never Ends');
  await page.goto('/desk/stuck');
  await expect(page.getByText('Arranging…')).toBeVisible();
  await page.clock.fastForward(21_000);
  const unopened = page.getByTestId('unopened');
  await expect(unopened).toContainText('“Never Ends” cannot be opened');
  await expect(unopened).toContainText('it took too long and was stopped');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    unopened.getByRole('button', { name: 'Save as file' }).click(),
  ]);
  expect(JSON.parse(readFileSync(await file.path(), 'utf8')).song.title).toBe('Never Ends');
  await unopened.getByRole('link', { name: 'Back to the shelf' }).click();
  await page.getByRole('button', { name: 'Open Lamps Across the Sound' }).click();
  await expect(parts(page).first()).toBeVisible();
});

test('a text that takes long to read can be let go, and the next one is read', async ({ page }) => {
  await stuckOn(page, 'Never Ends');
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Paste ABC' }).click();
  const field = page.getByRole('textbox');
  await field.fill('X:1\nT:Never Ends\nL:1/4\nK:C\nCDEF|');
  await expect(page.getByTestId('reading')).toContainText('Reading the text…');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByTestId('fault')).toContainText('Reading was stopped');
  await field.fill('X:1\nT:Short\nL:1/4\nK:C\nCDEF|');
  await expect(page.getByTestId('keep')).toBeEnabled();
});

test('a shelf that has no room says so at every change, and changes nothing', async ({ page }) => {
  await openShelf(page);
  await page.evaluate(() => {
    for (const method of ['put', 'add'] as const) {
      const write = IDBObjectStore.prototype[method];
      IDBObjectStore.prototype[method] = function (this: IDBObjectStore, ...given: Parameters<typeof write>) {
        if (['songs', 'bin'].includes(this.name)) throw new DOMException('full', 'QuotaExceededError');
        return write.apply(this, given);
      };
    }
  });
  await choose(page, 'More for Harbour Glass', 'Duplicate');
  await toast(page, 'The browser has no room left');
  await choose(page, 'More for Harbour Glass', 'Take off the shelf');
  await toast(page, 'The browser has no room left');
  await expect(page.getByTestId(card)).toHaveCount(3);
  await page.getByRole('link', { name: 'Add a song' }).click();
  await page.getByTestId('keep').click();
  await toast(page, 'The browser has no room left');
  await expect(page.getByRole('button', { name: 'Save it as a file' })).toBeVisible();
});

test('a window without storage says so on the shelf and at the intake', async ({ page }) => {
  await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }));
  await page.goto('/');
  await expect(page.getByTestId('no-storage')).toContainText('This window cannot save songs');
  await page.getByRole('link', { name: 'Add a song' }).click();
  await page.getByTestId('keep').click();
  await toast(page, 'This window cannot save songs');
});

test('files dropped beside the intake are taken there, and one of several is said to be the only one', async ({ page }) => {
  await openShelf(page);
  const abc = readFileSync(new URL('../demo/harbour-glass.abc', import.meta.url), 'utf8');
  const dropped = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([text], 'glass.abc'));
    transfer.items.add(new File([text], 'other.abc'));
    return transfer;
  }, abc);
  await page.dispatchEvent('h1', 'drop', { dataTransfer: dropped });
  await expect(page.getByText('glass.abc (')).toBeVisible();
  await toast(page, 'Only glass.abc was opened. Add the other 1 one at a time.');
  await expect(page.getByTestId('keep')).toBeEnabled();
});

test('a cut that the browser takes from the pointer is not moved', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  const before = await parts(page).allTextContents();
  const handle = page.locator('jh-join-strip g.cut').last();
  const box = await handle.boundingBox();
  if (!box) throw new Error('no handle');
  const at = (x: number) => ({ pointerId: 1, clientX: x, clientY: box.y + 5, bubbles: true });
  // The pointer of a test cannot be captured.
  await handle.evaluate((g) => (g.setPointerCapture = () => undefined));
  await handle.dispatchEvent('pointerdown', at(box.x));
  await handle.dispatchEvent('pointermove', at(box.x - 300));
  await handle.dispatchEvent('pointercancel', at(box.x - 300));
  await handle.dispatchEvent('pointermove', at(box.x - 400));
  await handle.dispatchEvent('pointerup', at(box.x - 400));
  expect(await parts(page).allTextContents()).toEqual(before);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test.describe('where a part of the application is missing', () => {
  test.use({ expected: /Failed to load resource|Failed to fetch dynamically imported module|net::ERR/ });

  test('a screen that cannot be loaded says so and can be tried again', async ({ page }) => {
    await openShelf(page);
    await page.route('**/*.js', (route) => route.abort());
    await page.getByRole('link', { name: 'Log', exact: true }).click();
    await toast(page, 'This screen could not be loaded');
    await expect(page.getByTestId(card)).toHaveCount(3);
    await page.unroute('**/*.js');
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByRole('heading', { name: 'Practice log' })).toBeVisible();
  });
});

test.describe('what nobody caught', () => {
  test.use({ expected: /planted/ });

  test('is said, with a way to keep the song', async ({ page }) => {
    await openSong(page, 'Harbour Glass');
    await page.evaluate(() => void Promise.reject(new Error('planted')));
    await toast(page, 'Something went wrong here. Save your song as a file');
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save your song' }).click(),
    ]);
    expect(JSON.parse(readFileSync(await file.path(), 'utf8')).song.title).toBe('Harbour Glass');
  });
});
