import { arrange } from '../core/src/arrange/index.js';
import { midiOf } from '../core/src/pitch/index.js';
import { TICKS_PER_QUARTER as Q } from '../core/src/time/index.js';
import { heardInRoom, QUIET_ROOM, RATE, type Struck } from '../core/testing/pianos.js';
import { demo } from '../core/testing/songs.js';
import { wavFrom } from '../core/testing/sounds.js';
import { expect, test } from './app.js';

/** Two parts of a demo song on a sampled piano, at 100 quarter notes a minute. */
function played(): Buffer {
  const { score, parts } = arrange(demo('all-aboard-for-nettle-point.musicxml'));
  const quarter = 60 / 100;
  const take = score
    .filter((n) => n.at < parts[1].end)
    .map((n): Struck => ({
      midi: midiOf(n.pitch),
      time: (n.at / Q) * quarter,
      length: Math.max(0.1, (n.length / Q) * quarter),
      loudness: n.loudness,
    }));
  const [sound] = heardInRoom([take], { ...QUIET_ROOM, piano: 'set' });
  return Buffer.from(wavFrom(sound, RATE));
}

test('a recording becomes a draft: its notes, its chords, what was not clear, heard beside what was made of it', async ({
  page,
}) => {
  const elsewhere: string[] = [];
  page.on(
    'request',
    (r) =>
      !/^(blob:|data:)/.test(r.url()) &&
      !r.url().startsWith('http://127.0.0.1') &&
      !r.url().startsWith('http://localhost') &&
      elsewhere.push(r.url()),
  );
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Choose a file' }).first().click();
  const field = page.locator('input[type=file]');
  await field.setInputFiles({ name: 'quay.wav', mimeType: 'audio/wav', buffer: Buffer.from('no sound') });
  await expect(page.getByTestId('fault')).toContainText('quay.wav is no sound file that this browser can open.');
  await field.setInputFiles({ name: 'quay.wav', mimeType: 'audio/wav', buffer: played() });
  await expect(page.getByTestId('draft')).toContainText(/This is a draft: \d+ notes heard in quay\.wav/, { timeout: 90_000 });
  await expect(page.getByText('A recording may be protected')).toBeVisible();
  await expect(page.getByTestId('preview').getByTestId('stone').first()).toBeVisible();
  await page.getByRole('button', { name: 'Hear the recording' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Hear what was made of it' }).click();
  await expect(page.getByRole('button', { name: 'Hear the recording' })).toBeVisible();
  await page.getByTestId('keep').click();
  await page.waitForURL('**/desk/**');
  await page.getByTestId('part').first().waitFor();
  await expect(page.getByRole('banner')).toContainText('quay');
  // What is wrong is put right by hand, note by note, and taken back.
  const stone = page.getByTestId('stone').first();
  const letter = (await stone.textContent()) ?? '';
  await stone.click();
  await page.getByRole('button', { name: 'Correct this note' }).click();
  await page.getByRole('button', { name: 'Half step down' }).click();
  await expect(stone).not.toHaveText(letter);
  await page.getByRole('button', { name: 'Undo: a note a half step lower' }).click();
  await expect(stone).toHaveText(letter);
  expect(elsewhere).toEqual([]);
});
