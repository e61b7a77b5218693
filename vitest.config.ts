import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/**/*.spec.ts', 'cli/**/*.spec.ts', 'server/**/*.spec.ts', 'web/src/**/*.spec.ts'],
    // Property tests over whole songs share two cores with everything else.
    testTimeout: 60_000,
  },
});
