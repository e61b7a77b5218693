import { midiOf } from '@joined-hands/core/pitch';
import type { Page } from '@playwright/test';
import { dropdown, expect, goBeside, keysOf, openSong, soundingAfter, stacks, standInDevice, test } from './app.js';

const key = (page: Page, pitch: string) => page.locator(`jh-keyboard rect[data-midi="${midiOf(pitch)}"]`);
const names = (page: Page) =>
  stacks(page).evaluateAll((all) => all.map((s) => (s.getAttribute('aria-label') ?? '').split(',')[0]));

test('a school is compared before it is chosen, for a chord, a part and the song', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await dropdown(page, 'Left hand').click();
  const schools = page.getByTestId('school');
  await expect(schools).toHaveCount(9);
  await expect(schools.first()).toContainText('now');
  await expect(schools.nth(1)).toContainText('more');
  await schools.filter({ hasText: 'root octaves' }).getByRole('button').click();
  await expect(stacks(page).first()).toHaveAccessibleName(/root position, F\d, F\d/);
  await expect(dropdown(page, 'Left hand')).toContainText('root octaves');

  await page.getByRole('button', { name: 'This chord' }).click();
  await schools.filter({ hasText: 'one bass note' }).getByRole('button').click();
  await expect(stacks(page).first()).toHaveAccessibleName(/root position, F\d$/);
  await expect(stacks(page).nth(1)).toHaveAccessibleName(/root position, D\d, D\d$/);
  await page.keyboard.press('Escape');
  await expect(schools.first()).toBeHidden();
  await page.getByRole('button', { name: 'Undo: one bass note' }).click();
  await expect(stacks(page).first()).toHaveAccessibleName(/root position, F\d, F\d/);
});

test('the chord goes under the tune into the right hand, and is seen there', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await dropdown(page, 'Left hand').click();
  await page.getByTestId('school').filter({ hasText: 'chord under the melody' }).getByRole('button').click();
  await page.keyboard.press('Escape');
  await expect(page.locator('jh-join-strip .under').first()).toBeVisible();
  await page.getByRole('button', { name: 'Count in' }).click();
  const keys = await soundingAfter(page, () => page.keyboard.press('Space'), 4);
  expect(keys.length).toBeGreaterThanOrEqual(4);
  await page.keyboard.press('Space');
});

test('chords are suggested for one part, and the given ones come back', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  const given = await names(page);
  await dropdown(page, 'Chords').click();
  await page.getByRole('button', { name: 'Part 1', exact: true }).click();
  await page.getByRole('button', { name: 'six triads' }).click();
  await expect(dropdown(page, 'Chords')).toContainText('suggested, six triads');
  await expect.poll(() => names(page)).not.toEqual(given);
  expect((await names(page)).every((n) => / (major|minor)$/.test(n))).toBe(true);
  await page.getByRole('button', { name: 'Use the original chords' }).click();
  await expect.poll(() => names(page)).toEqual(given);
});

test('a bare tune gets chords by itself', async ({ page }) => {
  await page.goto('/intake');
  await page
    .getByLabel('Letter lines')
    .fill('title: Mooring line\nkey: C major\ntime: 4/4\ntune: C5 E5 G5 E5 | A5 F5 A5 F5 | G5 F5 D5 B4 | C5 - - - |\n');
  await page.getByRole('button', { name: 'Open it on the desk' }).click();
  // What was typed a moment ago is what stands on the desk.
  await expect(page.getByTestId('song-title')).toHaveText('Mooring line');
  await expect(stacks(page).first()).toHaveAccessibleName(/^C major/);
  await expect(page.getByText(/chords were suggested for its melody/)).toBeVisible();
  await expect(page.getByTestId('named')).toContainText('Suggested for the melody.');
});

