import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './debian.mjs';
import { ensureInstalled, run } from './install.mjs';

ensureInstalled();
ensureBuilt();
run(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'bench/run.ts', ...process.argv.slice(2)], {
  env: { ...process.env, CHROMIUM: ensureChromium() },
});
