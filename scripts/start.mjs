import { ensureBuilt } from './build.mjs';
import { ensureInstalled, run } from './install.mjs';

ensureInstalled();
ensureBuilt();
run(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'server/src/main.ts', ...process.argv.slice(2)]);
