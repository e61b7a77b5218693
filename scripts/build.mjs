// Builds the application when its sources are newer than the last build.
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, run } from './install.mjs';

const SOURCES = ['core/src', 'web/src', 'web/public', 'angular.json', 'web/tsconfig.app.json', 'demo', 'package-lock.json'];

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

/** Builds the web application unless the built one is of these very sources. */
export function ensureBuilt() {
  const stamp = join(root, 'web', 'dist', '.sources');
  const sources = SOURCES.map(newest).join('');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === sources) return;
  console.error('Building the application …');
  run('npx', ['ng', 'build']);
  writeFileSync(stamp, sources);
}