test('another chord is heard with its reason, kept, turned over, split and left out', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  const other = page.getByTestId('other-chord').first();
  await expect(page.getByTestId('other-chord')).toHaveCount(3);
  await expect(other).toContainText('It has');
  const symbol = (await other.locator('b').textContent())?.trim() ?? '';
  await soundingAfter(page, () => other.click(), 3);
  await expect(other).toContainText('press to keep');
  await other.click();
  await expect(page.getByRole('button', { name: `Undo: write ${symbol}` })).toBeVisible();
  await page.getByRole('button', { name: 'Restore it' }).click();
  await expect(stacks(page).first()).toHaveAccessibleName(/^F major seventh/);

  const before = await keysOf(stacks(page).first());
  await page.getByRole('button', { name: 'Inversion up' }).click();
  await expect(stacks(page).first()).toHaveAccessibleName(/your choice/);
  const after = await keysOf(stacks(page).first());
  expect(midiOf(after.split(' ')[0])).toBeGreaterThan(midiOf(before.split(' ')[0]));

  await page.getByRole('button', { name: 'Split the bar' }).click();
  await expect(stacks(page)).toHaveCount(5);
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(stacks(page)).toHaveCount(4);
  await stacks(page).nth(1).click();
  const kind = page.getByTestId('kind').filter({ hasText: 'D7' }).first();
  await kind.click();
  await kind.click();
  await expect(stacks(page).nth(1)).toHaveAccessibleName(/^D dominant seventh/);
  await page.getByRole('button', { name: 'Only here' }).click();
  const way = page.getByTestId('approach').first();
  await way.click();
  await way.click();
  await expect(stacks(page)).toHaveCount(5);
});

test('a conflict is named and mended by one press', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByRole('button', { name: 'Part 3, A′' }).click();
  const conflict = page.getByTestId('finding').filter({ hasText: 'contradicts' });
  await expect(conflict).toContainText('the melody’s F5 contradicts F♯3, the third of D.');
  await conflict.getByRole('button').first().click();
  await expect(page.getByRole('heading', { name: 'D major' })).toBeVisible();
  await expect.poll(() => conflict.getByTestId('fix').count()).toBeGreaterThan(1);
  await conflict.getByTestId('fix').first().click();
  await expect(conflict).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(conflict).toHaveCount(1);
});

test('every chord that holds a note is heard and used from the note', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByTestId('stone').nth(2).click();
  await expect(page.getByTestId('note-facts')).toContainText('sounds under it');
  await expect.poll(() => page.getByTestId('holding').count()).toBeGreaterThan(5);
  await page.getByText('more outside the key').click();
  const outside = page.getByTestId('holding-outside').first();
  await outside.click();
  await expect(outside).toContainText('press to keep');
  await outside.click();
  await expect(page.getByTestId('position')).toBeVisible();
  await expect(stacks(page)).toHaveCount(5);
});

