import { AxeBuilder } from '@axe-core/playwright';
import { expect, test as base, type Locator, type Page } from '@playwright/test';

/** Every test fails on an error in the console and on a request that leaves the origin. */
export const test = base.extend<{ expected: RegExp | null; watched: void }>({
  /** What a test brings about itself. */
  expected: [null, { option: true }],
  watched: [
    async ({ page, baseURL, expected }, use) => {
      const trouble: string[] = [];
      page.on('console', (m) => m.type() === 'error' && trouble.push(m.text()));
      page.on('pageerror', (e) => trouble.push(e.message));
      page.on('request', (r) => {
        if (!r.url().startsWith(`${baseURL}/`) && !/^(data|blob):/.test(r.url())) trouble.push(`left the origin: ${r.url()}`);
      });
      await use();
      expect(trouble.filter((t) => !expected?.test(t))).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** The shelf with its demo songs set out. */
export async function openShelf(page: Page): Promise<void> {
  await page.goto('/');
  await expect(page.getByTestId('song-card').first()).toBeVisible();
}

/** The desk of a song on the shelf. */
export async function openSong(page: Page, title: string): Promise<void> {
  await openShelf(page);
  await page.getByRole('button', { name: `Open ${title}` }).click();
  await expect(page.getByTestId('stack').first()).toBeVisible();
}

export const parts = (page: Page): Locator => page.getByTestId('part');
export const stacks = (page: Page): Locator => page.getByTestId('stack');

/** MIDI numbers of the keys that sound after something is done, as soon as there are `least` of them. */
export async function soundingAfter(page: Page, act: () => Promise<void>, least = 1): Promise<number[]> {
  const heard = page.waitForFunction((count) => {
    const keys = [...document.querySelectorAll('jh-keyboard rect.sounding')];
    return keys.length >= count ? keys.map((k) => Number(k.getAttribute('data-midi'))) : null;
  }, least);
  await act();
  const midis = (await (await heard).jsonValue()) ?? [];
  return midis.sort((a, b) => a - b);
}

/** The keys of a chord on the strip, as its label reads them. */
export async function keysOf(stack: Locator): Promise<string> {
  return ((await stack.getAttribute('aria-label')) ?? '')
    .split(', ')
    .slice(2)
    .join(' ')
    .replace(/ (your choice|the hands meet)/g, '');
}

/** Opens a menu and chooses from it; the menu has gone when this is done. */
export async function choose(page: Page, button: string, entry: string): Promise<void> {
  await page.getByRole('button', { name: button }).click();
  const item = page.getByRole('menuitem', { name: entry, exact: true });
  await item.click();
  await expect(item).toBeHidden();
}

/** The button of a panel, or of a list to choose from, by what stands before the colon of its name. */
export const dropdown = (scope: Page | Locator, label: string): Locator =>
  scope.getByRole('button', { name: new RegExp(`^${label}:`) });

/** Chooses from a list that opens. */
export async function pick(page: Page, label: string, entry: string): Promise<void> {
  await dropdown(page, label).click();
  const item = page.getByRole('menuitemradio', { name: entry, exact: true });
  await item.click();
  await expect(item).toBeHidden();
}

/** Goes from a screen of a song to one that does not stand in its header. */
export const goBeside = (page: Page, screen: string): Promise<void> => choose(page, 'More screens', screen);

/** Opens the finder and writes what is looked for; Enter takes the first entry. */
export async function find(page: Page, words: string): Promise<void> {
  const field = page.getByRole('combobox', { name: 'Find an action or a song' });
  // The one that was used last is closed first: no hand is so quick.
  await expect(field).toBeHidden();
  await page.keyboard.press('Control+k');
  await field.fill(words);
}

/** Puts songs into the browser's storage as they are, as an older, newer or broken program would. */
export async function putSongs(page: Page, songs: readonly unknown[]): Promise<void> {
  await page.evaluate(
    (records) =>
      new Promise<void>((resolve, reject) => {
        const request = indexedDB.open('joined-hands');
        request.onerror = () => reject(request.error);
        request.onsuccess = () => {
          const change = request.result.transaction('songs', 'readwrite');
          for (const record of records) change.objectStore('songs').put(record);
          change.oncomplete = () => (request.result.close(), resolve());
        };
      }),
    [...songs],
  );
}

/** A keyboard that can be plugged in, as the browser would hand it to the page; before that, the browser refuses. */
export async function standInDevice(page: Page): Promise<{
  plugIn(): Promise<void>;
  send(...message: number[]): Promise<void>;
}> {
  await page.addInitScript(() => {
    const listeners: ((event: unknown) => void)[] = [];
    const port = (kind: string) => ({
      id: kind,
      name: 'Stand-in keys',
      manufacturer: '',
      type: kind,
      state: 'connected',
      connection: 'open',
      version: '',
      open: async () => port(kind),
      close: async () => port(kind),
      addEventListener: (_: string, heard: (event: unknown) => void) => listeners.push(heard),
      removeEventListener: () => undefined,
      set onmidimessage(heard: (event: unknown) => void) {
        listeners.push(heard);
      },
    });
    const access = {
      inputs: new Map([['in', port('input')]]),
      outputs: new Map(),
      sysexEnabled: false,
      onstatechange: null,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    };
    let allowed = false;
    Object.assign(navigator, { requestMIDIAccess: async () => (allowed ? access : Promise.reject(new Error('refused'))) });
    const send = (message: number[]) =>
      listeners.forEach((heard) => heard({ data: new Uint8Array(message), timeStamp: performance.now() }));
    Object.assign(window, { plugIn: () => (allowed = true), sendMidi: send });
  });
  return {
    plugIn: async () => void (await page.evaluate(() => (window as unknown as { plugIn(): void }).plugIn())),
    send: (...message) => page.evaluate((m) => (window as unknown as { sendMidi(m: number[]): void }).sendMidi(m), message),
  };
}

/** Has the page write down when, on the audio clock, each of its clicks is to sound. */
export async function noteClicks(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const clicks: number[] = [];
    Object.assign(window, { clicks });
    // A click is noise, far shorter than any key of the piano.
    const SHORT = 0.1;
    const start = AudioBufferSourceNode.prototype.start;
    AudioBufferSourceNode.prototype.start = function (when = 0, ...rest: [number?, number?]) {
      if (when > 0 && this.buffer && this.buffer.duration < SHORT) clicks.push(when);
      start.call(this, when, ...rest);
    };
  });
}

/** Seconds at which the clicks so far were to sound. */
export const clicksOf = (page: Page): Promise<number[]> =>
  page.evaluate(() => (window as unknown as { clicks: number[] }).clicks);

/** Adds a player on the players' screen: a name, what is chosen from its lists, and whether it is the first year. */
export async function addPlayer(
  page: Page,
  name: string,
  facts: Readonly<Record<string, string>>,
  firstYear = false,
): Promise<void> {
  await page.getByRole('button', { name: 'Add a player' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Name').fill(name);
  for (const [label, entry] of Object.entries(facts)) await pick(page, label, entry);
  if (firstYear) await form.getByText('First year').click();
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form).toBeHidden();
  await expect(page.getByTestId('player').filter({ hasText: name })).toBeVisible();
}

/** All that the checker knows by itself, and the size of targets, which it leaves out unless it is asked. */
const BARRIERS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/** What keeps somebody from using what is open, as the checker finds it; of engraved music only that it has a name. */
export async function barriersOn(page: Page, rule?: string): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    // The page has no frames, whose results would be put together on a page of their own, at three times the cost.
    .setLegacyMode()
    .exclude('[data-testid=page] svg')
    .options({ resultTypes: ['violations'], runOnly: rule ? [rule] : BARRIERS })
    .analyze();
  return violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.any[0]?.message ?? ''}`));
}
