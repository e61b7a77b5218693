import type { Page } from '@playwright/test';
import { dropdown, expect, find, openSong, pick, test } from './app.js';

/** A browser with a voice of its own and one that would speak over the network; what is said is kept, and takes no time. */
async function withVoices(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const voices = [
      { name: 'Far', lang: 'en-GB', localService: false, default: true },
      { name: 'Here', lang: 'en-GB', localService: true, default: false },
    ];
    const said: { text: string; by: string }[] = [];
    Object.assign(window, { said });
    Object.defineProperty(window, 'SpeechSynthesisUtterance', { value: class { voice: unknown; onend: (() => void) | null = null; constructor(readonly text: string) {} } }); // prettier-ignore
    Object.defineProperty(window, 'speechSynthesis', {
      value: {
        getVoices: () => voices,
        addEventListener: () => undefined,
        removeEventListener: () => undefined,
        cancel: () => undefined,
        speak: (words: { text: string; voice: { name: string }; onend: () => void }) => {
          said.push({ text: words.text, by: words.voice.name });
          setTimeout(() => words.onend(), 5);
        },
      },
    });
  });
}

const said = (page: Page) => page.evaluate(() => (window as unknown as { said: { text: string; by: string }[] }).said);

/** Opens the lesson of a song from its plan. */
async function openLesson(page: Page, title: string): Promise<void> {
  await openSong(page, title);
  await page.getByRole('link', { name: 'Rehearse' }).click();
  await page.getByRole('link', { name: 'Take the lesson' }).click();
  await expect(page.getByTestId('caption')).toBeVisible();
}

const heading = (page: Page) => page.getByRole('heading', { level: 1 });

for (const waits of [true, false])
  test(`the lesson plays itself, a simulated player answers${waits ? ', and it waits for every key' : ' in time'}`, async ({
    page,
  }) => {
    await withVoices(page);
    await openLesson(page, 'All Aboard for Nettle Point');
    const caption = page.getByTestId('caption');
    await page.getByRole('button', { name: /^How it teaches/ }).click();
    await page.getByRole('checkbox', { name: 'A simulated player takes your turns' }).check();
    await page.keyboard.press('Escape');
    if (waits) await page.getByRole('button', { name: 'Wait for me' }).click();
    await page.getByTestId('start').click();
    await expect(caption).toHaveText('All Aboard for Nettle Point, in D major, in four parts. Count two to a bar.');
    await expect(heading(page)).toHaveText('Note by note');
    await expect(caption).toContainText('Thumb on the E above middle C; start with finger 2 on F♯4.');
    await page.getByTestId('go-on').click();
    await expect(heading(page)).toHaveText('Right hand');
    await expect(caption).toContainText('Your turn.');
    await expect(heading(page)).toHaveText('Chord by chord');
    await expect(caption).toContainText('D major, root position: D, F♯ and A.');
    await page.getByTestId('start').click();
    const words = await said(page);
    expect(words.map((w) => w.text)).toContain('Thumb on the E above middle C; start with finger 2 on F sharp.');
    expect(new Set(words.map((w) => w.by))).toEqual(new Set(['Here']));
  });

test('a lesson is led by keys, goes on where it was left, and is written where no voice is', async ({ page }) => {
  await openLesson(page, 'Lamps Across the Sound');
  await page.getByRole('button', { name: /^How it teaches/ }).click();
  await expect(page.getByText('This device has no voice of its own in English')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowRight');
  await expect(heading(page)).toHaveText('Note by note');
  await page.keyboard.press('ArrowRight');
  await expect(heading(page)).toHaveText('Right hand');
  await page.keyboard.press('ArrowLeft');
  await expect(heading(page)).toHaveText('Note by note');
  await pick(page, 'Chapter', 'The hardest spot');
  await expect(page.getByTestId('caption')).toContainText('The hardest spot is in part 2, bars 5 and 6');
  await page.keyboard.press(' ');
  await page.reload();
  await expect(dropdown(page, 'Chapter')).toHaveText(/The hardest spot/);
  await expect(heading(page)).toHaveText('Slowly, three times');
  await find(page, 'teach me');
  await expect(page.getByRole('option').first()).toContainText('Lesson');
});