test('a note of the melody is spelled the other way, and its repeats too', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  const stone = page.getByTestId('stone').nth(3);
  await expect(stone).toHaveAccessibleName(/B♭|Bb/);
  await stone.click();
  await page.getByRole('button', { name: /^Spell it A/ }).click();
  await expect(stone).toHaveAccessibleName(/A♯|A#/);
  await expect(page.getByRole('button', { name: /^Undo: spell it A/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Spell it B/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(stone).toHaveAccessibleName(/B♭|Bb/);
});

test('the right hand rests on one note while the chords move', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  const chords = await names(page);
  await dropdown(page, 'Melody').click();
  await page.getByRole('button', { name: 'both by turns' }).click();
  await page.getByRole('button', { name: 'one long note a bar' }).click();
  await expect(page.getByTestId('stone').nth(1)).toHaveAccessibleName(/^[GD]\d, finger \d$/);
  expect(await names(page)).toEqual(chords);
  await page.getByRole('button', { name: 'the melody', exact: true }).click();
  await expect(page.getByTestId('stone').first()).toHaveAccessibleName(/, on /);
});

test('the whole left hand is seen at once, its shapes counted', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('button', { name: 'Left hand', exact: true }).click();
  await page.getByRole('button', { name: 'Whole song' }).click();
  await expect(page.getByTestId('shapes')).toContainText(/^\w+ left-hand shapes to learn, in \w+ places\./);
  const grip = page.getByTestId('grip').filter({ hasText: 'Am7' }).first();
  await grip.click();
  await expect(page.getByRole('heading', { name: 'A minor seventh' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Part 2' }).first()).toBeVisible();
});

test('a hand is measured on the keys, and what no longer fits is listed', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await goBeside(page, 'Hands');
  await expect(page.locator('.care')).toContainText('A teacher can help with technique');
  await expect(page.getByText('Every chord fits your hands and keyboard')).toBeVisible();
  await page.getByRole('button', { name: 'Measure' }).first().click();
  await expect(page.getByText('Left hand: press the lowest key you can reach comfortably.')).toBeVisible();
  await key(page, 'C3').click();
  await key(page, 'D3').click();
  await expect(page.getByRole('alert')).toContainText('That is a whole step');
  for (const pitch of ['C3', 'G3', 'C3', 'A3']) await key(page, pitch).click();
  await expect(page.getByText('measured: a fifth, 7 half steps')).toBeVisible();
  await expect(page.getByLabel('at most').first()).toHaveValue('9');
  await expect(page.getByTestId('misfit').first()).toBeVisible();
  await page.getByRole('link', { name: 'Go to the desk' }).click();
  await expect(stacks(page).first()).toBeVisible();
  for (const stack of await stacks(page).all()) {
    const keys = (await keysOf(stack)).split(' ').map(midiOf);
    expect(Math.max(...keys) - Math.min(...keys)).toBeLessThanOrEqual(9);
  }
  await expect(dropdown(page, 'Hand')).toContainText('measured hand');
});

test('a first-year player on a short keyboard gets two notes at a time', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await goBeside(page, 'Hands');
  await page.getByLabel('First year').check();
  await page.getByRole('button', { name: '49 keys' }).click();
  await expect(page.locator('jh-keyboard rect')).toHaveCount(49);
  await page.getByRole('link', { name: 'Go to the desk' }).click();
  await expect(stacks(page).first()).toBeVisible();
  for (const stack of await stacks(page).all()) expect((await keysOf(stack)).split(' ')).toHaveLength(2);
});

test('a connected keyboard measures too, and its absence is answered with a way out', async ({ page }) => {
  const device = await standInDevice(page);
  await openSong(page, 'Harbour Glass');
  await goBeside(page, 'Hands');
  const connect = page.getByRole('button', { name: 'Use a connected keyboard' });
  await connect.click();
  await expect(page.getByRole('alert')).toContainText('The keys on the screen do the same.');
  await device.plugIn();
  await connect.click();
  await expect(page.getByText('Listening to Stand-in keys.')).toBeVisible();
  await page.getByRole('button', { name: 'Measure' }).last().click();
  for (const midi of [60, 69, 60, 72]) await device.send(0x90, midi, 90);
  await expect(page.getByText('measured: a major sixth, 9 half steps')).toBeVisible();
  await expect(page.getByLabel('at most').last()).toHaveValue('12');
});

test('the pianist’s own keys are pressed, named and kept, for one chord or wherever it comes', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('2');
  await page.keyboard.press('ArrowRight');
  await stacks(page).first().click();
  await expect(stacks(page).first()).toHaveAccessibleName(/^G minor/);
  await page.getByTestId('own-keys').click();
  for (const pitch of ['G2', 'D3', 'Bb3']) await key(page, pitch).click();
  await expect(page.getByText('G2 D3 B♭3: G minor.')).toBeVisible();
  await key(page, 'Bb3').click();
  await expect(page.getByText('G2 D3.', { exact: true })).toBeVisible();
  await key(page, 'Bb3').click();
  await page.getByRole('button', { name: 'Keep these keys' }).click();
  await expect(stacks(page).first()).toHaveAccessibleName(/G2, D3, Bb3/);
  await expect(stacks(page).nth(1)).not.toHaveAccessibleName(/G2, D3, Bb3/);
  await page.getByTestId('wherever').click();
  await expect(stacks(page).nth(1)).toHaveAccessibleName(/^G minor.*G2, D3, Bb3/);
  await page.getByRole('button', { name: /^Undo: Gm as G2 D3 Bb3 everywhere/ }).click();
  await expect(stacks(page).nth(1)).not.toHaveAccessibleName(/G2, D3, Bb3/);
});

test('own keys are taken from a connected keyboard too', async ({ page }) => {
  const device = await standInDevice(page);
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('2');
  await stacks(page).first().click();
  await page.getByTestId('own-keys').click();
  await device.plugIn();
  await page.getByRole('button', { name: 'Use a connected keyboard' }).click();
  await expect(page.getByText('or on Stand-in keys')).toBeVisible();
  for (const pitch of ['G2', 'Bb2', 'D3']) await device.send(0x90, midiOf(pitch), 90);
  await expect(page.getByText('G2 B♭2 D3: G minor.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep these keys' }).click();
  await expect(stacks(page).first()).toHaveAccessibleName(/G2, Bb2, D3, your choice/);
});

test('a left hand lies an octave lower for a part, and dominants have the notes that are wished for', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('2');
  const before = await stacks(page).first().getAttribute('aria-label');
  await dropdown(page, 'Left hand').click();
  await page.getByRole('group', { name: 'Apply to' }).getByRole('button', { name: 'Part 1' }).click();
  await page.getByRole('group', { name: 'Octave of the left hand' }).getByRole('button', { name: 'down' }).click();
  await expect(stacks(page).first()).not.toHaveAccessibleName(before ?? '');
  await page.getByRole('group', { name: 'Notes of dominant sevenths' }).getByRole('button', { name: 'four notes' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Undo: dominant sevenths: four notes' })).toBeVisible();
});

test('the left hand of a two-handed file is played as it was written, and the pattern of before comes back', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await page.keyboard.press('4');
  const texture = dropdown(page, 'Texture');
  const blocks = () => page.getByTestId('strip').locator('rect.block').count();
  await stacks(page).first().waitFor();
  const inChords = await blocks();
  await texture.click();
  await page.getByTestId('texture').filter({ hasText: 'one, five, eight, ten and back' }).click();
  await expect.poll(blocks).toBeGreaterThan(inChords);
  const written = page.getByRole('button', { name: 'Left hand as written', exact: true });
  await written.click();
  await expect(written).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Escape');
  await expect(texture).toContainText('as written');
  // The file has a chord to a bar.
  await expect.poll(blocks).toBe(inChords);
  await page.getByRole('button', { name: 'Undo: play the left hand as written' }).click();
  await expect(texture).toContainText('one, five, eight, ten and back');
  await expect.poll(blocks).toBeGreaterThan(inChords);
});

test('a left hand of one’s own is written count by count, given to the next chord, and taken back', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await page.keyboard.press('4');
  await stacks(page).first().click();
  const before = await keysOf(stacks(page).first());
  await page.getByTestId('own-hand').click();
  const counts = page.getByTestId('own-count');
  await expect(counts.first()).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'half counts' }).click();
  for (const midi of [43, 50]) {
    await counts.nth(midi === 43 ? 2 : 3).click();
    await page.locator(`jh-keyboard [data-midi="${midi}"]`).first().click();
  }
  await expect(counts.nth(2)).toContainText('G2');
  await counts.nth(1).click();
  await page.getByRole('button', { name: 'Let go here' }).click();
  await page.getByTestId('keep-hand').click();
  await expect(page.getByRole('button', { name: /^Undo: your own left hand for/ })).toBeVisible();
  await page.getByTestId('give').click();
  await expect(page.getByTestId('given')).toContainText('has it too.');
  await page.getByRole('button', { name: /^Undo: your own left hand given for/ }).click();
  await page.getByRole('button', { name: /^Undo: your own left hand for/ }).click();
  await expect.poll(() => keysOf(stacks(page).first())).toBe(before);
});

