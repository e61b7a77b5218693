import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureInstalled, run } from './install.mjs';

ensureInstalled();
ensureBuilt();
run(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'bench/run.ts'], { env: { ...process.env, CHROMIUM: ensureChromium() } });
