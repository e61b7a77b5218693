import { chromium, type Page } from '@playwright/test';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { dropdown, goBeside, pick } from './app.js';
import { CHROMIUM } from './chromium.js';
import { hearingPictures } from './hearing-shots.js';
import { lessonPictures } from './lesson-shots.js';
import { playersPictures } from './players-shots.js';
import { tiled } from './tiled.js';
import { listen } from '../server/src/listen.js';
import { makeApp } from '../server/src/app.js';

const SLACK_WATER = `X:1
T:Slack Water
M:4/4
L:1/8
Q:1/4=96
K:C
D2 A2 A2 GA | B2 AG A4 | c2 BA G2 AB | A8 |
D2 A2 A2 GA | B2 AG E4 | F2 ED E2 C2 | D8 |]
`;

const EVENING_BERTH = `X:1
T:Evening Berth
M:4/4
L:1/4
Q:1/4=66
K:Eb
E F G A | B G F2 | A G F G | A B E2 |
E F G A | G A B2 | B A G A | G F E2 |]
`;

const FIVE_BELLS = `title: Five Bells
key: G major
time: 3/4
tempo: 108

tune : B4 - C5 | D - B4 | A - G | E - A | G - - | B4 - C5 | D - E | D - B4 | A - F# | G - - |
words: Five - bells | in - the | fog, - and | no - one's | home, - - | five - bells | more - and | the - har- | bour's - a | tone. - - |
`;

const TWO_HANDS = `title: Two at the Rail
key: C major
time: 4/4
tempo: 92

tune : E4+C4 - G4+E4 - | A4+F4 - G4+E4 - | F4+D4 - E4+C4 D4+B3 | E4+C4 - - - |
chord: C - - - | F - C - | G7 - - - | C - - - |
left : C3 G3 C4 G3 | F3 C4 C3 G3 | G2 D3 F3 D3 | C3 G3 C3 - |
`;

const HELD = `title: Anchor Watch
key: C major
time: 4/4
tempo: 96

tune : G4+C4 - - - | A4_G4 A4 C5_A4 G4 | G4+C4 - - - | F4_G4 F4 E4 - |
inner: E4 F4 D4 E4 | F4 - - - | E4 F4 D4 E4 | D4 - C4 - |
chord: C - - - | F - - - | C - - - | G7 - C - |
`;

// Takes the pictures of docs/screenshots from demo data: npm run shots, after npm start has built the application.
const root = fileURLToPath(new URL('..', import.meta.url));
const folder = join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const { server, port } = await listen(makeApp(join(root, 'web', 'dist', 'browser')), 4700);
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
const shot = (name: string) => page.screenshot({ path: join(folder, `${name}.png`), animations: 'disabled' });

/** Several pictures in one file, side by side, each so many pixels wide. */
async function sideBySide(name: string, pictures: readonly Buffer[], width: number, columns: number): Promise<void> {
  writeFileSync(join(folder, `${name}.png`), await tiled(browser, pictures, width, columns));
}
const seen = () => page.screenshot({ animations: 'disabled' });

/** Types a song and opens it on the desk. */
async function typeIn(way: 'Type letters' | 'Paste ABC', text: string): Promise<void> {
  await page.goto(`http://127.0.0.1:${port}/intake`);
  await page.getByRole('button', { name: way }).click();
  await page.locator('textarea').fill(text);
  await page.getByTestId('preview').getByTestId('stack').first().waitFor();
}

async function keep(): Promise<void> {
  await page.getByTestId('keep').click();
  await page.waitForURL('**/desk/**');
  await page.getByTestId('stack').first().waitFor();
}

/** Names the notes in another way, by the finder. */
async function nameNotes(way: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(`note names ${way}`);
  await page.keyboard.press('Enter');
}

