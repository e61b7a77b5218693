import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { arrange } from '@joined-hands/core/arrange';
import { writeArchive, writeMidi } from '@joined-hands/core/formats';
import { demo } from '../core/testing/songs.js';
import { choose, dropdown, expect, goBeside, pick, openShelf, openSong, parts, test } from './app.js';

const card = 'song-card';

test('a MIDI file asks which track is the tune and is read again when another is chosen', async ({ page }) => {
  const { song, score } = arrange(demo('harbour-glass.abc'));
  await openShelf(page);
  await page.getByRole('link', { name: 'Add a song' }).click();
  await page.getByRole('button', { name: 'Choose a file' }).click();
  const data = Buffer.from(writeMidi(song, score));
  await page.locator('input[type=file]').setInputFiles({ name: 'glass.mid', mimeType: 'audio/midi', buffer: data });
  const track = dropdown(page, 'The melody is in');
  await expect(track).toContainText('Right hand');
  await expect(page.getByTestId('found')).toContainText('everything is used');
  await expect(page.getByTestId('preview')).toContainText('8 parts');
  await pick(page, 'Chords', 'none');
  await expect(page.getByTestId('found')).toContainText('1 kind of sign left out');
  await track.click();
  await page.getByRole('menuitemradio', { name: 'Left hand' }).click();
  await expect(track).toContainText('Left hand');
  await track.click();
  await page.getByRole('menuitemradio', { name: 'Right hand' }).click();
  await page.getByTestId('keep').click();
  await expect(parts(page)).toHaveCount(8);
});

test('songs go to the bin and come back, and the whole shelf goes out and in as one file', async ({ page }) => {
  await openShelf(page);
  await choose(page, 'More for Harbour Glass', 'Take off the shelf');
  await expect(page.getByTestId(card)).toHaveCount(2);
  await page.reload();
  await expect(page.getByTestId(card)).toHaveCount(2);
  await page.getByRole('button', { name: /^The bin:/ }).click();
  await page.getByRole('button', { name: 'Put Harbour Glass back' }).click();
  await expect(page.getByTestId(card)).toHaveCount(3);
  await choose(page, 'More for Harbour Glass', 'Tags');
  await page.getByRole('dialog', { name: 'Tags' }).getByRole('textbox').fill('Fridays');
  await page.keyboard.press('Enter');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the whole shelf as a file' }).click(),
  ]);
  await choose(page, 'More for Harbour Glass', 'Take off the shelf');
  await page.getByRole('button', { name: /^The bin:/ }).click();
  await page.getByRole('button', { name: 'Delete Harbour Glass permanently' }).click();
  await expect(page.getByTestId('binned')).toHaveCount(0);
  const field = page.getByLabel('Open a shelf file');
  await field.setInputFiles({ name: 'no.zip', mimeType: 'application/zip', buffer: Buffer.from('not a zip') });
  await expect(page.getByRole('alert')).toContainText('no.zip: This is not a shelf file');
  await field.setInputFiles({ name: 'shelf.zip', mimeType: 'application/zip', buffer: readFileSync(await file.path()) });
  await expect(page.getByTestId(card)).toHaveCount(5);
  await expect(page.getByTestId(card).filter({ hasText: 'Harbour Glass' })).toContainText('Fridays');
  // A song in it that cannot be read is named, and the others come in.
  const half = Buffer.from(writeArchive([demo('harbour-glass.abc'), { version: 4, song: { title: 'Half a Song' } }]));
  await field.setInputFiles({ name: 'half.zip', mimeType: 'application/zip', buffer: half });
  await expect(page.getByTestId(card)).toHaveCount(6);
  await expect(page.getByRole('alert')).toContainText(/half-a-song\.json: .+ damaged/);
});

test('a song is worked on in one tab, a second one shows it until it takes over', async ({ page, context }) => {
  const write = async (tab: Page, symbol: string) => {
    await tab.getByLabel('Chord symbol').fill(symbol);
    await tab.keyboard.press('Enter');
  };
  const chord = (tab: Page, name: string) => expect(tab.getByRole('heading', { name })).toBeVisible();
  const elsewhere = (tab: Page) => tab.getByText('is open in another tab. Here');
  await openSong(page, 'Harbour Glass');
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(elsewhere(other)).toBeVisible();
  await write(other, 'Dm9');
  await expect(other.getByText('Nothing was changed')).toBeVisible();
  await write(page, 'Gm9');
  await chord(page, 'G minor ninth');
  await chord(other, 'G minor ninth');

  await other.getByRole('button', { name: 'Edit it here' }).first().click();
  await expect(elsewhere(page)).toBeVisible();
  await expect(elsewhere(other)).toBeHidden();
  await write(other, 'Dm9');
  await chord(page, 'D minor ninth');
  await other.close();
  await expect(elsewhere(page)).toBeHidden();
  await page.getByRole('button', { name: 'Undo: write Dm9, in another tab' }).click();
  await chord(page, 'G minor ninth');
});

