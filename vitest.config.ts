import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/**/*.spec.ts', 'cli/**/*.spec.ts', 'server/**/*.spec.ts', 'web/src/**/*.spec.ts'],
    // Property tests over whole songs share two cores with everything else.
    maxWorkers: 2,
    setupFiles: ['web/testing/begin.ts'],
    // No test leaves anything behind in a module, and reading the core anew for every file would take longer than most files.
    isolate: false,
    testTimeout: 60_000,
  },
});
