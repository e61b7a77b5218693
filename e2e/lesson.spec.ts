import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
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

test('a lesson is taken along as one page that opens by itself, with strip, keyboard, captions and sound', async ({
  page,
  context,
}, info) => {
  await openLesson(page, 'All Aboard for Nettle Point');
  await page.getByRole('button', { name: 'Take it along' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a page' }).click();
  const file = await saving;
  expect(file.suggestedFilename()).toBe('all-aboard-for-nettle-point-lesson.html');
  const path = info.outputPath('lesson.html');
  await file.saveAs(path);
  expect(readFileSync(path, 'utf8')).not.toMatch(/(src|href)="(?!data:)/);
  const taken = await context.newPage();
  const asked: string[] = [];
  taken.on('request', (r) => asked.push(r.url()));
  const faults: string[] = [];
  taken.on('pageerror', (e) => faults.push(e.message));
  taken.on('console', (m) => m.type() === 'error' && faults.push(m.text()));
  await taken.goto(pathToFileURL(path).href);
  await expect(taken.locator('#caption')).toHaveText(
    'All Aboard for Nettle Point, in D major, in four parts. Count two to a bar.',
  );
  await expect(taken.locator('#strip .stone').first()).toBeVisible();
  await taken.getByRole('button', { name: 'Go on' }).click();
  await expect(taken.locator('#caption')).toContainText('Thumb on the E above middle C');
  await expect(taken.getByRole('button', { name: 'Stop' })).toBeVisible();
  // The notes are named: the stone that is named and its key are marked.
  await expect(taken.locator('#strip .stone.on')).toHaveCount(1);
  await expect(taken.locator('#keyboard .sounding')).toHaveCount(1);
  await taken.getByRole('button', { name: 'The hardest spot' }).click();
  await expect(taken.locator('#caption')).toContainText('The hardest spot is in part 4');
  await expect(taken.locator('#keyboard .sounding').first()).toBeVisible();
  await taken.getByRole('button', { name: 'Stop' }).click();
  await expect(taken.getByRole('button', { name: 'Start' })).toBeVisible();
  expect(asked.filter((url) => !/^(file|data|blob):/.test(url))).toEqual([]);
  expect(faults).toEqual([]);
});

test('a chapter is made into a video with pictures and sound', async ({ page, context }, info) => {
  await openLesson(page, 'All Aboard for Nettle Point');
  await pick(page, 'Chapter', 'Parts 1 and 2');
  await page.getByTestId('start').click();
  await page.getByRole('button', { name: 'Take it along' }).click();
  const saving = page.waitForEvent('download');
  await page.getByTestId('take-along').getByRole('button', { name: 'This chapter' }).first().click();
  const file = await saving;
  expect(file.suggestedFilename()).toBe('all-aboard-for-nettle-point-lesson.webm');
  const path = info.outputPath('lesson.webm');
  await file.saveAs(path);
  const bytes = readFileSync(path).toString('base64');
  // It is opened as a browser opens it: its length, its first and its last picture, and whether anything is heard.
  const screen = await context.newPage();
  const found = await screen.evaluate(async (data) => {
    const file = await (await fetch(`data:video/webm;base64,${data}`)).arrayBuffer();
    const heard = await new OfflineAudioContext(2, 1, 44_100).decodeAudioData(file.slice(0));
    const loudest = heard.getChannelData(0).reduce((most, x) => Math.max(most, Math.abs(x)), 0);
    const film = document.createElement('video');
    film.src = `data:video/webm;base64,${data}`;
    film.muted = true;
    const ready = (name: string) => new Promise((done) => film.addEventListener(name, done, { once: true }));
    await ready('loadeddata');
    const canvas = new OffscreenCanvas(film.videoWidth, film.videoHeight);
    const pen = canvas.getContext('2d');
    const picture = () => {
      pen?.drawImage(film, 0, 0);
      const { data: dots } = pen?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
      // Shares of dots that are as dark as ink, and as red as what is marked.
      let [ink, red] = [0, 0];
      for (let i = 0; i < dots.length; i += 4) {
        if (dots[i] < 90 && dots[i + 1] < 90) ink++;
        if (dots[i] - dots[i + 1] > 50) red++;
      }
      return { ink: (4 * ink) / dots.length, red: (4 * red) / dots.length };
    };
    const at = async (seconds: number) => {
      const drawn = new Promise((done) => film.requestVideoFrameCallback(done));
      film.currentTime = seconds;
      await drawn;
      return picture();
    };
    const [first, last] = [await at(0.1), await at(film.duration - 0.3)];
    return { seconds: film.duration, sound: heard.duration, loudest, width: film.videoWidth, first, last };
  }, bytes);
  expect(found.width).toBe(1280);
  expect(found.seconds).toBeGreaterThan(15);
  expect(Math.abs(found.seconds - found.sound)).toBeLessThan(2.5);
  expect(found.loudest).toBeGreaterThan(0.05);
  for (const { ink, red } of [found.first, found.last]) {
    expect(ink).toBeGreaterThan(0.01);
    expect(red).toBeGreaterThan(0.0005);
  }
  expect(found.first).not.toEqual(found.last);
});