test('how a song stood is kept by itself, and a shelf of the first version is brought forward', async ({ page }) => {
  const { song } = demo('lamps-across-the-sound.letters');
  const choices = { partSize: 'usual', parts: [], names: [], chords: [], pins: [] };
  const document = { version: 1, song: { ...song, title: 'From long ago' }, choices, hands: { profile: 'small', keys: 61 } };
  await page.addInitScript((stored) => {
    if (sessionStorage.getItem('laid')) return;
    sessionStorage.setItem('laid', 'yes');
    // The store as the first version laid it out.
    const request = indexedDB.open('joined-hands', 10);
    request.onupgradeneeded = () => {
      const songs = request.result.createObjectStore('songs', { keyPath: 'id' });
      songs.createIndex('createdAt', 'createdAt');
      request.result.createObjectStore('settings', { keyPath: 'key' }).put({ key: 'demos', value: true });
      songs.put({ id: 'old', createdAt: 5, updatedAt: 5, demo: false, document: stored });
    };
    request.onsuccess = () => request.result.close();
  }, document);
  await openSong(page, 'From long ago');
  await expect(dropdown(page, 'Keyboard')).toHaveText('61 keys');
  await page.getByLabel('Chord symbol').fill('Gm7');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'G minor seventh' })).toBeVisible();
  await goBeside(page, 'Versions');
  await page.getByRole('button', { name: /^Saved automatically/ }).click();
  await page.getByTestId('snapshot').getByRole('button').click();
  await page.getByRole('link', { name: 'Desk' }).click();
  await expect(page.getByRole('heading', { name: 'G minor', exact: true })).toBeVisible();
});

test('a browser that does not save says so, offers a file, and is not left without a question', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.evaluate(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...given: Parameters<typeof put>) {
      if (this.name === 'songs') throw new DOMException('full', 'QuotaExceededError');
      return put.apply(this, given);
    };
  });
  await page.getByLabel('Chord symbol').fill('Dm9');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('no room left for this song');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save it as a file' }).click(),
  ]);
  expect(readFileSync(await file.path(), 'utf8')).toContain('Dm9');
  const [question] = await Promise.all([page.waitForEvent('dialog'), page.close({ runBeforeUnload: true })]);
  expect(question.type()).toBe('beforeunload');
  await question.dismiss();
  await expect(page.getByRole('heading', { name: 'D minor ninth' })).toBeVisible();
});

test('the lesson, the worksheet and the chord sheet hold what they are for', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('link', { name: 'Sheet' }).click();
  await page.getByRole('button', { name: 'Lesson', exact: true }).click();
  const lesson = page.getByTestId('lesson');
  await expect(lesson.locator('section')).toHaveCount(8);
  await expect(lesson).toContainText('C5 with F major seventh on 1.');
  await page.getByRole('button', { name: 'Worksheet', exact: true }).click();
  await expect(page.getByTestId('worksheet').locator('section').first().locator('.note .blank')).toHaveCount(5);
  await page.getByRole('button', { name: 'Chords', exact: true }).click();
  await expect(page.getByTestId('chords').locator('.card').first()).toContainText('Fmaj7');
  await page.getByLabel('Credits').fill('The Harrow Sound lounge');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('chords')).toContainText('The Harrow Sound lounge');
});

test('a long file shows that it is being read, can be let go, and the next one is read', async ({ page }) => {
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  const note = '<note><pitch><step>C</step><octave>5</octave></pitch><duration>1</duration><voice>1</voice></note>';
  const head = '<attributes><divisions>4</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>';
  const measures = Array.from({ length: 3700 }, (_, i) => `<measure>${i === 0 ? head : ''}${note.repeat(16)}</measure>`);
  const long = `<score-partwise><part-list/><part id="P1">${measures.join('')}</part></score-partwise>`;
  const field = page.locator('input[type=file]');
  await field.setInputFiles({ name: 'long.musicxml', mimeType: 'text/xml', buffer: Buffer.from(long) });
  await expect(page.getByTestId('reading')).toContainText('Reading long.musicxml (5.9 MB)');
  await page.getByTestId('reading').getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByTestId('fault')).toContainText('Reading was stopped. Nothing was changed');
  await field.setInputFiles('demo/harbour-glass.abc');
  await expect(page.getByTestId('preview')).toContainText('8 parts');
});