async function desk(target: Page, title: string, part: number, chord: number): Promise<void> {
  await target.goto(`http://127.0.0.1:${port}/shelf`);
  await target.getByRole('button', { name: `Open ${title}` }).click();
  await target.getByTestId('stack').first().waitFor();
  for (let i = 1; i < part; i++) await target.keyboard.press('ArrowDown');
  for (let i = 1; i < chord; i++) await target.keyboard.press('ArrowRight');
}

await page.goto(`http://127.0.0.1:${port}/shelf`);
await page.getByTestId('song-card').nth(2).waitFor();
await page.evaluate(() => document.fonts.ready);
await shot('shelf');

await page.getByRole('link', { name: 'Add a song' }).click();
await page.getByTestId('preview').waitFor();
await page.getByRole('button', { name: 'Choose a file' }).click();
await page.locator('input[type=file]').setInputFiles(join(root, 'e2e', 'quayside-band.musicxml'));
await page.getByTestId('questions').waitFor();
await page.getByRole('button', { name: /^Found in the file/ }).click();
await page.waitForFunction(
  () =>
    (document.querySelector('.found td')?.checkVisibility() ?? false) &&
    (document.querySelector('.found')?.clientHeight ?? 0) > 120,
);
await shot('intake-report');
await desk(page, 'Lamps Across the Sound', 2, 2);
await shot('desk-joined');
await page.keyboard.press('ArrowRight');
await nameNotes('german');
await page.getByRole('heading', { name: 'B major' }).waitFor();
// Why this finger, with notes in German.
await page.getByTestId('stone').nth(1).click();
await page.getByTestId('finger-prices').waitFor();
await shot('desk-finger');
await nameNotes('C D E');
await page.keyboard.press('3');
await dropdown(page, 'Difficulty').click();
await page.getByTestId('ease').first().waitFor();
await page.keyboard.press('Escape');
await page.getByRole('link', { name: 'First look' }).click();
await page.getByTestId('chord').first().waitFor();
await shot('first-look');
await page.getByRole('link', { name: 'Choose a key' }).click();
await page.getByTestId('key').first().waitFor();
await page.locator('.chart svg text').first().waitFor();
await shot('key');
await page.getByRole('link', { name: 'Sheet' }).click();
await page.getByRole('button', { name: 'Letters', exact: true }).click();
await page.locator('jh-paper article').waitFor();
const letters = await seen();

// The dressed song: a plan, a texture with harmony and a fill, its own figure, a version beside it, the staff with all its signs.
await desk(page, 'Harbour Glass', 1, 1);
await goBeside(page, 'Versions');
await page.getByLabel('Name for the version').fill('Plain');
await page.getByRole('button', { name: 'Save a version' }).click();
await page.getByTestId('version').waitFor();
await page.getByRole('link', { name: 'Accompaniment' }).click();
await page.getByRole('button', { name: 'Suggest one for every part' }).click();
await page.getByRole('button', { name: 'Louder each time it returns' }).click();
await page.getByRole('button', { name: 'First and second endings' }).click();
await pick(page, 'Loudness of part 1', 'p');
await pick(page, 'Texture of part 6', 'freely, in your own way');
await page.getByText('for instance').waitFor();
await shot('accompaniment');
await page.getByRole('link', { name: 'Desk', exact: true }).click();
await page.getByTestId('stack').first().waitFor();
await page.keyboard.press('4');
await dropdown(page, 'Texture').click();
await page.getByTestId('texture').filter({ hasText: 'bass, then chord' }).click();
await page.getByRole('button', { name: 'half', exact: true }).click();
await page.getByRole('button', { name: 'Whole song' }).click();
await page.getByText('changed with every chord').click();
await page.keyboard.press('Escape');
await dropdown(page, 'Sound').click();
await page.getByRole('button', { name: 'louder, then softer' }).click();
await page.getByRole('button', { name: 'rolled' }).click();
await page.keyboard.press('Escape');
await page.getByTestId('room').first().click();
const broken = page.getByTestId('fill').filter({ hasText: 'broken chord' });
await broken.click();
await broken.click();
await page.getByTestId('pebble').first().waitFor();
await page.getByRole('button', { name: 'Only here' }).click();
await page.getByRole('button', { name: 'Stop (space)' }).click();
await page.locator('jh-keyboard rect.sounding').first().waitFor({ state: 'detached' });
await page.getByRole('button', { name: 'Evening theme' }).click();
await page.locator('html[data-theme=evening]').waitFor();
await page.context().setOffline(true);
await page.getByText('offline').waitFor();
await nameNotes('do re mi');
await shot('desk-evening-offline');
await nameNotes('C D E');
await page.context().setOffline(false);
await page.getByRole('button', { name: 'Day theme' }).click();
await page.getByRole('link', { name: 'Sheet' }).click();
await page.getByTestId('page').first().waitFor({ timeout: 60_000 });
await shot('sheet-staff');
// The lesson of a part with its pattern, count by count.
await page.getByRole('button', { name: 'Lesson', exact: true }).click();
await page.getByTestId('pattern').first().scrollIntoViewIfNeeded();
await page.mouse.move(640, 500);
await page.mouse.wheel(0, 220);
await page.getByTestId('pattern').nth(1).waitFor();
await sideBySide('sheet-letters', [letters, await seen()], 960, 2);
await goBeside(page, 'Versions');
await page.getByTestId('bar').first().waitFor();
await page.getByRole('button', { name: /^Saved automatically/ }).click();
const versions = await seen();
await page.getByRole('button', { name: 'Go back to Plain' }).click();

