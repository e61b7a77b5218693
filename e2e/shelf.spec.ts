import { choose, expect, openShelf, openSong, pick, test } from './app.js';

test('the shelf holds the three demo songs and leads to the desk', async ({ page }) => {
  await openShelf(page);
  await expect(page.getByTestId('song-card')).toHaveCount(3);
  await expect(page.getByTestId('song-card').first()).toContainText('Lamps Across the Sound');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Open Harbour Glass' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('song-title')).toHaveText('Harbour Glass');
});

test('a song is duplicated, renamed, taken off and put back', async ({ page }) => {
  await openShelf(page);
  const cards = page.getByTestId('song-card');
  const menu = (title: string, entry: string) => choose(page, `More for ${title}`, entry);
  await menu('Harbour Glass', 'Duplicate');
  await expect(cards).toHaveCount(4);
  await expect(cards.first()).toContainText('Harbour Glass (copy)');
  await menu('Harbour Glass (copy)', 'Rename');
  await page.getByLabel('New name').fill('Glass, quietly');
  await page.keyboard.press('Enter');
  await expect(cards.first()).toContainText('Glass, quietly');
  await menu('Glass, quietly', 'Take off the shelf');
  await expect(cards).toHaveCount(3);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(cards).toHaveCount(4);
  await expect(cards.first()).toContainText('Glass, quietly');
  await page.reload();
  await expect(cards).toHaveCount(4);
});

test('a menu is opened, gone through, left and chosen from by keys', async ({ page }) => {
  await openShelf(page);
  const dots = page.getByRole('button', { name: 'More for Harbour Glass' });
  const entry = (name: string) => page.getByRole('menuitem', { name });
  await dots.press('Enter');
  await expect(entry('Rename')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(entry('Take off the shelf')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(dots).toBeFocused();
  await expect(entry('Rename')).toBeHidden();
  await dots.press('Enter');
  await expect(entry('Rename')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(entry('Duplicate')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText('A copy of “Harbour Glass” is on the shelf.')).toBeVisible();
  await expect(entry('Duplicate')).toBeHidden();
});

test('a song that is not there says so and leads back', async ({ page }) => {
  for (const screen of ['look', 'rehearse', 'plan', 'versions', 'sheet', 'hands', 'key', 'figures', 'drills', 'desk']) {
    await page.goto(`/${screen}/nowhere`);
    await expect(page.getByRole('heading', { name: 'This song is not on the shelf' }), screen).toBeVisible();
  }
  await page.getByRole('link', { name: 'To the shelf', exact: true }).click();
  await expect(page.getByTestId('song-card').first()).toBeVisible();
});

test('the shortcuts and the cautions are a key away', async ({ page }) => {
  await openShelf(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Never force a stretch');
  await page.getByText('What the words mean').click();
  await expect(page.getByRole('dialog')).toContainText('in half steps, all fingers added up');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
});

test('a figure says what it means, where it stands', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('link', { name: 'Accompaniment' }).click();
  await expect(page.getByRole('heading', { name: 'Accompaniment' })).toBeVisible();
  const what = page.getByLabel('What is meant by Difficulty');
  await what.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('note')).toContainText('under 20 is a tune in one place over slow chords');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('note')).toBeHidden();
});

test('songs are found, tagged, laid out and put away several at once', async ({ page }) => {
  await openShelf(page);
  const cards = page.getByTestId('song-card');
  await expect(page.getByRole('searchbox')).toBeHidden();
  await choose(page, 'More for Harbour Glass', 'Duplicate');
  await expect(cards).toHaveCount(4);

  const search = page.getByRole('searchbox', { name: 'Search the shelf' });
  await search.fill('nettle major');
  await expect(cards).toHaveCount(1);
  await search.fill('zzz');
  await page.getByRole('button', { name: 'Show all songs' }).click();
  await expect(cards).toHaveCount(4);

  await choose(page, 'More for Lamps Across the Sound', 'Tags');
  await page.getByRole('dialog', { name: 'Tags' }).getByRole('textbox').fill('Sunday, quiet');
  await page.keyboard.press('Enter');
  await expect(cards.filter({ hasText: 'Sunday · quiet' })).toHaveCount(1);
  await page.reload();
  await page.getByRole('button', { name: 'Sunday' }).click();
  await expect(cards).toHaveCount(1);
  await page.getByRole('button', { name: 'Sunday' }).click();
  await pick(page, 'Order', 'by title');
  await expect(cards.first()).toContainText('All Aboard');

  await page.getByRole('button', { name: 'Choose several' }).click();
  await page.getByRole('checkbox', { name: 'Choose Lamps Across the Sound' }).check();
  await page.getByRole('checkbox', { name: 'Choose All Aboard for Nettle Point' }).check();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as one file' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/^songs-.*\.zip$/);
  await page.getByRole('group', { name: 'The chosen songs' }).getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(cards).toHaveCount(2);
  await page.getByRole('button', { name: 'Put them back' }).click();
  await expect(cards).toHaveCount(4);
});

test('cards are dragged to where one wants them and into the bin, by keys as well', async ({ page }) => {
  await openShelf(page);
  const cards = page.getByTestId('song-card');
  const titles = () => cards.locator('.title').allTextContents();
  const [first, second, third] = await titles();
  const drag = async (title: string, to: { x: number; y: number }) => {
    const box = await cards.filter({ hasText: title }).boundingBox();
    if (!box) throw new Error(`${title} is not there`);
    await page.mouse.move(box.x + 60, box.y + 60);
    await page.mouse.down();
    await page.mouse.move(box.x + 80, box.y + 70, { steps: 3 });
    await page.mouse.move(to.x, to.y, { steps: 12 });
  };
  const middle = async (title: string) => {
    const box = await cards.filter({ hasText: title }).boundingBox();
    return { x: (box?.x ?? 0) + (box?.width ?? 0) / 2, y: (box?.y ?? 0) + (box?.height ?? 0) / 2 };
  };
  await drag(third, await middle(first));
  await page.mouse.up();
  await expect.poll(titles).toEqual([third, first, second]);
  await page.reload();
  await expect.poll(titles).toEqual([third, first, second]);

  await choose(page, `More for ${third}`, 'Move back');
  await expect.poll(titles).toEqual([first, third, second]);

  await drag(second, { x: 640, y: 400 });
  const off = await page.getByTestId('drop-off').boundingBox();
  await page.mouse.move((off?.x ?? 0) + 100, (off?.y ?? 0) + 20, { steps: 8 });
  await page.mouse.up();
  await expect(cards).toHaveCount(2);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect.poll(titles).toEqual([first, third, second]);
});
