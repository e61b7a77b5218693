import type { Page } from '@playwright/test';
import type { Struck } from '../core/testing/pianos.js';
import { expect, openSong, test } from './app.js';
import { hearing } from './chromium.js';
import { NOTES, noteLags, TITLE, writeTake } from './piano-take.js';

/** Later, for the set-up, five keys of the piano one after another, so often that a machine may stand still for a while. */
const five = [36, 48, 60, 72, 84].flatMap((midi, i) =>
  [0, 1, 2, 3, 4, 5, 6].map((round): Struck => ({ midi, time: 26 + 10 * round + 2 * i, length: 1.4, loudness: 0.6 })),
);
const take = writeTake('take', five);

test.use({ launchOptions: hearing(take) });

async function rehearse(page: Page, pace: 'In time' | 'Wait for me'): Promise<void> {
  await openSong(page, TITLE);
  await page.getByRole('link', { name: 'Rehearse', exact: true }).click();
  await page.getByRole('button', { name: pace }).click();
}

const listenButton = (page: Page) => page.getByTestId('listen-by-microphone');

test('a piano is heard by microphone key by key, soon after each was struck, and the step is logged', async ({ page }) => {
  const requests: string[] = [];
  page.on('request', (r) => requests.push(r.url()));
  await rehearse(page, 'Wait for me');
  await page.getByTestId('start').click();
  await page.evaluate(noteLags);
  await listenButton(page).click();
  await expect(page.getByTestId('live')).toBeVisible();
  await expect(page.getByTestId('result')).toContainText('Heard to the end');
  const lags = await page.evaluate(() => (window as { lags?: number[] }).lags ?? []);
  const middle = lags.toSorted((a, b) => a - b)[lags.length >> 1];
  expect(lags.length).toBeGreaterThan(NOTES.length / 2);
  console.log(`From a key to its being made out: ${Math.round(1000 * middle)} ms in the middle.`);
  // Set up, with no clap heard, by five keys.
  await page.getByRole('button', { name: 'Set it up' }).click();
  const setUp = page.getByRole('dialog', { name: 'Set up the microphone' });
  await setUp.getByRole('button', { name: 'Begin' }).click();
  await setUp.getByRole('button', { name: 'Go on without' }).click();
  await expect(setUp).toContainText('Ready to listen', { timeout: 110_000 });
  await expect(setUp).toContainText(/Your piano is 1\d cents low: taken into account\./);
  await setUp.getByRole('button', { name: 'Play' }).click();
  await expect(page.getByRole('button', { name: 'Set it up again' })).toBeVisible();
  await listenButton(page).click();
  await expect(page.getByTestId('live')).toBeHidden();
  await page.getByTestId('result').getByRole('link', { name: 'Log' }).click();
  await expect(page.getByTestId('pass').first()).toContainText(`${NOTES.length} of ${NOTES.length}`);
  expect(
    requests.filter((url) => !url.startsWith(new URL(page.url()).origin) && !url.startsWith('blob:') && !url.startsWith('data:')),
  ).toEqual([]);
});

test('a take is judged by what was heard, in words that promise no more', async ({ page }) => {
  await rehearse(page, 'In time');
  await page.getByTestId('start').click();
  await expect(page.getByText('Play along after the count-in.')).toBeVisible();
  await listenButton(page).click();
  const result = page.getByTestId('result');
  await expect(result).toBeVisible({ timeout: 60_000 });
  await expect(result.getByTestId('figures')).toContainText(`of ${NOTES.length} heard`);
  await expect(result).not.toContainText('wrong');
});

test('a lesson hears by microphone that its phrase was played, and goes on by itself', async ({ page }) => {
  await openSong(page, TITLE);
  await page.getByRole('link', { name: 'Rehearse', exact: true }).click();
  await page.getByRole('link', { name: 'Take the lesson' }).click();
  await page.getByRole('button', { name: 'Wait for me' }).click();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText('Right hand');
  await expect(page.getByTestId('caption')).toContainText('Your turn.', { timeout: 60_000 });
  await listenButton(page).click();
  await expect(heading).toHaveText('Chord by chord', { timeout: 60_000 });
});

test('where the browser refuses, one sentence says so, and the keys go on', async ({ page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('', 'NotAllowedError'));
  });
  await rehearse(page, 'Wait for me');
  await page.getByTestId('start').click();
  await listenButton(page).click();
  await expect(page.getByRole('alert')).toContainText('The browser does not give this page the microphone.');
  await expect(page.getByTestId('live')).toBeHidden();
  await expect(page.getByText('Play the marked keys; the music waits.')).toBeVisible();
});

test('a microphone that is pulled out is told, and nothing is lost', async ({ page }) => {
  await page.addInitScript(() => {
    const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    navigator.mediaDevices.getUserMedia = async (wish) => {
      const stream = await ask(wish);
      (window as { pullOut?: () => void }).pullOut = () => stream.getAudioTracks()[0].dispatchEvent(new Event('ended'));
      return stream;
    };
  });
  await rehearse(page, 'Wait for me');
  await page.getByTestId('start').click();
  await listenButton(page).click();
  await expect(page.getByTestId('live')).toBeVisible();
  await page.evaluate(() => (window as { pullOut?: () => void }).pullOut?.());
  await expect(page.getByRole('alert')).toContainText('The microphone is gone.');
  await expect(page.getByTestId('live')).toBeHidden();
  await expect(page.getByText('Play the marked keys; the music waits.')).toBeVisible();
});