await desk(page, 'Lamps Across the Sound', 3, 4);
await page.getByTestId('fix').first().waitFor();
await pick(page, 'Hand', 'child hand');
await goBeside(page, 'Hands');
await page.getByTestId('misfit').first().waitFor();
await page.getByRole('button', { name: 'Measure' }).first().click();
await page.locator('jh-keyboard rect[data-midi="48"]').click();
await page.locator('jh-keyboard rect.sounding').first().waitFor({ state: 'detached' });
await sideBySide('versions', [versions, await seen()], 960, 2);
await page.getByRole('link', { name: 'Desk', exact: true }).click();
await page.getByTestId('stack').first().waitFor();
await page.keyboard.press('Control+z');

// At the piano: the step at hand, a pass of the stand-in with its slips, the log, a drill.
await desk(page, 'Harbour Glass', 1, 1);
await page.getByRole('link', { name: 'Rehearse' }).click();
await page.getByTestId('step').filter({ hasText: 'together' }).waitFor();
const stand = await seen();
await page.getByTestId('all-steps').waitFor({ state: 'attached' });
await dropdown(page, 'Keys').click();
await page.getByRole('button', { name: 'Many slips' }).click();
await page.getByRole('button', { name: 'Let it play' }).click();
await page.getByTestId('result').waitFor({ timeout: 60_000 });
await page.locator('jh-keyboard rect.sounding').first().waitFor({ state: 'detached' });
await sideBySide('rehearse', [stand, await seen()], 960, 2);
await goBeside(page, 'Log');
await page.getByTestId('chart').last().locator('svg text').first().waitFor();
const log = await seen();
await page.getByRole('link', { name: 'Drills' }).click();
await page.getByRole('button', { name: 'Cadences' }).click();
await page.getByRole('button', { name: 'Start (space)' }).click();
await page.locator('jh-keyboard circle.left').first().waitFor();
await sideBySide('log-and-drill', [log, await seen()], 960, 2);

// Songs that are neither plainly major nor minor, with chords on every beat, in phrases of five bars.
await typeIn('Paste ABC', SLACK_WATER);
await keep();
const dorian = await seen();
await page.getByRole('link', { name: 'First look' }).click();
await page.getByTestId('chord').first().waitFor();
const look = await seen();
await typeIn('Paste ABC', EVENING_BERTH);
await keep();
const hymn = await seen();
await typeIn('Type letters', FIVE_BELLS);
await keep();
await sideBySide('other-songs', [look, dorian, hymn, await seen()], 960, 2);

