import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          root: 'core',
          include: ['src/**/*.test.ts'],
          isolate: false,
          testTimeout: 120_000,
        },
      },
      { test: { name: 'web', root: 'web', include: ['src/**/*.test.ts'], testTimeout: 120_000 } },
      {
        test: {
          name: 'server',
          root: 'server',
          include: ['test/**/*.test.ts'],
          fileParallelism: false,
          // Each file has databases of its own; the modules are read once for all.
          isolate: false,
          hookTimeout: 60_000,
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'start',
          root: 'scripts',
          include: ['test/**/*.test.mjs'],
          fileParallelism: false,
          hookTimeout: 120_000,
          testTimeout: 120_000,
        },
      },
    ],
  },
});
