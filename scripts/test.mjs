// Everything that must hold: lint, types, units, the interface in a real browser. Ends with one line of counts.
import { exec, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePianos } from './debian.mjs';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled();
ensurePianos();
const results = join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results);

const quiet = { ...process.env, FORCE_COLOR: '0' };

/** Runs a step; its output goes through. */
function step(name, command, args) {
  console.log(`\n── ${name}`);
  return spawnSync(command, args, { cwd: root, stdio: 'inherit', env: quiet }).status === 0;
}

/** Runs a command; its output is shown when it has ended, so that two do not mix. */
function aside([name, command]) {
  return new Promise((resolve) => {
    exec(command, { cwd: root, env: quiet, maxBuffer: 2 ** 26 }, (error, out, trouble) => {
      console.log(`\n── ${name}\n${out}${trouble}`);
      resolve(error === null);
    });
  });
}

/** Runs commands two at a time, in their order: none of them uses more than one processor. */
async function twoAtATime(commands) {
  const left = [...commands];
  const all = [];
  const lane = async () => {
    for (let next = left.shift(); next; next = left.shift()) all.push(await aside(next));
  };
  await Promise.all([lane(), lane()]);
  return all;
}

function counts(file, read) {
  const path = join(results, file);
  return existsSync(path) ? read(JSON.parse(readFileSync(path, 'utf8'))) : null;
}

let passed = 0;
let failed = 0;
const take = (ok, found) => {
  passed += found?.passed ?? 0;
  failed += found?.failed ?? 0;
  // A step that fails without a failed test, such as a lint error or a crash, is a failure of its own.
  if (!ok && !found?.failed) failed++;
};

// Before the build, which would write them.
take(step('Lists of what lies in folders', 'npm', ['run', '-s', 'lint:lists']), null);
// The longest first, so that both lanes end together. The build checks the types of the application.
const checks = await twoAtATime([
  ['Build', 'npm run -s build'],
  ['Rules', 'npm run -s lint:rules'],
  ['Types', 'npm run -s typecheck'],
  ['Layout of the sources', 'npm run -s lint:layout'],
  ['What nothing uses', 'npm run -s lint:unused'],
]);
for (const ok of checks) take(ok, null);
const units = step('Units', 'npx', [
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  '--outputFile.json=test-results/units.json',
]);
take(
  units,
  counts('units.json', (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests })),
);
const faces = step('Interface', process.execPath, ['e2e/run.mjs']);
// A test that only passed when it was tried again is counted as failed.
take(
  faces,
  counts('e2e.json', (r) => ({ passed: r.stats.expected, failed: r.stats.unexpected + r.stats.flaky })),
);

console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
