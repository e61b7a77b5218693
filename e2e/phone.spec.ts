import type { Page } from '@playwright/test';
import { openFile } from '../core/src/formats/index.js';
import { barriersOn, choose, expect, openShelf, openSong, putSongs, stacks, test } from './app.js';
import { goToScreen, SCREENS } from './screens.js';

/** A song that takes a lot of room: a long title, five flats, six counts a bar. */
const WIDE = `title: The Long Way Round the Outer Islands by the Last Ferry of an Autumn Evening
key: Db major
time: 6/8
tempo: 72

tune : Ab4 - - Db5 - Eb | F - - Eb - Db | Bb4 - - Db5 - Bb4 | Ab4 - - - - - | Ab4 - - Db5 - Eb | F - - Gb - F | Eb - - Ab4 - C5 | Db5 - - - - -
chord: Dbmaj7 - - - - - | Bbm7 - - - - - | Gbmaj7 - - - - - | Ab7 - - - - - | Dbmaj7 - - - - - | Bbm7 - - - - - | Ebm7 - - Ab7 - - | Db6 - - - - -
`;

const UPRIGHT = { width: 390, height: 844 };
const TURNED = { width: 844, height: 390 };
const SIZES = [UPRIGHT, TURNED, { width: 820, height: 1180 }, { width: 1280, height: 800 }, { width: 1920, height: 1080 }];

/** Screens that have other parts on a phone; the rest are the same at every size, and are looked at in another test. */
const DRAWN_OTHERWISE: ReadonlySet<string> = new Set(['desk', 'rehearse', 'shelf', 'sheet', 'drills']);

/** What is cut off at the sides: all that reaches past the page, and is in nothing that scrolls sideways on purpose. */
const cutOff = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const scrolls = (e: Element): boolean => {
      for (let at = e.parentElement; at; at = at.parentElement)
        if (
          ['auto', 'scroll'].includes(getComputedStyle(at).overflowX) &&
          at.scrollWidth > at.clientWidth &&
          at.clientWidth <= innerWidth
        )
          return at.tagName !== 'MAIN' && at.parentElement?.tagName !== 'MAIN';
      return false;
    };
    return [...document.querySelectorAll('body *')]
      .filter((e) => !e.closest('svg') && e.checkVisibility() && e.getBoundingClientRect().width > 1)
      .filter((e) => e.getBoundingClientRect().right > innerWidth + 1 && !scrolls(e))
      .map((e) => `${e.tagName.toLowerCase()}.${e.className} “${e.textContent.trim().slice(0, 40)}”`);
  });

async function putWide(page: Page): Promise<void> {
  const opened = openFile('wide.letters', new TextEncoder().encode(WIDE));
  if (!opened.ok) throw new Error('The wide song cannot be read.');
  await putSongs(page, [{ id: 'wide', createdAt: 1, updatedAt: 1, demo: false, document: opened.document }]);
}

test('nothing is cut off at the side, on phones, tablets and large screens', async ({ page }) => {
  await openShelf(page);
  await putWide(page);
  await page.reload();
  for (const screen of SCREENS) {
    await goToScreen(page, screen, 'wide');
    for (const size of SIZES) {
      await page.setViewportSize(size);
      await expect.soft
        .poll(() => cutOff(page), { message: `${screen.path} at ${size.width} by ${size.height}`, timeout: 5000 })
        .toEqual([]);
    }
  }
});