// What hands really play: thirds, a left hand of one's own typed and as blocks, a chord between the hands, signs and reminders.
await typeIn('Type letters', TWO_HANDS);
const typed = await seen();
await keep();
await page.keyboard.press('4');
await dropdown(page, 'Texture').click();
await page.getByRole('button', { name: 'Left hand as written', exact: true }).click();
await page.keyboard.press('Escape');
const own = await seen();
await desk(page, 'Lamps Across the Sound', 2, 1);
await dropdown(page, 'Left hand').click();
await page.getByTestId('school').filter({ hasText: 'chord under the melody' }).getByRole('button').click();
await page.keyboard.press('Escape');
await page.getByTestId('under').first().waitFor();
const between = await seen();
await page.keyboard.press('Control+z');
await page.getByTestId('stone').nth(4).click();
await page.getByTestId('reminder').fill('jump early');
await page.keyboard.press('Enter');
await page.getByRole('button', { name: 'Fermata', exact: true }).click();
await page.getByRole('button', { name: 'Breath after it' }).click();
await page.getByTestId('breath').waitFor();
const marked = await seen();
// Keys that are held while others move, and eighths that swing: the second of two stands where it is heard.
await typeIn('Type letters', HELD);
await keep();
await page.keyboard.press('1');
const held = await seen();
await page.keyboard.press('4');
await dropdown(page, 'Sound').click();
await page.getByRole('group', { name: 'Eighth notes' }).getByRole('button', { name: 'swing', exact: true }).click();
await page.keyboard.press('Escape');
await page.keyboard.press('3');
await page.getByTestId('stone').first().waitFor();
await sideBySide('two-hands', [typed, own, held, await seen(), between, marked], 960, 2);

// On a phone: upright, and turned at the piano.
const phone = await (
  await browser.newContext({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce', hasTouch: true })
).newPage();
await desk(phone, 'Lamps Across the Sound', 2, 2);
await phone.evaluate(() => document.fonts.ready);
const onPhone = async () => {
  const upright = await phone.screenshot({ animations: 'disabled' });
  await phone.setViewportSize({ width: 844, height: 390 });
  const turned = await phone.screenshot({ animations: 'disabled' });
  await phone.setViewportSize({ width: 390, height: 844 });
  return { upright, turned };
};
const phoneDesk = await onPhone();
await phone.getByRole('button', { name: 'Go to: Desk' }).click();
await phone.getByRole('menuitem', { name: 'Rehearse' }).click();
await phone.getByTestId('step').waitFor();
const phoneRehearse = await onPhone();
await phone.getByRole('button', { name: 'Go to: Rehearse' }).click();
await phone.getByRole('menuitem', { name: 'Sheet' }).click();
await phone.getByTestId('page').first().waitFor({ timeout: 60_000 });
const phoneSheet = await onPhone();
await phone.goto(`http://127.0.0.1:${port}/shelf`);
await phone.getByTestId('song-card').nth(2).waitFor();
const phoneShelf = await onPhone();
const onPhones = [phoneShelf, phoneDesk, phoneRehearse, phoneSheet];
const halves = [onPhones.map((p) => p.upright), onPhones.map((p) => p.turned)];
const rows = [await tiled(browser, halves[0], 470, 4), await tiled(browser, halves[1], 944, 2)];
await sideBySide('phone', rows, 1900, 1);
await sideBySide('lesson', await lessonPictures(`http://127.0.0.1:${port}`), 960, 2);
await sideBySide('players', await playersPictures(`http://127.0.0.1:${port}`), 960, 2);
await sideBySide('hearing', await hearingPictures(`http://127.0.0.1:${port}`), 960, 2);
await browser.close();
server.close();
