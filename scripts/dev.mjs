// Serves the sources with the demo songs; the page reloads when a file is saved.
import { laySamples } from './build.mjs';
import { ensureInstalled, run } from './install.mjs';
import { layLists } from './lists.mjs';

ensureInstalled();
await layLists();
laySamples();
run('npx', ['ng', 'serve', ...process.argv.slice(2)]);
