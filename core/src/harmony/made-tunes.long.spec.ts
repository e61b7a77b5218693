import { expect, it } from 'vitest';
import { madeFigures } from '../../testing/made-figures.js';

it('three hundred made tunes are understood: their mode, their phrases, the chords under them', () => {
  const { modes, phrases, chords, amongThree } = madeFigures(300);
  expect(modes).toBeGreaterThanOrEqual(0.95);
  expect(phrases).toBeGreaterThanOrEqual(0.95);
  expect(chords).toBeGreaterThanOrEqual(0.85);
  expect(amongThree).toBeGreaterThanOrEqual(0.94);
});
