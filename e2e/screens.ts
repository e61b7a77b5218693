import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

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
