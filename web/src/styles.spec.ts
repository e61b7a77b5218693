import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const less = readFileSync(new URL('./styles.less', import.meta.url), 'utf8');

/** The colours of a theme, by variable. */
function theme(selector: string): Record<string, string> {
  const block = less.slice(less.indexOf(`${selector} {`));
  const body = block.slice(0, block.indexOf('\n}'));
  return Object.fromEntries([...body.matchAll(/--([\w-]+): (#[0-9a-f]{3,6});/g)].map((m) => [m[1], m[2]]));
}

/** Contrast of two colours after WCAG 2.2. */
function contrast(a: string, b: string): number {
  const luminance = (hex: string) => {
    const full = hex.length === 4 ? hex.replace(/[0-9a-f]/g, '$&$&') : hex;
    const [r, g, bl] = [1, 3, 5].map((i) => {
      const c = parseInt(full.slice(i, i + 2), 16) / 255;
      return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * bl;
  };
  const [x, y] = [luminance(a), luminance(b)].sort((p, q) => q - p);
  return (x + 0.05) / (y + 0.05);
}

describe.each([
  ['day', theme(':root')],
  ['evening', { ...theme(':root'), ...theme(":root[data-theme='evening']") }],
])('the %s theme', (_, colours) => {
  it.each([
    ['ink', 'paper'],
    ['ink', 'sheet'],
    ['ink', 'right-wash'],
    ['ink', 'join-wash'],
    ['soft', 'paper'],
    ['soft', 'sheet'],
    ['soft', 'panel'],
    ['soft', 'ruler'],
    ['soft', 'left-bed'],
    ['soft', 'well'],
    ['right', 'right-wash'],
    ['right', 'shelf'],
    ['left', 'left-wash'],
    ['left', 'panel'],
    ['left', 'sheet'],
    ['left', 'shelf'],
    ['join-ink', 'join-wash'],
    ['on-hand', 'left'],
    ['on-hand', 'right'],
    ['key-text', 'key-white'],
    ['paper', 'ink'],
  ])('%s can be read on %s', (text, ground) => {
    expect(contrast(colours[text], colours[ground])).toBeGreaterThanOrEqual(4.5);
  });

  it('draws clasps and frames that can be seen', () => {
    for (const mark of ['join', 'left', 'right', 'focus'])
      expect(contrast(colours[mark], colours['sheet'])).toBeGreaterThanOrEqual(3);
  });
});
