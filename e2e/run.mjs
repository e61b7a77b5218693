// Builds the application when it must and drives it in Chromium on a free port.
import { createServer } from 'node:net';
import { ensureBuilt } from '../scripts/build.mjs';
import { ensureChromium } from '../scripts/debian.mjs';
import { run } from '../scripts/install.mjs';

const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

ensureBuilt();
const env = { ...process.env, CHROMIUM: ensureChromium(), E2E_PORT: String(await freePort()) };
try {
  run('npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts', ...process.argv.slice(2)], { env });
} catch {
  process.exitCode = 1;
}
