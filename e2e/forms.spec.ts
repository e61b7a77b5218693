import { dropdown, expect, goBeside, openSong, pick, test } from './app.js';

test('what stands over a song is put right, with what is wrong beside its field', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  await page.getByRole('link', { name: 'First look' }).click();
  const change = page.getByRole('button', { name: 'Change title, key, meter or tempo' });
  await change.click();
  const form = page.getByRole('dialog', { name: 'About the song' });
  const [title, tempo] = [form.getByLabel('Title'), form.getByLabel('Tempo')];
  await expect(title).toHaveValue('Harbour Glass');
  await title.fill(' ');
  await tempo.fill('900');
  await expect(form.getByText('A song needs a title.')).toBeVisible();
  await expect(form.getByText('A tempo is 20 to 400 quarter notes a minute.')).toBeVisible();
  await expect(tempo).toHaveAttribute('aria-invalid', 'true');
  await expect(tempo).toHaveValue('900');
  await expect(form.getByRole('button', { name: 'Save' })).toBeDisabled();
  // What was not kept is gone, and nothing of it was taken over.
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('song-title')).toHaveText('Harbour Glass');
  await change.click();
  await expect(title).toHaveValue('Harbour Glass');
  await title.fill('Harbour Glass, slowly');
  await tempo.fill('20');
  const tap = form.getByRole('button', { name: 'Tap the beat' });
  for (let i = 0; i < 4; i++) await tap.click();
  await expect(tempo).not.toHaveValue('20');
  await tempo.fill('60');
  await pick(page, 'Meter', '2/4');
  await pick(page, 'Mode', 'Dorian');
  await pick(page, 'Key', 'D');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('song-title')).toHaveText('Harbour Glass, slowly');
  await expect(page.locator('.meta')).toContainText('D Dorian · 2/4 · ♩ = 60');
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await page.getByRole('button', { name: /^Undo: the title, / }).click();
  await expect(page.locator('.meta')).toContainText('F major · 4/4 · ♩ = 76');
});

test('a tune that sounds more like another key says so with its reason, and is read in it at a press', async ({ page }) => {
  await page.goto('/intake');
  await page
    .getByLabel('Letter lines')
    .fill(
      'title: Bell Buoy\nkey: E minor\ntime: 4/4\ntune: E4 G4 B4 C#5 | B4 A4 G4 E4 | F#4 G4 A4 B4 | D5 C#5 B4 A4 | C#5 B4 G4 F#4 | E4 - - -',
    );
  await page.getByTestId('keep').click();
  await page.getByRole('link', { name: 'First look' }).click();
  const reading = page.getByTestId('reading');
  await expect(reading).toContainText(/^The melody (sounds more like|could also be heard in) E Dorian: it has C/);
  await reading.getByRole('button', { name: 'Read it in E Dorian' }).click();
  await expect(page.getByRole('heading', { name: 'E Dorian' })).toBeVisible();
  await expect(reading).toBeHidden();
  await expect(page.getByText('Every melody note is in the scale.')).toBeVisible();
});

test('a list, a fold, a checkbox and a number go by the keyboard alone', async ({ page }) => {
  await openSong(page, 'Harbour Glass');
  const hand = dropdown(page, 'Hand');
  await hand.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menuitemradio', { name: 'medium hand' })).toHaveAttribute('aria-checked', 'true');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(hand).toHaveText('small hand');
  await expect(hand).toBeFocused();

  await goBeside(page, 'Hands');
  const first = page.getByRole('checkbox', { name: /First year/ });
  await first.focus();
  await page.keyboard.press('Space');
  await expect(first).toBeChecked();
  const span = page.getByLabel('comfortable', { exact: true }).first();
  await span.fill('40');
  await expect(page.getByText('A span is 4 to 24 half steps.')).toBeVisible();
  await span.fill('9');
  await page.keyboard.press('ArrowUp');
  await expect(span).toHaveValue('10');
  await expect(page.getByText('measured: a minor seventh, 10 half steps')).toBeVisible();

  await page.getByRole('button', { name: 'Shortcuts and about' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'What the words mean' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog').getByText('in half steps, all fingers added up')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('dialog').getByText('in half steps, all fingers added up')).toBeHidden();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
});
