import { readFileSync } from 'node:fs';
import { choose, dropdown, expect, openShelf, parts, stacks, test } from './app.js';

const LETTERS = `title: Tin Whistle Tide
key: D major
time: 3/4
pickup: 1

tune : A4 | D5 - C# | B - A | G A B | A - - |
chord:    | D  - -  | G - - | A7    | D - -
words: A  | tide - that | turns - to | car- ry us | home
`;

const ABC = `X:1
T:Gangway
M:4/4
L:1/4
K:F
|: "F" c2 A c | "C7" B2 G2 :| "F" F4 |]
w: Mind the gang- way, now
`;

const MUSICXML = `<?xml version="1.0"?><score-partwise version="4.0"><work><work-title>Bollard</work-title></work>
<part-list><score-part id="P1"><part-name>V</part-name></score-part></part-list><part id="P1"><measure number="1">
<attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>
<harmony><root><root-step>C</root-step></root><kind>major</kind></harmony>
<note><pitch><step>E</step><octave>5</octave></pitch><duration>4</duration></note></measure></part></score-partwise>`;

test('letters are typed with a live strip, and a slip is named at its place', async ({ page }) => {
  await page.goto('/intake');
  const editor = page.getByLabel('Letter lines');
  const keep = page.getByTestId('keep');
  await editor.fill(LETTERS);
  await expect(page.getByTestId('preview')).toContainText('Tin Whistle Tide');
  await expect(keep).toBeEnabled();

  const slip = LETTERS.replace('G A B', 'G A B C');
  await editor.fill(slip);
  await expect(page.getByTestId('fault')).toContainText('Line 6, bar 3: the bar has 4 counts where 3 are expected.');
  await expect(page.getByTestId('fault').locator('mark')).toHaveText('G A B C');
  await expect(keep).toBeDisabled();
  await expect(page.getByTestId('preview')).toContainText('Tin Whistle Tide');
  await page.getByRole('button', { name: 'Go there' }).click();
  const marked = () => editor.evaluate((e: HTMLTextAreaElement) => e.value.slice(e.selectionStart, e.selectionEnd));
  await expect.poll(marked).toBe('G A B C');

  await page.reload();
  await expect(editor).toHaveValue(slip);
  await editor.fill(LETTERS);
  await expect(page.getByTestId('fault')).toBeHidden();
  await keep.click();
  await expect(page.getByTestId('song-title')).toHaveText('Tin Whistle Tide');
  await expect(stacks(page).first()).toHaveAccessibleName(/^D major/);
});

test('ABC is pasted; a short example shows what it looks like, and what was found is not told beside a slip', async ({
  page,
}) => {
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Paste ABC' }).click();
  await page.getByRole('button', { name: 'Show a short example' }).click();
  await expect(page.getByTestId('preview')).toContainText('Fog Bell');
  await expect(page.getByTestId('found')).toBeVisible();
  await page.getByLabel('ABC text').press('Control+End');
  await page.keyboard.type('A A A A A |');
  await expect(page.getByTestId('fault')).toBeVisible();
  await expect(page.getByTestId('found')).toBeHidden();
  await page.getByLabel('ABC text').fill(ABC);
  await expect(page.getByTestId('preview')).toContainText('Gangway');
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('song-title')).toHaveText('Gangway');
  await expect(parts(page)).toHaveCount(2);
});

for (const [name, content, title, count] of [
  ['gangway.abc', ABC, 'Gangway', 2],
  ['bollard.musicxml', MUSICXML, 'Bollard', 1],
] as const)
  test(`the file ${name} is brought in as parts and stands first on the shelf`, async ({ page }) => {
    await page.goto('/intake');
    await page.getByRole('button', { name: 'Choose a file' }).click();
    await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(content) });
    await expect(page.getByTestId('preview')).toContainText(title);
    await page.getByTestId('keep').click();
    await expect(parts(page)).toHaveCount(count);
    await expect(stacks(page).first()).toHaveAccessibleName(/major, root position/);
    await openShelf(page);
    await expect(page.getByTestId('song-card')).toHaveCount(4);
    await expect(page.getByTestId('song-card').first()).toContainText(title);
  });

