// Serves the sources with the demo songs; the page reloads when a file is saved.
import { laySamples } from './build.mjs';
import { ensureInstalled, layLists, run } from './install.mjs';

ensureInstalled();
layLists();
laySamples();
run('npx', ['ng', 'serve', ...process.argv.slice(2)]);
