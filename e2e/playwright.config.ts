import { defineConfig } from '@playwright/test';

const port = Number(process.env['E2E_PORT'] ?? 4391);

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  workers: 2,
  fullyParallel: true,
  timeout: 120_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // Each test would fetch the whole piano for its own cache; those about the network ask for it.
    serviceWorkers: 'block',
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
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
