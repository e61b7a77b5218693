import type { Locator, Page } from '@playwright/test';
import { expect, test } from './app.js';

/** Goes on by the tab key until something has the focus, as one does who has no mouse. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  // Found once: to look for it anew by its name after each key takes longer than the key.
  const element = await target.elementHandle();
  for (let i = 0; i < 120; i++) {
    if (await element?.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  await expect(target).toBeFocused({ timeout: 1 });
}

/** Presses something by the keyboard. */
async function enter(page: Page, target: Locator): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press('Enter');
}

test('the first five minutes go by the keyboard alone', async ({ page }) => {
  await page.goto('/');
  const button = (name: string | RegExp) => page.getByRole('button', { name });
  await enter(page, button('Open Harbour Glass'));
  await expect(page.getByTestId('stack').first()).toBeVisible();

  // A smaller hand, another voicing, and a texture.
  await enter(page, button(/^Hand:/));
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(button(/^Hand:/)).toHaveText('small hand');
  await tabTo(page, page.getByTestId('stack').nth(1));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'D minor seventh' })).toBeVisible();
  await page.keyboard.press('4');
  await enter(page, button(/^Texture:/));
  await enter(page, page.getByTestId('texture').filter({ hasText: 'the chord taken apart' }));
  await page.keyboard.press('Escape');
  await expect(button(/^Texture:/)).toBeFocused();
  await expect(page.getByTestId('attack').first()).toBeVisible();

  // Heard, taken back, printed, rehearsed.
  await enter(page, button(/^Start \(space\)/));
  await expect(page.getByTestId('playhead')).toHaveCount(1);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('playhead')).toHaveCount(0);
  await enter(page, button(/^Undo/));
  await expect(page.getByTestId('attack')).toHaveCount(0);
  await enter(page, page.getByRole('link', { name: 'Sheet' }));
  await expect(page.getByTestId('page').first()).toBeVisible();
  await tabTo(page, button('Print'));
  await page.keyboard.press('Control+k');
  await page.keyboard.type('rehearse');
  await page.keyboard.press('Enter');
  await enter(page, button(/^Keys:/));
  await enter(page, button('Let it play'));
  await expect(page.getByTestId('result')).toBeVisible({ timeout: 90_000 });
});
