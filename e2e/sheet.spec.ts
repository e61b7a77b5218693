import midiPackage from '@tonejs/midi';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { openFile } from '@joined-hands/core/formats';
import { choose, expect, openSong, test } from './app.js';

async function save(page: Page, kind: string): Promise<{ name: string; data: Uint8Array }> {
  const [file] = await Promise.all([page.waitForEvent('download'), choose(page, 'Save', kind)]);
  return { name: file.suggestedFilename(), data: new Uint8Array(readFileSync(await file.path())) };
}

test('the staff is engraved on pages and the letter chart holds every part', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(page.getByTestId('page').locator('svg').first()).toBeVisible({ timeout: 40_000 });
  await expect.poll(() => page.locator('[data-testid=page] .note').count()).toBeGreaterThan(60);
  await expect(page.getByText('publishing or selling your arrangement')).toBeVisible();
  await page.getByRole('button', { name: 'Letters', exact: true }).click();
  await expect(page.getByTestId('chart').locator('section')).toHaveCount(5);
  await expect(page.getByTestId('chart')).toContainText('lamps');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
});

test('MusicXML, MIDI, letter lines and the project are exported and read back', async ({ page }) => {
  await openSong(page, 'Lamps Across the Sound');
  await page.getByLabel('Chord symbol').fill('Gm7');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'G minor seventh' })).toBeVisible();
  await page.getByRole('link', { name: 'Sheet' }).click();
  for (const kind of ['MusicXML', 'Letter lines', 'ABC', 'Project']) {
    const { name, data } = await save(page, kind);
    expect(name).toMatch(/^lamps-across-the-sound\./);
    const opened = openFile(name, data);
    if (!opened.ok) throw new Error(opened.fault.code);
    const { song, choices } = opened.document;
    expect(song.melody).toHaveLength(44);
    expect([...choices.chords, ...song.chords][0].symbol).toBe('Gm7');
  }
  const midi = new midiPackage.Midi((await save(page, 'MIDI')).data);
  expect(midi.tracks.map((t) => t.name)).toEqual(['Right hand', 'Left hand']);
  expect(midi.tracks[0].notes).toHaveLength(44);
  expect(midi.tracks[1].notes.length).toBeGreaterThan(50);
});
