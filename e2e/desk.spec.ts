import { midiOf } from '@joined-hands/core/pitch';
import { choose, expect, keysOf, pick, openSong, parts, soundingAfter, stacks, test } from './app.js';

const midis = (keys: string) =>
  keys
    .split(' ')
    .map(midiOf)
    .sort((a, b) => a - b);

test('a demo song opens in numbered parts with chords under the tune', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await expect(parts(page)).toHaveCount(5);
  await expect(page.getByRole('heading', { name: 'Part 1' })).toBeVisible();
  await expect(stacks(page)).toHaveCount(4);
  await expect(stacks(page).first()).toHaveAccessibleName(/^G minor, root position, G3, Bb3, D4/);
  await expect(page.getByTestId('position')).toContainText('root position');
  await parts(page).nth(3).getByRole('button').first().click();
  await expect(page.getByRole('heading', { name: 'Part 4' })).toBeVisible();
  await expect(page.getByText('so slowly, turn her, old boat, and near;')).toBeVisible();
});

test('another inversion is tried by ear, kept, seen everywhere, and taken back', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  const chord = stacks(page).nth(1);
  await expect(chord).toHaveAccessibleName(/^F major/);
  await expect(chord).toHaveAttribute('aria-pressed', 'true');
  const before = await keysOf(chord);
  const why = await page.getByTestId('why').textContent();
  const hear = () => page.getByRole('button', { name: 'Hear', exact: true }).click();
  expect(await soundingAfter(page, hear)).toEqual(midis(before));

  const other = page.getByTestId('alternative').first();
  await other.click();
  await expect(other).toContainText('press to keep');
  // What the search has against it is said while it is heard.
  await expect(page.getByTestId('why-not')).toHaveText(/ would .+\.$/);
  expect(await keysOf(chord)).toBe(before);
  await other.click();
  await expect(chord).toHaveAccessibleName(/your choice/);
  const after = await keysOf(chord);
  expect(after).not.toBe(before);
  await expect(page.getByTestId('why')).toContainText('You chose this voicing.');
  await expect(page.locator('jh-keyboard rect.sounding')).toHaveCount(0);
  expect(await soundingAfter(page, hear)).toEqual(midis(after));

  await page.keyboard.press('Control+z');
  await expect(chord).not.toHaveAccessibleName(/your choice/);
  expect(await keysOf(chord)).toBe(before);
  await expect(page.getByTestId('why')).toHaveText(why ?? '');
  await page.keyboard.press('Control+Shift+z');
  await expect(chord).toHaveAccessibleName(/your choice/);
  expect(await keysOf(chord)).toBe(after);
});

test('space plays the joined hands with a playhead and stops them', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await page.getByRole('button', { name: 'Count in' }).click();
  // The tune goes on over the first chord; a busy machine looks a note or two later.
  const keys = await soundingAfter(page, () => page.keyboard.press('Space'), 4);
  expect(keys.slice(0, 3)).toEqual(midis('D3 F#3 A3'));
  expect(midis('F#4 A4 B4 G4')).toContain(keys[3]);
  await expect(page.getByTestId('playhead')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(page.getByTestId('playhead')).not.toBeAttached();
  await expect(page.locator('jh-keyboard rect.sounding')).toHaveCount(0);
});

test('the right hand alone sounds one key at a time, and the switch fades the other', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByRole('button', { name: 'Count in' }).click();
  for (const [name, view] of [
    ['Left hand', 'left'],
    ['With fills', 'fills'],
    ['Joined', 'joined'],
    ['Right hand', 'right'],
  ]) {
    await page.getByRole('button', { name, exact: true }).click();
    await expect(page.locator('jh-join-strip')).toHaveAttribute('data-view', view);
  }
  const [key, ...others] = await soundingAfter(page, () => page.keyboard.press('Space'));
  expect(others).toEqual([]);
  expect(['D4', 'G4', 'A4', 'Bb4', 'C5'].map(midiOf)).toContain(key);
});

test('a chord is rewritten, and a slip is answered with a way out', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  const field = page.getByLabel('Chord symbol');
  await field.fill('Gmx');
  await page.getByRole('button', { name: 'Write', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('“Gmx” is not a chord symbol.');
  await expect(stacks(page).first()).toHaveAccessibleName(/^G minor/);
  await field.fill('Eb');
  await field.press('Enter');
  await expect(stacks(page).first()).toHaveAccessibleName(/^Eb major/);
  await page.getByRole('button', { name: 'Undo: write Eb' }).click();
  await expect(stacks(page).first()).toHaveAccessibleName(/^G minor/);
});

test('a chord is written under a note that had none', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByTestId('stone').nth(2).click();
  await page.getByLabel('Chord symbol').fill('D7');
  await page.getByRole('button', { name: 'Write a chord here' }).click();
  await expect(stacks(page)).toHaveCount(5);
  await expect(page.getByRole('heading', { name: 'D dominant seventh' })).toBeVisible();
});

