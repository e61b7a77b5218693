import { midiOf } from '@joined-hands/core/pitch';
import type { Page } from '@playwright/test';
import { choose, dropdown, expect, keysOf, openSong, parts, soundingAfter, stacks, test } from './app.js';

const stones = (page: Page) => page.getByTestId('stone');
const fingers = (page: Page) =>
  stones(page).evaluateAll((all) => all.map((s) => /finger (\d)/.exec(s.getAttribute('aria-label') ?? '')?.[1] ?? ''));
const bass = (page: Page) =>
  stacks(page).evaluateAll((all) => all.map((s) => (s.getAttribute('aria-label') ?? '').split(', ').length - 2));

test('every stone has its finger, the hand its place on strip and keyboard, the start its words', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByRole('button', { name: 'Right hand', exact: true }).click();
  await page.keyboard.press('ArrowDown');
  await expect(stones(page)).toHaveCount(11);
  await expect.poll(async () => (await fingers(page)).join('')).toMatch(/^[1-5]{11}$/);
  await expect(page.getByTestId('place').first()).toContainText('to');
  await expect(page.getByTestId('place-words')).toContainText(/^Thumb on the .* above middle C/);
  await expect(page.locator('jh-keyboard .span-text.right')).toContainText('fingers 1 to 5');
});

test('a finger is chosen, the rest bends around it, and it is let go', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await stones(page).nth(1).click();
  const before = await fingers(page);
  const other = before[1] === '5' ? '3' : '5';
  await page.getByTestId('finger').filter({ hasText: other }).click();
  await expect.poll(async () => (await fingers(page))[1]).toBe(other);
  await page.reload();
  await expect.poll(async () => (await fingers(page))[1]).toBe(other);
  await stones(page).nth(1).click();
  await page.getByRole('button', { name: 'use suggested' }).click();
  await expect.poll(() => fingers(page)).toEqual(before);
});

test('a finger says what decided for it, and prices the others before one is chosen', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await stones(page).nth(3).click();
  await expect(page.getByTestId('finger-why')).toHaveText('The hand stays where it is; this key lies under finger 4.');
  const prices = page.getByTestId('finger-prices').getByRole('listitem');
  await expect(prices).toHaveText([/^1.*\+\d/, /^2.*\+\d/, /^3.*\+\d/, /^5.*\+\d/]);
  await expect(prices.first()).toContainText(/would take (one|two) more moves? of the hand/);
  await page.getByTestId('finger').filter({ hasText: '2' }).click();
  await expect(page.getByTestId('finger-why')).toContainText('You chose this finger.');
  // What was dear as a choice is what the others now spare.
  await expect(prices).toHaveCount(4);
});

test('the pattern of a chord tells its fingers and where they cross', async ({ page }) => {
  await openSong(page, 'All Aboard for Nettle Point');
  await page.keyboard.press('4');
  await dropdown(page, 'Texture').click();
  await page.getByTestId('texture').filter({ hasText: 'one, five, eight, ten and back' }).click();
  await page.keyboard.press('Escape');
  await stacks(page).first().click();
  await expect(page.getByTestId('pattern-fingers')).toHaveText(
    'In its pattern: 5-2-1-2. Finger 2 crosses over the thumb to F♯3.',
  );
});

test('fingers of a chord are typed, a slip is answered with a way out', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  const field = page.getByLabel('Fingers, lowest first');
  await field.fill('5-5-1');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Write three fingers from the lowest key up, such as 5-3-2.');
  await expect(page.getByTestId('chord-fingers')).toHaveText('The fingers that chord books give this shape.');
  await field.fill('421');
  await expect(page.getByTestId('chord-fingers')).toHaveText(/^4-2-1 would (stretch the hand|do as well)/);
  await field.press('Enter');
  await expect(page.getByTestId('position')).toContainText('4-2-1');
  await expect(page.getByTestId('chord-fingers')).toHaveText('You chose these fingers.');
  await page.getByRole('button', { name: 'use suggested' }).click();
  await expect(page.getByTestId('position')).not.toContainText('4-2-1');
});

test('a change in a part is offered to its repeats, and carried over as one step', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await expect(parts(page).nth(2)).toContainText('same as part 1');
  await expect(parts(page).nth(3)).toContainText('same as part 2 up to bar 15');
  await page.getByLabel('Chord symbol').fill('Am9');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('linked')).toContainText('Also in parts 3 and 7.');
  await page.getByRole('button', { name: 'Change those too' }).click();
  await expect(page.getByTestId('linked')).toBeHidden();
  const first = async (part: number, chord: RegExp) => {
    await page.getByRole('button', { name: new RegExp(`^Part ${part}, `) }).click();
    await expect(page.getByRole('heading', { name: `Part ${part}` })).toBeVisible();
    await expect(stacks(page).first()).toHaveAccessibleName(chord);
  };
  await first(3, /^A minor ninth/);
  await first(7, /^A minor ninth/);
  await page.keyboard.press('Control+z');
  await first(7, /^F major seventh/);
  await first(1, /^A minor ninth/);
});