test('a second voice is written beside the melody, and a left hand is played in to it', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByTestId('stone').first().click();
  await page.getByTestId('own-hand').click();
  const counts = page.getByTestId('own-count');
  await counts.nth(2).click();
  await page.locator('jh-keyboard [data-midi="65"]').first().click();
  await expect(counts.nth(2)).toContainText('F4');
  await page.getByTestId('keep-hand').click();
  await expect(page.getByTestId('pebble').first()).toContainText('F');
  await expect(page.getByRole('button', { name: /^Undo: your own second voice/ })).toBeVisible();

  await stacks(page).first().click();
  await page.getByTestId('own-hand').click();
  // A whole part lasts longer than any press takes.
  await page.getByRole('button', { name: 'for the part' }).click();
  await page.getByTestId('play-in-hand').click();
  // One bar is counted; then a key is held where the music has come.
  await expect(page.getByText('your keys are written down')).toBeVisible();
  await expect(page.getByTestId('playhead')).toHaveCount(1);
  await page.locator('jh-keyboard [data-midi="41"]').first().click();
  await page.getByRole('button', { name: 'Stop', exact: true }).first().click();
  await expect(page.getByTestId('given')).toContainText('Written down as you played it.');
  await expect(page.getByRole('group', { name: 'Counts' })).toContainText('F2');
});