test('files that cannot be used are refused in a sentence and change nothing', async ({ page }) => {
  await openShelf(page);
  await page.getByRole('link', { name: 'Add a song' }).click();
  await page.getByRole('button', { name: 'Choose a file' }).click();
  const noise = Buffer.from(new Uint8Array(5_000_000).map((_, i) => (i * 31) % 251));
  for (const [name, buffer, sentence] of [
    ['empty.abc', Buffer.alloc(0), 'empty.abc: The file is empty.'],
    ['tune.musicxml', Buffer.from(ABC), 'The file is not MusicXML: it looks like ABC.'],
    ['bars.abc', Buffer.from(ABC.replace('c2 A c', 'c2 A c c')), 'Measure 1: the bar has 5 counts'],
    ['chord.abc', Buffer.from(ABC.replace('C7', 'Cq7')), '“Cq7” is not a chord symbol.'],
    ['noise.abc', noise, 'there is no readable text'],
  ] as const) {
    await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
    await expect(page.getByTestId('fault')).toContainText(sentence);
    await expect(page.getByTestId('keep')).toBeDisabled();
  }
  await openShelf(page);
  await expect(page.getByTestId('song-card')).toHaveCount(3);
});

test('a file that is gone by the time it is read is told in a sentence', async ({ page }) => {
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Choose a file' }).first().click();
  await page.evaluate(() => (Blob.prototype.arrayBuffer = () => Promise.reject(new DOMException('', 'NotFoundError'))));
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'fog-bell.abc', mimeType: 'text/plain', buffer: Buffer.from('X:1') });
  await expect(page.getByTestId('fault')).toContainText('fog-bell.abc cannot be opened any more');
  await expect(page.getByTestId('keep')).toBeDisabled();
});

test('a file is dropped anywhere on the page', async ({ page }) => {
  await page.goto('/intake');
  const transfer = await page.evaluateHandle((text) => {
    const data = new DataTransfer();
    data.items.add(new File([text], 'gangway.abc', { type: 'text/plain' }));
    return data;
  }, ABC);
  await page.locator('section.page').dispatchEvent('drop', { dataTransfer: transfer });
  await expect(page.getByTestId('preview')).toContainText('Gangway');
  await expect(page.getByTestId('keep')).toBeEnabled();
});

test('a tune is played in step by step on stand-in keys, with values, rests and a step taken back', async ({ page }) => {
  await openShelf(page);
  await page.getByRole('link', { name: 'Add a song' }).click();
  await page.getByRole('button', { name: 'Play it in' }).click();
  await page.getByRole('button', { name: 'half', exact: true }).click();
  await page.keyboard.press('a');
  await page.keyboard.press('d');
  await page.getByRole('button', { name: 'quarter', exact: true }).click();
  await page.locator('jh-keyboard rect[data-midi="67"]').click();
  await page.getByRole('button', { name: 'Rest', exact: true }).click();
  await page.keyboard.press('k');
  await page.keyboard.press('Backspace');
  await page.getByRole('button', { name: 'half', exact: true }).click();
  await page.keyboard.press('k');
  await expect(page.getByTestId('entered')).toHaveText(/C\s*half\s*E\s*half\s*G\s*rest\s*C\s*half/);
  await expect(page.getByTestId('preview').getByTestId('stone')).toHaveCount(4);
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('stone').first()).toHaveAttribute('aria-label', /^C4/);
});

