import { chromium } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { CHROMIUM } from './chromium.js';
import { listen } from '../server/src/listen.js';
import { makeApp } from '../server/src/app.js';
const root = fileURLToPath(new URL('..', import.meta.url));
const { server, port } = await listen(makeApp(join(root, 'web', 'dist', 'browser')), 4712);
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 1000 } });
page.on('console', (m) => m.type() !== 'log' && console.log(m.text().slice(0, 300)));
await page.goto(`http://127.0.0.1:${port}/shelf`);
await page.getByRole('button', { name: process.argv[2] ?? 'Open Lamps' }).click();
await page.getByTestId('stack').first().waitFor();
for (const t of [1, 2]) {
  const a = Date.now();
  await page.getByRole('link', { name: 'Sheet' }).click();
  await page.getByTestId('page').first().waitFor();
  console.log('first page', Date.now() - a);
  if (t === 2) break;
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await page.getByTestId('stack').first().waitFor();
}
await page.waitForTimeout(800);
await page.screenshot({ path: '/tmp/h/sheet.png' });
await browser.close(); server.close(); process.exit(0);
