import { readFileSync } from 'node:fs';
import { arrange } from '@joined-hands/core/arrange';
import { midiOf } from '@joined-hands/core/pitch';
import { notesOf, stepsOf } from '@joined-hands/core/practice';
import { inversionsDrill } from '../core/src/catalogue/drills/inversions.js';
import { warmUpDrill } from '../core/src/catalogue/drills/warm-up.js';
import { handsOf } from '@joined-hands/core/song';
import type { Page } from '@playwright/test';
import { demo } from '../core/testing/songs.js';
import { clicksOf, dropdown, expect, pick, goBeside, noteClicks, openShelf, openSong, standInDevice, test } from './app.js';

const SONG = 'All Aboard for Nettle Point';
const song = arrange(demo('all-aboard-for-nettle-point.musicxml'));
const steps = stepsOf(song, { order: 'song', joins: 'chain' });
/** Keys of the first step, the right hand of part 1, in the order in which they come. */
const tune = notesOf(song, steps[0]).map((n) => n.midi);

const step = (page: Page) => page.getByTestId('step');
const result = (page: Page) => page.getByTestId('result');
const key = (page: Page, midi: number) => page.locator(`jh-keyboard rect[data-midi="${midi}"]`);

async function rehearse(page: Page): Promise<void> {
  await openSong(page, SONG);
  await page.getByRole('link', { name: 'Rehearse' }).click();
  await expect(step(page)).toHaveText('right hand alone');
}

/** Lets the stand-in play a pass at the full tempo and waits for what came of it. */
async function standInPass(page: Page, how: 'Clean' | 'Many slips'): Promise<void> {
  await page.getByRole('button', { name: `${steps[0].goal} quarter notes a minute` }).click();
  await dropdown(page, 'Keys').click();
  await page.getByRole('button', { name: how, exact: true }).click();
  await page.getByRole('button', { name: 'Let it play' }).click();
  await expect(result(page)).toBeHidden();
  // A busy machine lets the audio clock fall behind.
  await expect(result(page)).toBeVisible({ timeout: 90_000 });
}

test('a step is played, listened to and written down, and the plan moves on', async ({ page }) => {
  await rehearse(page);
  const today = page.getByTestId('today');
  await expect(today).toContainText('New: one hand first.');
  for (const left of ['2 clean passes', '1 clean pass']) {
    await standInPass(page, 'Clean');
    await expect(result(page)).toContainText('Clean: every note in its place.');
    await expect(page.getByText(`${left} to the next`)).toBeVisible();
    await expect(today).toContainText(`In progress: ♩ = ${steps[0].goal} of ${steps[0].goal}.`);
  }
  await standInPass(page, 'Clean');
  await expect(page.getByText('Learned. It comes back on its own.')).toBeVisible();
  await expect(today.locator('[data-kind=work]').first()).toContainText('left hand alone');
  await page.getByRole('button', { name: 'Next step →' }).click();
  await expect(step(page)).toHaveText('left hand alone');
  await page.reload();
  await expect(step(page)).toHaveText('left hand alone');
  await page.getByText('All steps').click();
  await expect(page.getByText(`1 of ${steps.length} learned`)).toBeVisible();

  await goBeside(page, 'Log');
  await expect(page.getByTestId('of')).toContainText(SONG);
  await expect(page.getByTestId('pass')).toHaveCount(3);
  await expect(page.getByTestId('pass').first()).toContainText('Part 1, right hand alone');
  await expect(page.getByTestId('chart')).toHaveCount(4);
  await expect(page.getByTestId('chart').nth(1)).toHaveAttribute('aria-label', /1 due/);
});

test('the plan of a song in work begins with what is due, and the strip shows all of it', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('link', { name: 'Rehearse' }).click();
  await expect(page.getByTestId('today')).toContainText('due again.');
  await expect(step(page)).toContainText('together');
  const cut = () => page.getByTestId('strip').evaluate((room) => room.scrollHeight - room.clientHeight);
  await expect.poll(cut).toBeLessThanOrEqual(2);
});

test('slips are told in words, in figures and on the strip', async ({ page }) => {
  await rehearse(page);
  await standInPass(page, 'Many slips');
  await expect(result(page)).toContainText('Right hand');
  await expect(page.getByTestId('figures')).toContainText(`of ${tune.length} right`);
  await expect(page.getByTestId('strip').getByTestId('verdict').first()).toBeVisible();
  await page.getByLabel('Your note').fill('too fast for today');
  await page.keyboard.press('Enter');
  await goBeside(page, 'Log');
  await expect(page.getByTestId('pass').first()).toContainText('too fast for today');
});

