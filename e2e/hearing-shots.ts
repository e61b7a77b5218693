import { chromium, type Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { arrange } from '../core/src/arrange/index.js';
import { midiOf } from '../core/src/pitch/index.js';
import { notesOf, stepsOf } from '../core/src/practice/index.js';
import { TICKS_PER_QUARTER as Q } from '../core/src/time/index.js';
import { heardInRoom, QUIET_ROOM, RATE, type Struck } from '../core/testing/pianos.js';
import { demo } from '../core/testing/songs.js';
import { soundOf, wavFrom, type Tone } from '../core/testing/sounds.js';
import { hearing } from './chromium.js';

const SONG = arrange(demo('all-aboard-for-nettle-point.musicxml'));
const TITLE = 'All Aboard for Nettle Point';

/** The first step with one wrong key, and then five keys of the piano, which stands a little low. */
function rehearsed(): Uint8Array {
  const [step] = stepsOf(SONG, { order: 'song', joins: 'chain' });
  const notes = notesOf(SONG, step);
  const take = notes.map(({ midi, at }, i): Struck => ({
    midi: i === 3 ? midi - 1 : midi,
    time: 4.4 + at,
    length: 0.7,
    loudness: 0.6,
  }));
  const keys = [36, 48, 60, 72, 84].map((midi, i): Struck => ({ midi, time: 30 + i * 1.8, length: 1.4, loudness: 0.6 }));
  return wavFrom(heardInRoom([[...take, ...keys]], { ...QUIET_ROOM, piano: 'set', cents: -12 })[0], RATE);
}

/** A line on "la", one of its notes halfway between two keys, so that nobody could say which it is. */
function sung(): Uint8Array {
  const line = [60, 62, 64.5, 65, 67, 67, 64, 60].map((midi, i): Tone => ({ at: 3 + i / 2, until: 3.42 + i / 2, midi }));
  return wavFrom(soundOf(line, 'la', RATE), RATE);
}

/** Two parts of the song, for a draft. */
function played(): Buffer {
  const take = SONG.score
    .filter((n) => n.at < SONG.parts[1].end)
    .map((n): Struck => ({
      midi: midiOf(n.pitch),
      time: (n.at / Q) * 0.6,
      length: Math.max(0.1, (n.length / Q) * 0.6),
      loudness: n.loudness,
    }));
  return Buffer.from(wavFrom(heardInRoom([take], { ...QUIET_ROOM, piano: 'set' })[0], RATE));
}

/** A page whose microphone hears a sound. */
async function whileHearing<T>(sound: Uint8Array, look: (page: Page) => Promise<T>): Promise<T> {
  const file = join(tmpdir(), 'joined-hands-shot.wav');
  writeFileSync(file, sound);
  const browser = await chromium.launch(hearing(file));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
  try {
    return await look(page);
  } finally {
    await browser.close();
  }
}

const seen = (page: Page) => page.screenshot({ animations: 'disabled' });

/** Rehearsing by microphone, what was heard in words, the set-up; a melody sung in; a recording as a draft. */
export async function hearingPictures(at: string): Promise<Buffer[]> {
  const stand = await whileHearing(rehearsed(), async (page) => {
    await page.goto(`${at}/shelf`);
    await page.getByRole('button', { name: `Open ${TITLE}` }).click();
    await page.getByTestId('stack').first().waitFor();
    await page.getByRole('link', { name: 'Rehearse' }).click();
    await page.getByTestId('start').click();
    await page.getByText('Play along after the count-in.').waitFor();
    await page.getByTestId('listen-by-microphone').click();
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=heard-letters] jh-signs').length > 3);
    const listening = await seen(page);
    await page.getByTestId('result').waitFor({ timeout: 60_000 });
    const told = await seen(page);
    await page.getByRole('button', { name: 'Set it up' }).click();
    await page.getByRole('button', { name: 'Begin' }).click();
    await page.getByRole('button', { name: 'Go on without' }).click({ timeout: 30_000 });
    await page.getByTestId('asked-key').getByText('C4').waitFor({ timeout: 60_000 });
    return [listening, told, await seen(page)];
  });
  const song = await whileHearing(sung(), async (page) => {
    await page.goto(`${at}/intake`);
    await page.getByRole('button', { name: 'Play it in' }).click();
    await page.getByRole('button', { name: 'Sing it' }).click();
    await page.getByLabel('Tempo').fill('120');
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    await page.getByTestId('live').waitFor();
    await page.waitForTimeout(8000);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    await page.getByTestId('stone').first().waitFor();
    const line = await seen(page);
    await page.getByRole('button', { name: 'Choose a file' }).first().click();
    await page.locator('input[type=file]').setInputFiles({ name: 'quay.wav', mimeType: 'audio/wav', buffer: played() });
    await page.getByTestId('draft').waitFor({ timeout: 90_000 });
    await page.getByTestId('stack').first().waitFor();
    return [line, await seen(page)];
  });
  return [...stand, ...song];
}
