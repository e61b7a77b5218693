import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demo } from '../core/testing/songs.js';
import { soundOf, wavFrom, type Tone } from '../core/testing/sounds.js';
import { arrange } from '../core/src/arrange/index.js';
import { midiOf } from '../core/src/pitch/index.js';
import { TICKS_PER_QUARTER as Q } from '../core/src/time/index.js';
import type { Page } from '@playwright/test';
import { expect, openSong, test } from './app.js';
import { hearing } from './chromium.js';

const RATE = 44_100;

/** What the microphone hears: silence for the count-in and a little more, then a line on "la" in quarters at 120 a minute. */
const LINE = [60, 62, 64, 65, 67, 67, 64, 60];
const sung = join(tmpdir(), 'joined-hands-sung.wav');
writeFileSync(
  sung,
  wavFrom(
    soundOf(
      LINE.map((midi, i): Tone => ({ at: 3 + i / 2, until: 3 + i / 2 + 0.42, midi })),
      'la',
      RATE,
    ),
    RATE,
  ),
);

test.use({ launchOptions: hearing(sung) });

/** Waits until the voice has come in and ended: its level has been low for a while. */
const sungOut = (page: Page) =>
  page.waitForFunction(() => {
    const meter = document.querySelector<HTMLMeterElement>('[data-testid="live"] meter');
    const page = window as { loud?: number };
    if (meter && meter.value > 0.6) page.loud = performance.now();
    return page.loud !== undefined && performance.now() - page.loud > 1500;
  });

for (const pace of ['To a beat', 'At my own pace'])
  test(`a melody is sung in, ${pace.toLowerCase()}: what was heard is a draft whose notes are put right before it goes on`, async ({
    page,
  }) => {
    await page.goto('/intake');
    await page.getByRole('button', { name: 'Play it in' }).click();
    await page.getByRole('button', { name: 'Sing it' }).click();
    await page.getByRole('button', { name: pace }).click();
    if (pace === 'To a beat') await page.getByLabel('Tempo').fill('120');
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    await expect(page.getByTestId('live')).toBeVisible();
    await sungOut(page);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    await expect(page.getByText(/\d+ notes heard/)).toBeVisible();
    await expect(page.getByTestId('live')).toBeHidden();
    if (pace !== 'To a beat') expect(Number(await page.getByLabel('Tempo').inputValue())).toBeGreaterThan(50);
    // A machine that is busy drops a moment of sound now and then: nearly all of the line is there, in its order.
    await expect(page.getByTestId('stone').first()).toBeVisible();
    const letters = await page.getByTestId('stone').allTextContents();
    expect(inOrder(letters, ['C', 'D', 'E', 'F', 'G', 'G', 'E', 'C'])).toBeGreaterThanOrEqual(6);
    await page.getByTestId('stone').first().click();
    await page.getByRole('button', { name: 'Half step up' }).click();
    await expect(page.getByTestId('stone').first()).not.toHaveText(letters[0]);
    await page.getByRole('button', { name: 'Undo the last correction' }).click();
    await expect(page.getByTestId('stone').first()).toHaveText(letters[0]);
    await page.getByTestId('stone').first().click();
    await page.getByRole('button', { name: 'Split in two' }).click();
    await expect(page.getByTestId('stone')).toHaveCount(letters.length + 1);
    await page.getByTestId('keep').click();
    await page.waitForURL('**/desk/**');
    await expect(page.getByTestId('stone')).toHaveCount(letters.length + 1);
  });

/** How many of some letters stand in a row of others in their order. */
function inOrder(row: readonly string[], wanted: readonly string[]): number {
  const most = wanted.map(() => 0);
  for (const letter of row)
    for (let k = wanted.length - 1; k >= 0; k--)
      if (wanted[k] === letter) most[k] = Math.max(most[k], 1 + Math.max(0, ...most.slice(0, k)));
  return Math.max(...most);
}

test('a song is set to the key and tempo of a recording, and back by one press', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await page.getByRole('link', { name: 'First look' }).click();
  await page.getByRole('button', { name: 'Set it to a recording' }).click();
  await page
    .getByTestId('recording-file')
    .setInputFiles({ name: 'pier.txt', mimeType: 'audio/wav', buffer: Buffer.from('no sound') });
  await expect(page.getByRole('alert')).toContainText('pier.txt is no sound file that this browser can open.');
  // The song itself a tone higher, at another tempo.
  const { score, song } = arrange(demo('all-aboard-for-nettle-point.musicxml'));
  const quarter = 60 / 104;
  const tones = score.map((n): Tone => ({
    at: 0.3 + (n.at / Q) * quarter,
    until: 0.3 + ((n.at + n.length) / Q) * quarter,
    midi: midiOf(n.pitch) + 2,
    loudness: 0.3,
  }));
  const buffer = Buffer.from(wavFrom(soundOf(tones, 'piano', 22_050), 22_050));
  await page.getByTestId('recording-file').setInputFiles({ name: 'pier.wav', mimeType: 'audio/wav', buffer });
  expect(song.key.tonic).toBe('D');
  await expect(page.getByTestId('recording-heard')).toContainText('It seems to be in E major');
  await page.getByTestId('hear-recording').click();
  await expect(page.getByTestId('hear-recording')).toHaveText('Stop');
  await page.getByRole('button', { name: 'Set the song to it' }).click();
  await expect(page.getByRole('banner')).toContainText('E major');
  await expect(page.getByRole('banner')).toContainText('104');
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await page.getByRole('button', { name: 'Undo: set the song to a recording' }).click();
  await expect(page.getByRole('banner')).toContainText('D major');
});
