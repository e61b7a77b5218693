import type { Browser } from '@playwright/test';

/** Several pictures as one, side by side, each so many pixels wide. */
export async function tiled(browser: Browser, pictures: readonly Buffer[], width: number, columns: number): Promise<Buffer> {
  const sheet = await browser.newPage({ viewport: { width: columns * (width + 8) + 8, height: 400 } });
  const images = pictures.map((p) => `<img width="${width}" src="data:image/png;base64,${p.toString('base64')}">`);
  await sheet.setContent(
    `<body style="margin:8px;display:grid;grid-template-columns:repeat(${columns},${width}px);gap:8px;background:#cfc6b4;align-items:start">${images.join('')}</body>`,
  );
  for (const image of await sheet.locator('img').all()) await image.evaluate((img: HTMLImageElement) => img.decode());
  const picture = await sheet.screenshot({ fullPage: true });
  await sheet.close();
  return picture;
}
