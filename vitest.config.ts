import { defineConfig } from 'vitest/config';
import { FOR_ONCE } from './scripts/install.mjs';

export default defineConfig({
  test: {
    include: ['core/**/*.spec.ts', 'cli/**/*.spec.ts', 'server/**/*.spec.ts', 'web/src/**/*.spec.ts'],
    // Property tests over whole songs share two cores with everything else.
    maxWorkers: 2,
    setupFiles: ['web/testing/begin.ts'],
    // No test leaves anything behind in a module, and reading the core anew for every file would take longer than most files.
    isolate: false,
    execArgv: FOR_ONCE,
    // Several times what a test takes: a machine that others use as well can stand still for a while.
    testTimeout: 180_000,
    hookTimeout: 180_000,
    expect: { poll: { timeout: 30_000 } },
  },
});