test('the music waits for the right keys, on a connected keyboard too, and its pedal begins', async ({ page }) => {
  const device = await standInDevice(page);
  await rehearse(page);
  await device.plugIn();
  await dropdown(page, 'Keys').click();
  await page.getByRole('button', { name: 'Connect a keyboard' }).click();
  await expect(dropdown(page, 'Keys')).toContainText('Stand-in keys');
  await page.getByRole('button', { name: 'The pedal' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Wait for me' }).click();
  await device.send(0xb0, 64, 127);
  await expect(page.getByText('the music waits')).toBeVisible();
  await key(page, tune[0] + 1).click();
  await expect(page.locator('jh-keyboard circle.right')).toHaveCount(1);
  for (const midi of tune) {
    await device.send(0x90, midi, 80);
    await device.send(0x80, midi, 0);
  }
  await expect(result(page)).toContainText('You found every key, with one wrong key on the way.');
});

test('a pass that nothing listened to is judged by the pianist, and pain stops everything', async ({ page }) => {
  await rehearse(page);
  await page.getByRole('button', { name: `${steps[0].goal} quarter notes a minute` }).click();
  await page.keyboard.press('Space');
  await expect(page.getByTestId('asking')).toBeVisible({ timeout: 90_000 });
  await page.getByRole('button', { name: 'Not yet' }).click();
  await expect(result(page)).toContainText('Take it slower if you like.');
  await page.keyboard.press('ArrowRight');
  await expect(step(page)).toHaveText('left hand alone');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop (space)' })).toBeVisible();
  await page.keyboard.press('?');
  for (const told of ['Space', '→', 'Go to the next step', 'A to P', 'Ctrl K'])
    await expect(page.getByRole('dialog')).toContainText(told);
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'It hurts' }).click();
  await expect(page.getByRole('dialog')).toContainText('a clinician');
  await page.getByRole('button', { name: 'Stop for now' }).click();
  await expect(page.getByRole('button', { name: 'Start (space)' })).toBeVisible();
});

test('the click keeps to the beat by the audio clock', async ({ page }) => {
  await noteClicks(page);
  await rehearse(page);
  await page.getByRole('button', { name: 'Left hand sounds' }).click();
  await page.getByRole('button', { name: `${steps[0].goal} quarter notes a minute` }).click();
  await page.keyboard.press('Space');
  await expect(page.getByTestId('asking')).toBeVisible({ timeout: 90_000 });
  const starts = await clicksOf(page);
  const beat = 60 / steps[0].goal;
  expect(starts).toHaveLength(10);
  for (const [i, when] of starts.entries()) expect(Math.abs(when - starts[0] - i * beat)).toBeLessThan(0.002);
});

test('the log is changed, taken out of, saved and read back', async ({ page }) => {
  await openShelf(page);
  await page.getByRole('link', { name: 'Log' }).click();
  const passes = page.getByTestId('pass');
  await expect(passes.first()).toBeVisible();
  await pick(page, 'Shown', 'Lamps Across the Sound');
  await expect(passes.filter({ hasText: 'Harbour Glass' })).toHaveCount(0);
  await pick(page, 'Listed', 'not clean yet');
  await expect(passes.filter({ hasText: '✓ clean' })).toHaveCount(0);
  await expect(passes.filter({ hasText: 'not yet' }).first()).toBeVisible();
  await pick(page, 'Listed', 'all passes');
  await expect(passes.filter({ hasText: '✓ clean' }).first()).toBeVisible();
  const shown = await passes.count();
  const length = await passes.first().locator('td').nth(4).textContent();
  await page
    .getByRole('button', { name: /^Change Part/ })
    .first()
    .click();
  await page.getByLabel('Tempo, quarter notes a minute').fill('71');
  await page.getByLabel('Your notes').fill('with the ferry horn');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(passes.first()).toContainText('71 of');
  await expect(passes.first()).toContainText('with the ferry horn');
  await expect(passes.first().locator('td').nth(4)).toHaveText(length?.trim() ?? '');

  const save = async (name: string) => {
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()]);
    return readFileSync(await file.path(), 'utf8');
  };
  const table = await save('Save as a table');
  expect(table.split('\r\n')[0]).toMatch(/^date,time,song/);
  expect(table).toContain('with the ferry horn');
  const json = await save('Save as a file');

  await page
    .getByRole('button', { name: /^Remove Part/ })
    .first()
    .click();
  await expect(passes.first()).not.toContainText('with the ferry horn');
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(passes.first()).toContainText('with the ferry horn');
  await expect(passes).toHaveCount(shown);

  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.getByText('The log is empty.')).toBeVisible();
  const field = page.locator('input[type=file]');
  await field.setInputFiles({ name: 'list.json', mimeType: 'application/json', buffer: Buffer.from('{"songs": []}') });
  await expect(page.getByRole('alert')).toContainText('list.json: The practice log cannot be read at its heading.');
  await field.setInputFiles({ name: 'log.json', mimeType: 'application/json', buffer: Buffer.from(json) });
  await expect(passes.first()).toContainText('with the ferry horn');
});

