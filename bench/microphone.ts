import { chromium, type Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { wavFrom } from '../core/testing/sounds.js';
import { hearing } from '../e2e/chromium.js';
import { noteLags, TITLE, writeTake } from '../e2e/piano-take.js';
import { middle, type Row } from './table.js';

const RATE = 48_000;
/** Seconds between two bursts of noise, and how many there are. */
const APART = 0.5;
const BURSTS = 40;

/** Bursts of noise at even distances, after the moments that a browser takes to begin. */
function bursts(): string {
  const sound = new Float32Array(Math.round((2 + BURSTS * APART + 1) * RATE));
  let seed = 7;
  for (let k = 0; k < BURSTS; k++)
    for (let i = 0; i < 400; i++) {
      seed = (seed * 1103515245 + 12345) & 0x7fffffff;
      sound[Math.round((2 + k * APART) * RATE) + i] = 0.8 * ((seed / 0x7fffffff) * 2 - 1);
    }
  const file = join(tmpdir(), 'joined-hands-bursts.wav');
  writeFileSync(file, wavFrom(sound, RATE));
  return file;
}

/** A page with a microphone that hears a file, on the first step of a song. */
async function withMicrophone<T>(home: string, file: string, measure: (page: Page) => Promise<T>): Promise<T> {
  const browser = await chromium.launch(hearing(file));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // What compiles this script names functions by a helper that a page does not have.
  await page.addInitScript('globalThis.__name = (made) => made');
  await page.addInitScript(() => {
    const heard: Float32Array[] = ((window as { heard?: Float32Array[] }).heard = []);
    const Usual = window.AudioWorkletNode;
    window.AudioWorkletNode = class extends Usual {
      constructor(...of: ConstructorParameters<typeof AudioWorkletNode>) {
        super(...of);
        this.port.addEventListener('message', ({ data }: MessageEvent<{ samples: Float32Array }>) =>
          heard.push(data.samples.slice()),
        );
      }
    };
  });
  await page.goto(`${home}/shelf`);
  await page.getByRole('button', { name: `Open ${TITLE}` }).click();
  await page.getByTestId('stack').first().waitFor();
  await page.getByRole('link', { name: 'Rehearse', exact: true }).click();
  await page.getByRole('button', { name: 'Wait for me' }).click();
  await page.getByTestId('start').click();
  const measured = await measure(page);
  await browser.close();
  return measured;
}

/** Samples that are missing between the first and the last of many bursts, as the page hears them; fewer than none where there are more. */
async function missingIn(page: Page): Promise<number> {
  await page.getByTestId('listen-by-microphone').click();
  await page.getByTestId('live').waitFor();
  await page.waitForTimeout((2 + BURSTS * APART + 2) * 1000);
  return page.evaluate((apart) => {
    const { heard = [] } = window as { heard?: Float32Array[] };
    const all = heard.flatMap((block) => [...block]);
    const starts: number[] = [];
    all.forEach((x, i) => {
      if (Math.abs(x) > 0.2 && i - (starts.at(-1) ?? -1e9) > 5000) starts.push(i);
    });
    const [first, last] = [starts[0], starts[starts.length - 1]];
    const rate = new AudioContext().sampleRate;
    const many = Math.round((last - first) / (apart * rate));
    return Math.round(many * apart * rate - (last - first));
  }, APART);
}

/** Milliseconds from a key to its being made out, the middle of a step. */
async function lag(page: Page): Promise<number> {
  await page.evaluate(noteLags);
  await page.getByTestId('listen-by-microphone').click();
  await page.getByTestId('result').filter({ hasText: 'Heard to the end' }).waitFor({ timeout: 90_000 });
  return 1000 * middle(await page.evaluate(() => (window as { lags?: number[] }).lags ?? []));
}

/** Listening in the browser: what of the sound arrives, and how soon a key is told. */
export async function throughMicrophone(home: string): Promise<Row[]> {
  const missing = await withMicrophone(home, bursts(), missingIn);
  const late = await withMicrophone(home, writeTake('bench'), lag);
  const seconds = (BURSTS - 1) * APART;
  return [
    {
      what: `samples lost in ${seconds.toFixed(0)} s of listening`,
      measured: `${missing}`,
      against: 'none (a filter may shift a few)',
    },
    { what: 'a key by microphone, from being struck to being told', measured: `${late.toFixed(0)} ms`, against: '300 ms' },
  ];
}