test('sections are named and stand on the way through the song', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await choose(page, 'Change part 4', 'Name a section from here');
  await page.getByLabel('Name of the section').fill('Turning home');
  await page.keyboard.press('Enter');
  const form = page.getByRole('navigation', { name: 'Form' });
  await expect(form).toContainText('Turning home');
  await form.getByRole('button', { name: 'Part 5, D' }).click();
  await expect(page.getByRole('heading', { name: 'Part 5' })).toBeVisible();
});

test('the tune is learned by words or by counts, straightened, and in another octave', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('ArrowDown');
  const under = page.locator('jh-join-strip .word');
  await expect(under.nth(1)).toHaveText('lean-');
  await page.getByRole('button', { name: 'Counts', exact: true }).click();
  await expect(under.nth(4)).toHaveText('1 2');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await dropdown(page, 'Melody').click();
  await page.getByRole('button', { name: 'Whole song', exact: true }).click();
  await page.getByRole('button', { name: 'up', exact: true }).click();
  await expect(stones(page).nth(1)).toHaveAccessibleName(/^Eb6/);
  await page.getByRole('button', { name: 'as written', exact: true }).click();
  await expect(stones(page).nth(1)).toHaveAccessibleName(/^Eb5/);
  await page.getByRole('button', { name: 'straightened' }).click();
  await expect(dropdown(page, 'Melody')).toContainText('straightened');
  await page.getByRole('button', { name: 'An octave higher the second time' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Part 3, A′' }).click();
  await expect(stones(page).first()).toHaveAccessibleName(/^D5/);
});

test('the joins are told in words, and each sentence chooses its chord', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: 'In words' }).click();
  const joins = page.getByTestId('join');
  await expect(joins).toHaveCount(4);
  await expect(joins.first()).toContainText('E♭5 with C minor on 1, on the first syllable of “leaning”.');
  await joins.nth(2).click();
  await expect(page.getByRole('heading', { name: 'B♭ major' })).toBeVisible();
  await page.getByRole('button', { name: 'Strip' }).click();
  await expect(stacks(page)).toHaveCount(4);
});

test('difficulty is told by hand with reasons, and a simpler version is one press away', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await expect(page.getByTestId('meter')).toHaveCount(8);
  await expect(page.getByTestId('hardest')).toHaveCount(1);
  await dropdown(page, 'Difficulty').click();
  await expect(page.getByTestId('load')).toHaveCount(3);
  await expect(page.getByTestId('version')).toHaveCount(5);
  await page.getByTestId('version').filter({ hasText: 'bass notes' }).click();
  await expect.poll(() => bass(page)).toEqual([1, 1, 1, 1]);
  await page.getByTestId('version').filter({ hasText: 'full chords' }).click();
  await expect.poll(async () => Math.min(...(await bass(page)))).toBeGreaterThan(2);
  const ease = page.getByTestId('ease').filter({ hasText: 'two-note chords' });
  await ease.click();
  await expect.poll(() => bass(page)).toEqual([2, 2, 2, 2]);
});

test('all collisions are cleared in one press', async ({ page }) => {
  await page.goto('/intake');
  await page
    .getByLabel('Letter lines')
    .fill('title: Low water\nkey: C major\ntime: 4/4\ntune: C4 E4 D4 C4 | D4 F4 E4 D4 |\nchord: C - - - | G - - - |\n');
  await page.getByRole('button', { name: 'Open it on the desk' }).click();
  await expect(stacks(page)).toHaveCount(2);
  const up = page.getByRole('button', { name: 'Inversion up' });
  for (const n of [0, 1]) {
    const stack = stacks(page).nth(n);
    await stack.click();
    await expect(up).toBeVisible();
    while (await up.isVisible()) {
      const before = await keysOf(stack);
      await up.click();
      await expect.poll(() => keysOf(stack)).not.toBe(before);
    }
  }
  const collisions = page.getByTestId('finding').filter({ hasText: /hands cross|Both hands|right under/ });
  await expect(page.locator('jh-join-strip .meets').first()).toBeVisible();
  await page.getByTestId('fix-all').click();
  await expect(collisions).toHaveCount(0);
  await expect(page.locator('jh-join-strip .meets')).toHaveCount(0);
});