test('drills are graded by keys and by names, and come back by how they went', async ({ page }) => {
  await page.goto('/drills');
  await page.getByRole('button', { name: 'Inversions One chord' }).click();
  await page.getByLabel('Chord').fill('Xyz');
  await page.getByLabel('Chord').press('Enter');
  await expect(page.getByText('is not a chord symbol')).toBeVisible();
  await page.getByLabel('Chord').fill('C');
  await page.getByLabel('Chord').press('Enter');
  await page.getByRole('button', { name: 'Start (space)' }).click();
  const drill = inversionsDrill('C', 'left', handsOf());
  for (const grip of drill?.tasks[0].grips ?? []) for (const pitch of grip.pitches) await key(page, midiOf(pitch)).click();
  await expect(page.getByTestId('drill-result')).toContainText(/Clean in \d+ seconds: nothing wrong. It comes back tomorrow./);

  await page.getByRole('button', { name: 'Names from keys' }).click();
  await page.getByRole('button', { name: 'Start (space)' }).click();
  for (let question = 1; question <= 8; question++) {
    await expect(page.getByText(`${question} of 8`)).toBeVisible();
    const next = question < 8 ? page.getByText(`${question + 1} of 8`) : page.getByTestId('drill-result');
    for (let answer = 1; answer <= 4 && !(await next.isVisible()); answer++) {
      await page.keyboard.press(`${answer}`);
      await expect(
        page
          .locator('.names .wrong')
          .nth(answer - 1)
          .or(next),
      ).toBeVisible();
    }
  }
  await expect(page.getByTestId('drill-result')).toBeVisible();
  await page.getByRole('link', { name: 'Log' }).first().click();
  await expect(page.getByTestId('pass').filter({ hasText: 'Inversions of C' })).toContainText('clean');
  await expect(page.getByTestId('pass').filter({ hasText: 'Names from keys' })).toBeVisible();
});

test('the warm-up of a song opens from its plan, shows its fingers and is written down', async ({ page }) => {
  await rehearse(page);
  await page.getByRole('link', { name: 'Warm up' }).click();
  await expect(page.getByTestId('ask')).toContainText('Scale of D major, right hand');
  await expect(page.getByTestId('grips').locator('li').first()).toContainText('D1');
  await expect(page.locator('jh-keyboard circle.right')).toHaveCount(1);
  const warmUp = warmUpDrill(song, handsOf());
  await page.getByRole('button', { name: 'Start (space)' }).click();
  for (const { grips } of warmUp.tasks)
    for (const { pitches } of grips) for (const pitch of pitches) await key(page, midiOf(pitch)).click();
  await expect(page.getByTestId('drill-result')).toContainText('Clean');
  await page.getByRole('link', { name: 'Log' }).first().click();
  await expect(page.getByTestId('pass').filter({ hasText: `Warm-up for ${SONG}` })).toBeVisible();
});

test('a browser that kept songs before there was a log keeps them', async ({ page }) => {
  // The storage as an earlier program left it: no passes yet.
  await page.route('**/before', (route) => route.fulfill({ contentType: 'text/html', body: '<link rel="icon" href="data:,">' }));
  await page.goto('/before');
  const document = demo('harbour-glass.abc');
  await page.evaluate(
    (song) =>
      new Promise<void>((done, failed) => {
        const open = indexedDB.open('joined-hands', 20);
        open.onerror = failed;
        open.onupgradeneeded = () => {
          const songs = open.result.createObjectStore('songs', { keyPath: 'id' });
          songs.createIndex('createdAt', 'createdAt');
          songs.add(song);
          open.result.createObjectStore('settings', { keyPath: 'key' }).add({ key: 'demos', value: true });
          open.result.createObjectStore('bin', { keyPath: 'id' }).createIndex('removedAt', 'removedAt');
          const snapshots = open.result.createObjectStore('snapshots', { keyPath: 'key', autoIncrement: true });
          snapshots.createIndex('[song+at]', ['song', 'at']);
        };
        open.onsuccess = () => {
          open.result.close();
          done();
        };
      }),
    { id: 'kept', createdAt: 5, updatedAt: 5, demo: false, document },
  );
  await openSong(page, 'Harbour Glass');
  await goBeside(page, 'Log');
  await expect(page.getByText('The log is empty.')).toBeVisible();
});
