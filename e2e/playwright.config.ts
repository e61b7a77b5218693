import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './chromium.js';

const BY_EAR = /(hearing|keys-by-microphone|listening|recording)\.spec\.ts$/;
const port = Number(process.env['E2E_PORT'] ?? 4391);

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // One more than processors: pages spend time waiting, and music takes the time it takes.
  workers: 3,
  fullyParallel: true,
  // Those that listen take the time that the music takes: first, so that none of them is waited for at the end.
  projects: [
    { name: 'by ear', testMatch: BY_EAR },
    { name: 'by hand', testIgnore: BY_EAR },
  ],
  // Several times what a test takes: a machine that others use as well can stand still for a while.
  timeout: 240_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // Each test would fetch the whole piano for its own cache; those about the network ask for it.
    serviceWorkers: 'block',
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: CHROMIUM,
  },
  webServer: {
    command: 'npx tsx server/src/main.ts',
    cwd: '..',
    env: { PORT: String(port) },
    url: `http://127.0.0.1:${port}/`,
    reuseExistingServer: false,
    timeout: 60_000,
  },
});
