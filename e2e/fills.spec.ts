import type { Page } from '@playwright/test';
import { dropdown, expect, find, goBeside, pick, openSong, parts, soundingAfter, stacks, test } from './app.js';

const attacks = (page: Page) => page.getByTestId('attack');

test('a texture dresses the chords once they hold, for a part or the song, and the plain ones stay', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: 'With fills' }).click();
  await expect(attacks(page)).toHaveCount(0);
  await dropdown(page, 'Texture').click();
  await page.getByTestId('texture').filter({ hasText: 'bass, chord, chord' }).click();
  await expect(attacks(page)).toHaveCount(7);
  await expect(dropdown(page, 'Texture')).toContainText('bass, chord, chord');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Joined', exact: true }).click();
  await expect(attacks(page)).toHaveCount(0);
  await expect(stacks(page)).toHaveCount(4);
  await page.getByRole('button', { name: 'Count in' }).click();
  const plain = await soundingAfter(page, () => page.keyboard.press('Space'), 3);
  expect(plain.length).toBeGreaterThanOrEqual(3);
  await page.keyboard.press('Space');

  await page.getByRole('button', { name: 'With fills' }).click();
  await page.getByRole('button', { name: 'Undo: bass, chord, chord' }).click();
  await expect(attacks(page)).toHaveCount(0);
});

test('a plan gives every part a texture, and says how it bends', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('button', { name: 'With fills' }).click();
  await dropdown(page, 'Texture').click();
  await page.getByRole('button', { name: 'Suggest one for every part' }).click();
  await expect(attacks(page).first()).toBeVisible();
  await page.getByRole('button', { name: 'Whole song' }).click();
  await page.getByTestId('texture').filter({ hasText: 'rolling over two octaves' }).click();
  await expect(page.getByTestId('bend').first()).toContainText(/under the melody|left out|octave/);
  await page.keyboard.press('Escape');
  for (const part of [2, 5, 8]) {
    await parts(page)
      .nth(part - 1)
      .getByRole('button')
      .first()
      .click();
    await expect(attacks(page).first()).toBeVisible();
  }
});

test('harmony hangs under the tune in the measure that is asked for', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('button', { name: 'With fills' }).click();
  await dropdown(page, 'Texture').click();
  await page.getByRole('button', { name: 'half', exact: true }).click();
  const under = page.locator('jh-join-strip .under');
  await expect(under).toHaveCount(5);
  await page.getByRole('button', { name: 'a quarter' }).click();
  await expect(under).toHaveCount(2);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Joined', exact: true }).click();
  await expect(under).toHaveCount(0);
});

test('a fill is heard in its place, kept, shown and carried to the repeats; or refused', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('button', { name: 'With fills' }).click();
  const room = page.getByTestId('room').first();
  const pebbles = page.getByTestId('pebble');
  await room.click();
  await expect(page.getByTestId('room-where')).toHaveText('From bar 1, count 2, while the melody holds C5.');
  const fill = page.getByTestId('fill').filter({ hasText: 'broken chord' });
  await soundingAfter(page, () => fill.click());
  await expect(pebbles).toHaveCount(0);
  await fill.click();
  await expect(pebbles).toHaveCount(4);
  await expect(room).toHaveAttribute('aria-label', 'Room for 2 counts, broken chord');
  await expect(page.getByTestId('linked')).toContainText('Also in parts 3 and 7.');
  await page.getByRole('button', { name: 'Change those too' }).click();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Part 3' })).toBeVisible();
  await expect(pebbles).toHaveCount(4);
  await page.getByTestId('room').first().focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Leave it empty' }).click();
  await expect(pebbles).toHaveCount(0);
  await expect(page.getByTestId('room').first()).toHaveAttribute('aria-label', /left empty/);
});