test('a key is chosen by what it asks for, and the song goes there', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByRole('link', { name: 'Choose a key' }).click();
  await expect(page.getByTestId('key')).toHaveCount(12);
  await expect(page.getByTestId('verdict')).toContainText('Easiest in');
  await expect(page.locator('.chart svg')).toBeVisible();
  await page.getByRole('button', { name: 'Black keys' }).click();
  await expect(page.getByTestId('verdict')).toContainText('% of the notes');
  await page.getByRole('button', { name: 'Play it in A minor' }).click();
  await expect(page.getByTestId('key').filter({ hasText: 'where it is' })).toContainText('A minor');
  await page.getByRole('link', { name: 'Go to the desk' }).click();
  await expect(stacks(page).first()).toHaveAccessibleName(/^A minor/);
  await page.keyboard.press('Control+z');
  await expect(stacks(page).first()).toHaveAccessibleName(/^G minor/);
});

test('the first look tells what the song asks for before the first note', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByRole('link', { name: 'First look' }).click();
  await expect(page.getByRole('heading', { name: 'G minor' })).toBeVisible();
  await expect(page.getByTestId('chord')).toHaveCount(7);
  await expect(page.getByTestId('warm-up').first()).toHaveAccessibleName(/^right hand: G with 1, A with 2, Bb with 3, C with 1/);
  await expect(page.getByTestId('hardest-part')).toContainText('is the hardest:');
  await expect(page.getByTestId('rhythm').first()).toContainText('bars');
  await expect(page.locator('.care')).toContainText('Never force a stretch');
  const shape = page.getByTestId('shape').first();
  await expect(shape).toBeVisible();
  await page.getByRole('link', { name: 'Go to the desk' }).click();
  const keys = await soundingAfter(page, () => page.getByRole('button', { name: 'Hear', exact: true }).click(), 3);
  expect(keys).toContain(midiOf('G3'));
});

test('a note is struck with a third below it, seen on strip, keyboard and letters, and alone again', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await stones(page).nth(1).click();
  const beside = page.getByTestId('beside');
  const under = page.getByTestId('under');
  await expect(under).toHaveCount(0);
  await beside.getByRole('button', { name: 'a third below' }).click();
  await expect(under).toHaveCount(1);
  await expect(stones(page).nth(1)).toHaveAccessibleName(/^G4 together with Eb4, on lamps, finger [2-5]$/);
  await expect(page.getByTestId('note-facts')).toContainText('Struck together with E♭4.');
  const heard = await soundingAfter(page, () => page.getByRole('button', { name: 'Hear', exact: true }).click(), 2);
  expect(heard).toEqual(expect.arrayContaining([midiOf('G4'), midiOf('Eb4')]));
  await page.getByRole('link', { name: 'Sheet' }).click();
  await page.getByRole('button', { name: 'Letters' }).click();
  await expect(page.locator('.column', { hasText: 'lamps' }).first()).toContainText('G+E♭');
  await page.getByRole('link', { name: 'Desk' }).click();
  await stones(page).nth(1).click();
  await beside.getByRole('button', { name: 'a third below' }).click();
  await expect(under).toHaveCount(0);
});

test('a reminder stands on the strip and on the sheet, a fermata and a breath on their notes', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.keyboard.press('ArrowDown');
  await stones(page).nth(2).click();
  await page.getByTestId('reminder').fill('wrist low');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('reminder-on-strip')).toHaveText('wrist low');
  await page.getByRole('button', { name: 'Fermata', exact: true }).click();
  await expect(page.getByTestId('fermata')).toHaveCount(1);
  await page.getByRole('button', { name: 'Breath after it' }).click();
  await expect(page.getByTestId('breath')).toHaveCount(1);
  await expect(stones(page).nth(2)).toHaveAttribute('aria-label', /with a fermata/);
  await choose(page, 'Change part 2', 'Write a reminder');
  await page.getByRole('textbox', { name: 'Reminder for the part' }).fill('softly');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('reminder-on-strip')).toHaveText(['softly', 'wrist low']);
  await page.reload();
  await parts(page).nth(1).getByRole('button').first().click();
  await expect(page.getByTestId('reminder-on-strip')).toHaveText(['softly', 'wrist low']);
  await page.getByRole('link', { name: 'Sheet' }).click();
  await page.getByRole('button', { name: 'Letters', exact: true }).click();
  await expect(page.getByTestId('reminder-on-paper')).toHaveText([
    /^Bar \d+, count .+softly\s*$/,
    /^Bar \d+, count .+wrist low\s*$/,
  ]);
});
