import type { Page } from '@playwright/test';
import jsQR from 'jsqr';
import { readFileSync } from 'node:fs';
import { expect, goBeside, openSong, pick, test } from './app.js';

/** What a code on the page says to whoever photographs it. */
async function readCode(page: Page): Promise<string | undefined> {
  const code = page.getByTestId('code');
  await expect(code).toBeVisible();
  // One letter a dot: light or dark.
  const { dots, width } = await code.evaluate(async (picture: HTMLImageElement) => {
    await picture.decode();
    const canvas = new OffscreenCanvas(picture.naturalWidth, picture.naturalHeight);
    const pen = canvas.getContext('2d');
    pen?.drawImage(picture, 0, 0);
    const { data } = pen?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: new Uint8ClampedArray() };
    let dots = '';
    for (let i = 0; i < data.length; i += 4) dots += data[i] < 128 ? 'x' : ' ';
    return { dots, width: canvas.width };
  });
  const pixels = Uint8ClampedArray.from({ length: 4 * dots.length }, (_, i) => (i % 4 < 3 && dots[i >> 2] === 'x' ? 0 : 255));
  return jsQR(pixels, width, dots.length / width)?.data;
}

const link = (page: Page) => page.getByTestId('link').inputValue();

test('a song goes to a pupil by a link or a code, with a task, and is shown before it stands on the shelf', async ({
  page,
  browser,
}) => {
  await openSong(page, 'Lamps Across the Sound');
  await goBeside(page, 'Pass it on');
  await expect(page.getByTestId('link')).toHaveValue(/received#1-/);
  expect(await readCode(page)).toBe(await link(page));
  await page.getByRole('button', { name: 'Add a part to practise' }).click();
  await pick(page, 'Work', 'right hand alone');
  await page.getByLabel('A note to go with it').fill('Slowly, and count aloud.');
  await expect(async () => expect(await readCode(page)).toBe(await link(page))).toPass();
  const sent = await link(page);

  const other = await browser.newContext();
  const pupil = await other.newPage();
  const asked: string[] = [];
  pupil.on('request', (r) => asked.push(r.url()));
  await pupil.goto(sent);
  await expect(pupil.getByRole('heading', { level: 1 })).toHaveText('Lamps Across the Sound');
  await expect(pupil.getByText('G minor, five parts, ♩ = 88')).toBeVisible();
  await expect(pupil.getByTestId('task')).toContainText('Slowly, and count aloud.');
  await expect(pupil.getByTestId('stone').first()).toBeVisible();
  // What stands behind the "#" never leaves the browser.
  expect(asked.filter((url) => url.includes('1-'))).toEqual([]);
  await pupil.getByTestId('keep').click();
  await pupil.waitForURL('**/rehearse/**');
  const task = pupil.getByTestId('task');
  await expect(task).toContainText('Slowly, and count aloud.');
  await task.getByRole('button', { name: 'Part 1, right hand alone' }).click();
  await expect(pupil.getByTestId('step')).toHaveText('right hand alone');
  await pupil.reload();
  await task.getByRole('button', { name: 'It is done' }).click();
  await expect(task).toBeHidden();

  // The same as a file, where the link is too long for somebody's mail.
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const file = await (await saving).path();
  await pupil.goto('/intake');
  await pupil.getByRole('button', { name: 'Choose a file' }).click();
  await pupil
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'lamps.json',
      mimeType: 'application/json',
      buffer: readFileSync(file),
    });
  await pupil.getByRole('button', { name: 'Open it on the desk' }).click();
  await expect(task).toContainText('Slowly, and count aloud.');
  await other.close();
});

test('what was practised goes back by a link, twice without harm', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openSong(page, 'Lamps Across the Sound');
  await goBeside(page, 'Pass it on');
  await page.getByRole('button', { name: 'Copy a link to the log' }).click();
  await expect(page.getByText('The link is copied.')).toBeVisible();
  const sent = await page.evaluate(() => navigator.clipboard.readText());
  const passes = async () => {
    await page.goto('/log');
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(page.getByTestId('summary')).not.toBeEmpty();
    return page.getByTestId('summary').textContent();
  };
  const before = await passes();
  for (let i = 0; i < 2; i++) {
    await page.goto(sent);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Practice log of “Lamps Across the Sound”');
    await page.getByTestId('merge').click();
    await expect(page.getByText('It is in your log.')).toBeVisible();
    await page.goto('about:blank');
  }
  expect(await passes()).toBe(before);
});

test('a link that is cut off, newer or no link is answered in one sentence', async ({ page }) => {
  for (const [letters, says] of [
    ['1-abcdef', 'This link is not whole. Ask for it again, or for the file.'],
    ['9-abcdef', 'This link was made by a newer version (9). Update Joined Hands to open it.'],
    [`1-${'A'.repeat(1_200_000)}`, 'This link holds more than a song. Ask for the file instead.'],
    ['1-%%%', 'This link is not whole. Ask for it again, or for the file.'],
    ['', 'This link is not whole. Ask for it again, or for the file.'],
  ] as const) {
    await page.goto('about:blank');
    await page.goto(`/received#${letters}`);
    await expect(page.getByRole('alert')).toHaveText(says);
  }
  await page.getByRole('button', { name: 'Go to the shelf' }).click();
  await page.waitForURL('**/shelf');
});