test('layers are silent one by one, and the song can be an outline or an accompaniment to a voice', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('4');
  await dropdown(page, 'Texture').click();
  await page.getByTestId('texture').filter({ hasText: 'bass, chord, chord' }).click();
  await expect(attacks(page).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await dropdown(page, 'Layers').click();
  await page.getByRole('checkbox', { name: 'texture' }).uncheck();
  await expect(attacks(page)).toHaveCount(0);
  await page.getByRole('button', { name: 'Only up to bass notes' }).click();
  await expect(dropdown(page, 'Layers')).toContainText('up to bass notes');
  await expect(stacks(page).first()).toHaveAttribute('aria-label', /^[^,]+, [^,]+, [A-G][b#]?\d$/);
  await page.getByRole('button', { name: 'sing-along' }).click();
  await expect(page.getByTestId('pebble').first()).toBeVisible();
  await page.getByRole('button', { name: 'outline' }).click();
  await expect(page.getByTestId('pebble')).toHaveCount(0);
});

test('loudness, endings and the close are chosen on the desk and stand on the sheet', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.keyboard.press('4');
  await dropdown(page, 'Sound').click();
  await page.getByRole('button', { name: 'p', exact: true }).click();
  await page.getByRole('button', { name: 'growing' }).click();
  await page.getByRole('button', { name: 'turnaround (V7)', exact: true }).click();
  await expect(dropdown(page, 'Sound')).toContainText('p <');
  await expect(page.getByRole('button', { name: 'turnaround (V7)', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'rolled' }).click();
  await page.getByRole('button', { name: 'Louder each time it returns' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Sheet' }).click();
  const staff = page.getByTestId('page').first();
  await expect(staff.locator('g.dynam').first()).toBeVisible();
  await expect(staff.locator('g.hairpin').first()).toBeAttached();
});

test('the plan shows every part with its energy and is changed there', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('link', { name: 'Accompaniment' }).click();
  const rows = page.getByTestId('plan-row');
  await expect(rows).toHaveCount(8);
  const texture = (n: number) => dropdown(page, `Texture of part ${n}`);
  await page.getByRole('button', { name: 'Suggest one for every part' }).click();
  await expect(texture(1)).toHaveText('open one, five, ten');
  await page.getByRole('group', { name: 'Energy of part 2' }).getByRole('button', { name: 'Energy 5 of 5' }).click();
  await expect(texture(2)).toHaveText('pushed bass of two bars');
  await page.getByRole('group', { name: 'Energy of Section B' }).getByRole('button', { name: 'Energy 1 of 5' }).click();
  await expect(texture(5)).toHaveText('block chords');
  await expect(texture(6)).toHaveText('block chords');
  await pick(page, 'Texture of part 3', 'freely, in your own way');
  await expect(rows.nth(2)).toContainText('for instance');
  await page.getByRole('button', { name: 'First and second endings' }).click();
  await expect(dropdown(page, 'End of part 2')).toHaveText('turnaround (V7)');
  await expect(dropdown(page, 'End of part 8')).toHaveText('suspended');
  await pick(page, 'First texture', 'octave bass, up and down');
  await pick(page, 'Second texture', 'broken triad');
  await pick(page, 'Where they alternate', 'part 1');
  await page.getByRole('button', { name: 'Two bars each' }).click();
  await expect(texture(1)).toHaveText('octave bass, up and down');
  await page.getByRole('button', { name: 'Hear part 2' }).click();
  await expect(page.getByRole('button', { name: 'Stop part 2' })).toBeVisible();
  await page.getByRole('link', { name: 'Desk' }).click();
  await expect(page.getByTestId('stack').first()).toBeVisible();
});

test('a figure is written on counts, heard, kept, used, saved as a file and read again', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByRole('link', { name: 'Accompaniment' }).click();
  await page.getByRole('link', { name: 'Write your own pattern' }).click();
  const cell = (name: string) => page.getByRole('button', { name, exact: true });
  const name = page.getByLabel('Name of the pattern');
  await name.fill(' ');
  await expect(page.getByText('A pattern needs a name.')).toBeVisible();
  await expect(cell('Save the pattern')).toBeDisabled();
  await name.fill('Tide');
  // One stop for the tab key; the arrow keys go from cell to cell.
  await cell('fifth on 1').focus();
  for (let half = 0; half < 2; half++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowDown');
  await expect(cell('fifth on 2')).toBeFocused();
  await expect(page.locator('[data-cell][tabindex="0"]')).toHaveCount(1);
  await page.keyboard.press('Space');
  await cell('octave on 3').click();
  await expect(cell('octave on 3')).toHaveAttribute('aria-pressed', 'true');
  await cell('Use it in part 1').click();
  await expect(page.getByTestId('own-figure')).toContainText('Tide');
  const saved = page.waitForEvent('download');
  await cell('Save as a file').click();
  const path = await (await saved).path();
  await page.getByRole('button', { name: 'Delete Tide' }).click();
  await expect(page.getByTestId('own-figure')).toHaveCount(0);
  const file = page.getByLabel('From a file');
  await file.setInputFiles({ name: 'wrong.json', mimeType: 'application/json', buffer: Buffer.from('{"figures": 3}') });
  await expect(page.getByRole('alert')).toContainText('There are no patterns in this file.');
  await file.setInputFiles(path);
  await expect(page.getByTestId('own-figure')).toContainText('Tide');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByRole('button', { name: 'Use it in part 1' }).click();
  await page.getByRole('link', { name: 'Desk' }).click();
  await expect(stacks(page).first()).toBeVisible();
  await page.keyboard.press('4');
  await expect(dropdown(page, 'Texture')).toContainText('Tide');
  await expect(attacks(page).first()).toBeVisible();
});

test('two versions are kept, compared bar by bar and by ear, and taken up again', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await goBeside(page, 'Versions');
  await page.getByLabel('Name for the version').fill('Plain');
  await page.getByRole('button', { name: 'Save a version' }).click();
  await expect(page.getByTestId('version')).toContainText('Plain');
  await expect(page.getByTestId('summary')).toHaveText('The two versions are the same in every bar.');
  await page.getByRole('link', { name: 'Accompaniment' }).click();
  await pick(page, 'Texture of part 1', 'bass, chord, chord');
  await expect(dropdown(page, 'Texture of part 1')).toHaveText('bass, chord, chord');
  await goBeside(page, 'Versions');
  await expect(page.getByTestId('summary')).toContainText('bars differ');
  await expect(page.getByTestId('bar').first()).toContainText('bass, chord, chord');
  await expect(page.getByTestId('figure').filter({ hasText: 'Notes to play' })).toHaveClass(/differs/);
  await page.getByRole('button', { name: 'Hear', exact: true }).click();
  await expect(page.locator('tr.heard')).toBeVisible();
  await page.getByRole('button', { name: 'B: now', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('button', { name: 'Go back to Plain' }).click();
  await expect(page.getByTestId('summary')).toHaveText('The two versions are the same in every bar.');
});

test('eighth notes swing through the song, by hand or by name, and are straight again', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.keyboard.press('4');
  await dropdown(page, 'Sound').click();
  const feel = page.getByRole('group', { name: 'Eighth notes, in the whole song' });
  await expect(feel.getByRole('button', { name: 'straight' })).toHaveAttribute('aria-pressed', 'true');
  await feel.getByRole('button', { name: 'swing', exact: true }).click();
  await expect(feel.getByRole('button', { name: 'swing', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo: swing' }).click();
  await find(page, 'light swing');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: light swing' })).toBeVisible();
});

test('chords of the accompaniment are struck short, in a part or in the whole song, and come an eighth early', async ({
  page,
}) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('4');
  await dropdown(page, 'Sound').click();
  const touch = page.getByRole('group', { name: 'How the accompaniment’s chords are struck' });
  await touch.getByRole('button', { name: 'short' }).click();
  await expect(touch.getByRole('button', { name: 'short' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowDown');
  await dropdown(page, 'Sound').click();
  await expect(touch.getByRole('button', { name: 'held' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Escape');
  await find(page, 'staccato');
  await expect(page.getByRole('option').first()).toContainText('Accompaniment chords:');
  await page.keyboard.press('Escape');
  await page.keyboard.press('3');
  await dropdown(page, 'Left hand').click();
  await page.getByRole('group', { name: 'Chord timing' }).getByRole('button', { name: 'an eighth early' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Undo: chords an eighth early' })).toBeVisible();
  await expect(stacks(page).nth(1)).toHaveAttribute('aria-description', /count .*and|count .*&/);
});
