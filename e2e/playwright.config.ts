import { defineConfig } from '@playwright/test';

const port = Number(process.env['E2E_PORT'] ?? 4391);

/** What the browser does beside showing a page; the first two load pages of their own for its address bar with every page. */
const NOT_NEEDED = [
  ...['WebUIOmniboxPopup', 'WebUIOmniboxAimPopup', 'AimEnabled', 'PreconnectToSearch', 'OptimizationHints', 'MediaRouter'],
  ...['NetworkTimeServiceQuerying', 'HttpsUpgrades', 'PaintHolding', 'DestroyProfileOnBrowserClose'],
  'AvoidUnnecessaryBeforeUnloadCheckSync',
];

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // One more than processors: pages spend time waiting, and music takes the time it takes.
  workers: 3,
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
        `--disable-features=${NOT_NEEDED.join(',')}`,
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
