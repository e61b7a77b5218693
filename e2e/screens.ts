import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { expect } from './app.js';

/** What a screen says of itself: see `platform/screen.ts` of the page. */
interface Screen {
  readonly path: string;
  readonly name: string;
  readonly of: string;
  readonly ready: string;
}

const features = fileURLToPath(new URL('../web/src/app/features', import.meta.url));

/** Every screen of the page, read from the descriptors: one that is added is tested as the others are. */
export const SCREENS: readonly Screen[] = readdirSync(features).map((folder) => {
  const text = readFileSync(join(features, folder, 'screen.ts'), 'utf8');
  const field = (name: string): string => new RegExp(`\\b${name}: (?:\\$localize)?['\`]([^'\`]+)['\`]`).exec(text)?.[1] ?? '';
  const screen = { path: field('path'), name: field('name'), of: field('of'), ready: field('ready') };
  if (Object.values(screen).includes('')) throw new Error(`The descriptor of ${folder} cannot be read.`);
  return screen;
});

/** Goes to a screen as the browser's own arrows do, without loading the page anew, and waits until it is whole. */
export async function goToScreen(page: Page, { path, name, of, ready }: Screen, song: string): Promise<void> {
  await page.evaluate(
    (address) => {
      history.pushState(null, '', address);
      dispatchEvent(new PopStateEvent('popstate', { state: null }));
    },
    of === 'none' ? `/${path}` : `/${path}/${song}`,
  );
  await expect(page).toHaveTitle(new RegExp(`^${name}`));
  await expect(page.locator(ready).first()).toBeVisible();
}