test('parts are cut, joined, named, moved and resized, each step taken back', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByTestId('stone').nth(5).click();
  await page.getByRole('button', { name: 'Start a part here' }).click();
  await expect(parts(page)).toHaveCount(6);
  await expect(page.getByRole('heading', { name: 'Part 2' })).toBeVisible();

  const menu = (part: number, entry: string) => choose(page, `Change part ${part}`, entry);
  await menu(2, 'Merge with part 1');
  await expect(parts(page)).toHaveCount(5);
  await expect(page.getByRole('heading', { name: 'Part 1' })).toBeVisible();
  await menu(2, 'Name this part');
  await page.getByLabel('Name of the part').fill('The rail');
  await page.keyboard.press('Enter');
  await expect(parts(page).nth(1)).toContainText('The rail · bars 5–8');
  await menu(2, 'Start one note later');
  await expect(parts(page).first()).toContainText('9 notes');
  await page.getByRole('button', { name: 'smaller' }).click();
  await expect.poll(() => parts(page).count()).toBeGreaterThan(5);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  await expect(parts(page)).toHaveCount(5);
  await expect(parts(page).nth(1)).toContainText('Bars 5–8');
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
});

test('a cut is dragged along the ruler', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByTestId('stone')).toHaveCount(11);
  const grip = page.locator('.cut .grip').first();
  const target = page.getByTestId('stone').nth(1).locator('circle');
  const [from, to] = [await grip.boundingBox(), await target.boundingBox()];
  if (!from || !to) throw new Error('nothing to drag');
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + to.width / 2, from.y + 10, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId('stone')).toHaveCount(10);
  await expect(parts(page).first()).toContainText('9 notes');
});

test('a smaller hand and a shorter keyboard are obeyed at once', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await pick(page, 'Hand', 'child hand');
  await expect(page.locator('.toast')).toContainText('Never force a stretch. Stop if anything hurts');
  await pick(page, 'Keyboard', '49 keys');
  await expect(page.locator('jh-keyboard rect')).toHaveCount(49);
  for (const stack of await stacks(page).all()) {
    const keys = midis(await keysOf(stack));
    expect(keys[keys.length - 1] - keys[0]).toBeLessThanOrEqual(10);
  }
});

test('everything is kept over a reload', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByLabel('Chord symbol').fill('Dm9');
  await page.keyboard.press('Enter');
  await expect(stacks(page).first()).toHaveAccessibleName(/^D minor ninth/);
  await page.getByTestId('alternative').first().click();
  await page.getByTestId('alternative').first().click();
  await expect(stacks(page).first()).toHaveAccessibleName(/your choice/);
  const keys = await keysOf(stacks(page).first());
  await page.getByRole('button', { name: 'Evening theme' }).click();
  await page.reload();
  await expect(stacks(page).first()).toHaveAccessibleName(/^D minor ninth.*your choice/);
  expect(await keysOf(stacks(page).first())).toBe(keys);
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
});

test('everything on the strip is reached and chosen from the keyboard', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  // A reader goes on where the new screen begins.
  await expect(page.locator('main')).toBeFocused();
  await page.getByTestId('stone').nth(1).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('stone').nth(1)).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByText('Played on 1, held over 2. Sung on “lamps”.')).toBeVisible();
  await expect(page.getByTestId('stone').nth(1)).toHaveAccessibleDescription('bar 1, count 1, with G minor');
  await expect(page.getByTestId('stone').nth(2)).toHaveAccessibleDescription('bar 1, count 3');
  await expect(stacks(page).nth(2)).toHaveAccessibleDescription(/^bar \d+, count 1$/);
  await stacks(page).nth(2).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'C minor' })).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('heading', { name: 'G minor' })).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.getByRole('button', { name: 'Left hand', exact: true })).toHaveAttribute('aria-pressed', 'true');
  // Stepped through by keys, every chord, part and view is read aloud.
  const aloud = page.locator('.cdk-live-announcer-element');
  await page.keyboard.press('ArrowRight');
  await expect(aloud).toHaveText(/^Bar \d: .+ with .+ on \d, on .+\. (Root position|.+ inversion), .+\.$/);
  await page.keyboard.press('ArrowDown');
  await expect(aloud).toHaveText('Part 2, Bars 5–8: 11 notes, 4 chords.');
  await page.keyboard.press('1');
  await expect(aloud).toHaveText('Right hand');
});

test('back to back, the part that sounds is the part that is shown', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await page.getByRole('button', { name: 'Count in' }).click();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Part 2' })).toBeVisible();
  await page.getByRole('button', { name: 'Up to here' }).click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'Part 1' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Part 2' })).toBeVisible();
  await page.keyboard.press('Space');
});
