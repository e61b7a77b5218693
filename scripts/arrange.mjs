import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled();
const cwd = process.env.INIT_CWD ?? process.cwd();
const tsx = join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs');
const done = spawnSync(process.execPath, [tsx, join(root, 'cli', 'src', 'main.ts'), ...process.argv.slice(2)], {
  cwd,
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
