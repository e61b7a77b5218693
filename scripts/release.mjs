// Makes a release: `node scripts/release.mjs 1.2.0` sets the version everywhere, dates its section of the changelog, commits and tags.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const [version] = process.argv.slice(2);
const stop = (why) => {
  console.error(why);
  process.exit(1);
};
const git = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).trim();

if (!/^\d+\.\d+\.\d+$/.test(version ?? '')) stop('Name the version: node scripts/release.mjs 1.2.0');
if (git('status', '--porcelain') !== '') stop('There are changes that are not committed. Commit or undo them, then release.');
if (git('tag', '--list', `v${version}`) !== '') stop(`Version ${version} was released already. Choose a later one.`);

const log = join(root, 'CHANGELOG.md');
const changes = readFileSync(log, 'utf8');
const heading = '## Unreleased\n';
if (!changes.includes(heading) || /## Unreleased\n\s*(## |$)/.test(changes))
  stop('The changelog says nothing under "Unreleased". Write what is new, then release.');
const today = new Date().toISOString().slice(0, 10);
writeFileSync(log, changes.replace(heading, `${heading}\n## ${version} · ${today}\n`));

const { workspaces } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
for (const folder of ['.', ...workspaces]) {
  const path = join(root, folder, 'package.json');
  if (!existsSync(path)) continue;
  const text = readFileSync(path, 'utf8');
  writeFileSync(path, text.replace(/("version": )"[^"]+"/, `$1"${version}"`));
}
const lock = join(root, 'package-lock.json');
const locked = JSON.parse(readFileSync(lock, 'utf8'));
locked.version = version;
for (const folder of ['', ...workspaces]) if (locked.packages[folder]) locked.packages[folder].version = version;
writeFileSync(lock, `${JSON.stringify(locked, null, 2)}\n`);

git('commit', '--all', '--message', `Release ${version}`);
git('tag', '--annotate', `v${version}`, '--message', `Version ${version}`);
console.log(`Version ${version} is committed and tagged. Push it with its tag when it is to be public.`);