test('a tune is played in time after a bar that is counted in, and put on a grid', async ({ page }) => {
  await openShelf(page);
  await page.getByRole('link', { name: 'Add a song' }).click();
  await page.getByRole('button', { name: 'Play it in' }).click();
  await page.getByRole('button', { name: 'In time' }).click();
  await page.getByLabel('Tempo').fill('200');
  await page.getByRole('button', { name: '2/4' }).click();
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByText('Play. 0 notes so far.')).toBeVisible();
  for (const key of ['a', 's', 'd']) await page.keyboard.press(key, { delay: 120 });
  await expect(page.getByText('Play. 3 notes so far.')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByTestId('preview').getByTestId('stone').first()).toHaveAttribute('aria-label', /^C4/);
  await expect(page.getByLabel('Write it in')).toContainText('ms off on average');
});

test('words with chords are pasted, last as long as is answered, and are sung from the sheet', async ({ page }) => {
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Words with chords' }).click();
  await page
    .getByRole('textbox', { name: 'Words with chords' })
    .fill('{title: Late Boat}\n{key: F}\nVerse:\nThe [F]rope is [Bb]in\nNo chords: [C7]gone [F]home');
  await expect(page.getByTestId('sung').first()).toHaveText('The');
  await dropdown(page, 'Chords last').click();
  await page.getByRole('menuitemradio', { name: 'half a bar each' }).click();
  await expect(page.getByTestId('preview')).toContainText('Late Boat');
  await expect(page.getByTestId('stack')).toHaveCount(4);
  await page.getByTestId('keep').click();
  await page.waitForURL('**/desk/**');
  // A melody is typed later.
  await page.getByRole('button', { name: 'Add the melody' }).click();
  const lines = page.getByRole('textbox', { name: 'Letter lines' });
  await expect(lines).toHaveValue(/tune *: /);
  await page.getByRole('button', { name: 'Keep this melody' }).click();
  await expect(page.getByRole('alert')).toContainText('There is no tune yet.');
  await lines.fill((await lines.inputValue()).replace(/\| +\./, '| A4'));
  await page.getByRole('button', { name: 'Keep this melody' }).click();
  await expect(page.getByTestId('stone')).toHaveCount(1);
  // Or played: note values and keys, in the song's own meter.
  await page.getByRole('button', { name: /^Undo: / }).click();
  await page.getByRole('button', { name: 'Add the melody' }).click();
  await page.getByRole('button', { name: 'Play or sing it' }).click();
  await page.getByRole('button', { name: 'Keep this melody' }).click();
  await expect(page.getByRole('alert')).toContainText('There is no note yet.');
  for (const midi of [69, 70]) await page.locator(`jh-play-in [data-midi="${midi}"]`).click();
  await page.getByRole('button', { name: 'Keep this melody' }).click();
  await expect(page.getByTestId('stone')).toHaveText(['A', 'B♭']);
  await page.getByRole('link', { name: 'Sheet' }).click();
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await expect(page.getByTestId('word-line').first()).toHaveText(/The\s*F\s*rope is\s*B♭\s*in/);
  const saved = page.waitForEvent('download');
  await choose(page, 'Save', 'Words with chords (ChordPro)');
  const file = await saved;
  expect(file.suggestedFilename()).toBe('late-boat.cho');
  expect(readFileSync(await file.path(), 'utf8')).toContain('The [F]rope is [Bb]in');
});

test('a file of words with chords that has none is refused in a sentence', async ({ page }) => {
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  const buffer = Buffer.from('{title: Late Boat}\nRope in\n');
  await page.locator('input[type=file]').setInputFiles({ name: 'late.cho', mimeType: 'text/plain', buffer });
  await expect(page.getByTestId('fault')).toContainText('late.cho: There are no chords in it. Write a chord in brackets');
});

test('singing in a page that gets no microphone says so, and the keys go on working', async ({ page }) => {
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Play it in' }).click();
  await page.getByRole('button', { name: 'Sing it' }).click();
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText(/microphone/);
  await page.getByRole('button', { name: 'Step by step' }).click();
  await page.locator('jh-keyboard [data-midi="64"]').first().click();
  await expect(page.getByTestId('entered')).toContainText('E');
});
