import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inversionsDrill } from '../core/src/catalogue/drills/inversions.js';
import { midiOf } from '../core/src/pitch/index.js';
import { handsOf } from '@joined-hands/core/song';
import { heardInRoom, QUIET_ROOM, RATE, type Struck } from '../core/testing/pianos.js';
import { wavFrom } from '../core/testing/sounds.js';
import { expect, goBeside, openSong, test } from './app.js';
import { hearing } from './chromium.js';

/** Four keys one after another: a span of a fifth, and then the widest, a sixth. */
const SINGLE = [43, 50, 43, 52];
/** When the last of them has been struck, and the chords begin, in seconds. */
const CHORDS_FROM = 14;
const CHORDS = inversionsDrill('C', 'left', handsOf())?.tasks[0].grips ?? [];

const file = join(tmpdir(), 'joined-hands-single-keys.wav');
const struck = [
  ...SINGLE.map((midi, i): Struck => ({ midi, time: 5 + 1.6 * i, length: 1.2, loudness: 0.6 })),
  ...CHORDS.flatMap((grip, i) =>
    grip.pitches.map((pitch): Struck => ({ midi: midiOf(pitch), time: CHORDS_FROM + 1.8 * i, length: 1.3, loudness: 0.6 })),
  ),
];
writeFileSync(file, wavFrom(heardInRoom([struck], { ...QUIET_ROOM, piano: 'set' })[0], RATE));

test.use({ launchOptions: hearing(file) });

test('a hand is measured by the keys that the microphone hears', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await goBeside(page, 'Hands');
  await page.getByRole('button', { name: 'Measure' }).first().click();
  await page.getByTestId('listen-by-microphone').click();
  await expect(page.getByText('measured: a fifth, 7 half steps')).toBeVisible();
  await expect(page.getByLabel('at most').first()).toHaveValue('9');
});

test('the pianist’s own keys for a chord are taken one by one from what is heard', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByTestId('stack').first().click();
  await page.getByTestId('own-keys').click();
  await page.getByTestId('listen-by-microphone').click();
  await expect(page.getByText('G2 D3', { exact: false }).first()).toBeVisible();
  await expect(page.getByText(/^G2 D3 E3/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep these keys' }).click();
  await expect(page.getByTestId('stack').first()).toHaveAccessibleName(/G2, D3, E3/);
});

test('a drill hears its chords by microphone', async ({ page }) => {
  await page.goto('/drills');
  await page.getByRole('button', { name: 'Inversions One chord' }).click();
  await page.getByLabel('Chord').fill('C');
  await page.getByLabel('Chord').press('Enter');
  await page.getByTestId('listen-by-microphone').click();
  await expect(page.getByTestId('heard-letters')).toContainText('E');
  await page.getByRole('button', { name: 'Start (space)' }).click();
  await expect(page.getByTestId('grips').locator('.done')).toHaveCount(2);
  await expect(page.getByTestId('drill-result')).toBeVisible();
});