test.describe('on a phone that is held upright', () => {
  test.use({ viewport: UPRIGHT, hasTouch: true });

  test('a part is learned by touch: hands, a chord, its reasons, another voicing, the keys', async ({ page }) => {
    await openSong(page, 'Harbour Glass');
    const strip = await page.getByTestId('strip').boundingBox();
    expect(strip?.height).toBeGreaterThan(360);
    // The octaves in play, at a size at which a key can be read and pressed.
    const keys = page.locator('jh-keyboard rect.white');
    expect(await keys.count()).toBeLessThan(30);
    expect((await keys.first().boundingBox())?.width).toBeGreaterThan(12);
    await page.getByTestId('part').nth(1).getByRole('button').first().tap();
    await expect(page.getByRole('heading', { name: 'Part 2' })).toBeAttached();
    await page.getByRole('button', { name: 'Left hand', exact: true }).tap();
    await stacks(page).nth(1).tap();
    await page.getByRole('button', { name: 'why?' }).tap();
    const reasons = page.getByRole('dialog');
    await expect(reasons.getByRole('heading', { name: 'D minor seventh' })).toBeVisible();
    const before = await stacks(page).nth(1).getAttribute('aria-label');
    const other = reasons.getByTestId('alternative').first();
    await other.tap();
    await other.tap();
    await expect.poll(() => stacks(page).nth(1).getAttribute('aria-label')).not.toBe(before);
    await reasons.getByRole('button', { name: 'Close' }).tap();
    await expect(reasons).toBeHidden();
    await page.getByTestId('play').tap();
    await expect(page.locator('jh-keyboard rect.sounding').first()).toBeVisible();
    await page.getByTestId('play').tap();
  });

  test('parts are named, merged and cut anew from the menu beside their row, and the one at work is in view', async ({
    page,
  }) => {
    await openSong(page, 'Harbour Glass');
    const parts = page.getByTestId('part');
    const menu = 'What to do with the parts';
    await expect(parts).toHaveCount(8);
    await page.keyboard.press('ArrowUp');
    for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowDown');
    await expect(parts.last()).toBeInViewport({ ratio: 0.9 });
    await choose(page, menu, 'Merge with part 7');
    await expect(parts).toHaveCount(7);
    await choose(page, menu, 'Name this part');
    const field = page.getByLabel('Name of the part');
    await expect(field).toBeInViewport({ ratio: 0.9 });
    await field.fill('Home again');
    await field.press('Enter');
    await expect(parts.last()).toContainText('Home again');
    await choose(page, menu, 'Divide by the phrases again');
    await expect(parts).toHaveCount(8);
    await choose(page, menu, 'Divide into larger parts');
    await expect(parts).toHaveCount(4);
  });

  test('the way through a song is a menu, and the plan of the day a drawer', async ({ page }) => {
    await openSong(page, 'Lamps Across the Sound');
    await page.getByRole('button', { name: 'Go to: Desk' }).tap();
    await page.getByRole('menuitem', { name: 'Rehearse' }).tap();
    await expect(page.getByTestId('step')).toBeVisible();
    expect((await page.getByTestId('strip').boundingBox())?.height).toBeGreaterThan(360);
    await page.getByRole('button', { name: 'Plan', exact: true }).tap();
    await expect(page.getByRole('dialog').getByRole('heading', { name: 'Practice plan' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
    await page.getByRole('button', { name: 'Go to: Rehearse' }).tap();
    await page.getByRole('menuitem', { name: 'Evening theme' }).tap();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
  });

  test('the first look is one column, with nothing laid over its neighbour', async ({ page }) => {
    await openSong(page, 'Harbour Glass');
    await page.goto(page.url().replace('/desk/', '/look/'));
    await expect(page.getByTestId('warm-up').first()).toBeVisible();
    const edges = await page
      .locator('main section')
      .evaluateAll((all) => all.map((e) => Math.round(e.getBoundingClientRect().left)));
    expect(new Set(edges).size).toBe(1);
    const over = await page
      .locator('[data-testid=warm-up] b')
      .evaluateAll(
        (all) =>
          all.filter(
            (e, i) =>
              all[i + 1] &&
              e.getBoundingClientRect().right > all[i + 1].getBoundingClientRect().left &&
              e.closest('div') === all[i + 1].closest('div'),
          ).length,
      );
    expect(over).toBe(0);
  });

  test('what is drawn otherwise there can be read by everybody', async ({ page }) => {
    await openSong(page, 'Harbour Glass');
    const id = page.url().split('/').at(-1) ?? '';
    const check = async (what: string) => expect.soft(await barriersOn(page), what).toEqual([]);
    for (const screen of SCREENS.filter((s) => DRAWN_OTHERWISE.has(s.path))) {
      await goToScreen(page, screen, id);
      await check(screen.path);
    }
    await page.goto(`/desk/${id}`);
    await page.getByRole('button', { name: 'why?' }).tap();
    await expect(page.getByRole('dialog')).toBeVisible();
    await check('reasons');
  });
});

test('on a phone that lies on its side a line of the strip and the keyboard share the screen', async ({ page }) => {
  await page.setViewportSize(TURNED);
  await openSong(page, 'Harbour Glass');
  for (const path of ['desk', 'rehearse']) {
    await page.goto(page.url().replace(/(desk|rehearse)/, path));
    const strip = await page.getByTestId('strip').boundingBox();
    const line = await page.locator('jh-join-strip svg.line').first().boundingBox();
    const keyboard = await page.locator('jh-keyboard').boundingBox();
    if (!strip || !line || !keyboard) throw new Error('The strip and the keyboard are not drawn.');
    expect(line.y + line.height, path).toBeLessThanOrEqual(strip.y + strip.height + 1);
    expect(line.height).toBeGreaterThan(150);
    expect(keyboard.y + keyboard.height).toBeLessThanOrEqual(TURNED.height);
  }
});
