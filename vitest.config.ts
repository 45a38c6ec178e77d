import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['packages/*/src/**/*.test.ts', 'apps/*/src/**/*.test.{ts,tsx}', 'apps/*/test/**/*.test.ts'],
    setupFiles: ['scripts/lib/seed.mjs'],
    globalSetup: ['apps/server/test/global-setup.ts'],
    // One more than there are cores: tests of the server wait for a database, a clock or each other at times.
    maxWorkers: availableParallelism() + 1,
    // Modules are read once a worker, not once a file: nothing here is kept in them from one test to the next.
    isolate: false,
    // A machine that is shared stands still at times: what takes 4 s by itself took 38.
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
