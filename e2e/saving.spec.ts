import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import { choose, expect, openSong, test } from './app.js';

const bytesOf = async (file: Download) => readFileSync(await file.path());

async function saved(page: Page, entry: string): Promise<Download> {
  const [file] = await Promise.all([page.waitForEvent('download'), choose(page, 'Save', entry)]);
  return file;
}

test('an arrangement is saved as sound, whole and compressed, and as a picture', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(page.getByTestId('page').first()).toBeVisible();

  const wav = await saved(page, 'Sound (WAV)');
  expect(wav.suggestedFilename()).toBe('all-aboard-for-nettle-point.wav');
  const data = await bytesOf(wav);
  expect(data.subarray(0, 4).toString()).toBe('RIFF');
  // 16 bars of 2/4 at three quarters of 112 quarter notes a minute, and what rings on: some 23 seconds of two channels.
  const seconds = data.readUInt32LE(40) / (44_100 * 4);
  expect(seconds).toBeGreaterThan(15);
  expect(seconds).toBeLessThan(40);
  const loudest = new Int16Array(data.buffer.slice(data.byteOffset + 44, data.byteOffset + 44 + 44_100 * 4 * 4)).reduce(
    (most, v) => Math.max(most, Math.abs(v)),
    0,
  );
  expect(loudest).toBeGreaterThan(1000);

  const small = await bytesOf(await saved(page, 'Sound, compressed (WebM)'));
  expect(small.readUInt32BE(0)).toBe(0x1a45dfa3);
  expect(small.length).toBeGreaterThan(50_000);
  expect(small.length).toBeLessThan(data.length / 4);

  const picture = await saved(page, 'Picture of the first page (PNG)');
  expect(picture.suggestedFilename()).toBe('all-aboard-for-nettle-point-staff.png');
  const png = await bytesOf(picture);
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.readUInt32BE(16)).toBeGreaterThan(1000);
});

test('a sound file that is being made can be let go', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('link', { name: 'Sheet' }).click();
  await choose(page, 'Save', 'Sound (WAV)');
  await expect(page.getByRole('progressbar', { name: 'Making the sound file' })).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.locator('.toast')).toContainText('No sound file was made.');
  await expect(page.getByRole('button', { name: 'Save', exact: false }).first()).toBeVisible();
});

test('the strip of a part is saved as a picture', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  const [file] = await Promise.all([page.waitForEvent('download'), choose(page, 'Change part 2', 'Save as a picture')]);
  expect(file.suggestedFilename()).toBe('harbour-glass-part-2.png');
  const png = await bytesOf(file);
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.readUInt32BE(16)).toBeGreaterThan(1000);
  expect(png.length).toBeGreaterThan(20_000);
});
