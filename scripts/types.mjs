// Checks the types of everything, then those of the workers, which have no window.
import { runOnce } from './install.mjs';

for (const args of [['tsconfig.json'], ['web/tsconfig.worker.json', '--noEmit']]) runOnce('typescript/bin/tsc', ['-p', ...args]);
