import {
  arrange,
  compareKeys,
  fingerLine,
  handsOf,
  layBars,
  newDocument,
  setFill,
  setWish,
  suggestChords,
  TICKS_PER_QUARTER,
  voiceLeftHand,
  type Document,
  type Grip,
  type Song,
  type Strike,
  type VoicingWishes,
} from '@joined-hands/core';
import { openFile } from '@joined-hands/core/formats';
import { chromium } from '@playwright/test';
import { gzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { listen } from '../server/src/listen.js';
import { makeApp } from '../server/src/app.js';

const root = fileURLToPath(new URL('..', import.meta.url));
const rows: { what: string; measured: string; limit: string }[] = [];

/** The middle of several timings, in milliseconds. */
function median(times: number, work: () => void): number {
  const taken = Array.from({ length: times }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return taken.sort((a, b) => a - b)[times >> 1];
}

function glass(): Document {
  const opened = openFile('harbour-glass.abc', new Uint8Array(readFileSync(join(root, 'demo/harbour-glass.abc'))));
  if (!opened.ok) throw new Error(opened.sentence);
  return opened.document;
}

/** The same song again and again, `times` over. */
function repeated(song: Song, times: number): Song {
  const over = <T extends { at: number }>(items: readonly T[]) =>
    Array.from({ length: times }, (_, k) => items.map((item) => ({ ...item, at: item.at + k * song.length }))).flat();
  return { ...song, length: song.length * times, melody: over(song.melody), chords: over(song.chords), marks: over(song.marks) };
}

const ballad = glass();
const long = newDocument(repeated(ballad.song, 32));
median(5, () => arrange(ballad));
const short = median(15, () => arrange(ballad));
const whole = median(5, () => arrange(long));
rows.push({ what: 'arrange(), 32 bars', measured: `${short.toFixed(1)} ms`, limit: '50 ms' });
rows.push({ what: 'arrange(), 1,024 bars', measured: `${whole.toFixed(1)} ms`, limit: `${(short * 32 * 1.3).toFixed(1)} ms` });

/** Two times the song in a lively texture, with harmony, and a fill wherever there is room. */
function dressed(): Document {
  const plain = newDocument(repeated(ballad.song, 2));
  const layered = setWish(setWish(plain, null, 'texture', 'rise-and-fall'), null, 'harmony', { density: 50, size: 'two' });
  const rooms = arrange(layered).parts.flatMap((p) => p.rooms);
  return rooms.reduce((d, room) => setFill(d, room.at, room.offers[0]?.kind ?? null), layered);
}
const layered = dressed();
median(5, () => arrange(layered));
rows.push({
  what: 'arrange(), 64 bars, texture, harmony, fills',
  measured: `${median(15, () => arrange(layered)).toFixed(1)} ms`,
  limit: '120 ms',
});

const POOL = ['Fmaj7', 'Dm7', 'Gm7', 'C7', 'Am7', 'D7', 'Bbmaj7', 'Bbm6', 'F6', 'Em7b5', 'A7', 'Eb7', 'G9', 'C13'];
/** Chords of half a bar under a tune that goes up and down, hardly a pair of them twice. */
function chain(chords: number): [Strike[], Song['melody']] {
  const beat = TICKS_PER_QUARTER;
  const strikes = Array.from({ length: chords }, (_, i) => {
    return {
      at: i * 2 * beat,
      length: 2 * beat,
      symbol: POOL[(i * 5 + (i >> 3)) % POOL.length],
      again: false,
      beat,
      writtenAt: i * 2 * beat,
    };
  });
  return [strikes, strikes.map(({ at, length }, i) => ({ at, length, pitch: ['A5', 'C5', 'E5', 'G4'][i % 4], lyric: null }))];
}
const wishes: VoicingWishes = { hands: handsOf(), pins: new Map(), schoolAt: () => 'close', bassAt: () => 'free' };
const voice = (chords: number) => {
  const [strikes, melody] = chain(chords);
  return median(15, () => voiceLeftHand(strikes, melody, wishes));
};
voice(128);
const voiced = voice(128);
rows.push({ what: 'voicing, 128 chords, all candidates', measured: `${voiced.toFixed(1)} ms`, limit: '60 ms' });
rows.push({
  what: 'voicing, 1,024 chords',
  measured: `${voice(1024).toFixed(1)} ms`,
  limit: `${(voiced * 8 * 1.3).toFixed(1)} ms`,
});
/** A tune of eighth notes that hardly ever takes the same turn twice. */
const tune = (notes: number): Grip[] =>
  Array.from({ length: notes }, (_, i) => {
    const pitch = ['C4', 'D4', 'E4', 'F#4', 'G4', 'A4', 'Bb4', 'C5', 'D5', 'E5', 'F5'][(i * 7 + ((i * i) >> 3)) % 11];
    return { at: (i * TICKS_PER_QUARTER) / 2, length: TICKS_PER_QUARTER / 2, pitches: [pitch] };
  });
const finger = (notes: number) => {
  const line = tune(notes);
  return median(15, () => fingerLine(line, { hands: handsOf(), hand: 'right', tempo: 100 }));
};
finger(200);
const fingered = finger(200);
rows.push({ what: 'fingering, 200 notes', measured: `${fingered.toFixed(1)} ms`, limit: '30 ms' });
rows.push({
  what: 'fingering, 1,600 notes',
  measured: `${finger(1600).toFixed(1)} ms`,
  limit: `${(fingered * 8 * 1.3).toFixed(1)} ms`,
});
rows.push({
  what: 'comparing twelve keys, 32 bars',
  measured: `${median(3, () => compareKeys(ballad)).toFixed(0)} ms`,
  limit: '–',
});
const suggest = (times: number) => {
  const song = repeated(ballad.song, times);
  const bars = layBars(song);
  const task = { tune: song.melody, bars, key: song.key, vocabulary: 'rich', rhythm: 'beat' } as const;
  return median(9, () => suggestChords({ ...task, from: 0, to: song.length, ends: [], fixed: new Map() }));
};
suggest(2);
const suggested = suggest(2);
rows.push({ what: 'suggesting, 64 bars, rich, every beat', measured: `${suggested.toFixed(1)} ms`, limit: '200 ms' });
rows.push({
  what: 'suggesting, 512 bars',
  measured: `${suggest(16).toFixed(1)} ms`,
  limit: `${(suggested * 8 * 1.3).toFixed(1)} ms`,
});

const dist = join(root, 'web/dist/browser');
const index = readFileSync(join(dist, 'index.html'), 'utf8');
const scripts = new Set([...index.matchAll(/(?:src|href)="([\w-]+\.js)"/g)].map((m) => m[1]));
const weight = [...scripts].reduce((sum, name) => sum + gzipSync(readFileSync(join(dist, name))).length, 0);
rows.push({ what: 'initial script, compressed', measured: `${(weight / 1000).toFixed(0)} kB`, limit: '500 kB' });

const { server, port } = await listen(makeApp(dist), 4620);
const browser = await chromium.launch({
  executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const paints: number[] = [];
for (let i = 0; i < 5; i++) {
  await page.goto(`http://127.0.0.1:${port}/shelf`);
  await page.getByTestId('song-card').first().waitFor();
  paints.push(await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0].startTime));
}
rows.push({ what: 'first paint, first visit', measured: `${paints[0].toFixed(0)} ms`, limit: '1,500 ms' });

await page.getByRole('button', { name: 'Open Harbour Glass' }).click();
await page.getByTestId('stack').first().waitFor();
// From the press that keeps another place for a chord to the frame that shows it, measured inside the page.
const edits: number[] = [];
for (let i = 0; i < 9; i++) {
  await page
    .getByTestId('alternative')
    .nth(i % 2)
    .click();
  edits.push(
    await page.evaluate(async (n) => {
      const stack = document.querySelector('[data-testid=stack]');
      const before = stack?.getAttribute('aria-label');
      const start = performance.now();
      document.querySelectorAll<HTMLElement>('[data-testid=alternative]')[n].click();
      while (document.querySelector('[data-testid=stack]')?.getAttribute('aria-label') === before)
        await new Promise(requestAnimationFrame);
      return performance.now() - start;
    }, i % 2),
  );
}
rows.push({
  what: 'an edit on the desk, on screen',
  measured: `${edits.sort((a, b) => a - b)[4].toFixed(0)} ms`,
  limit: '100 ms',
});
await browser.close();
server.close();
console.table(rows);
