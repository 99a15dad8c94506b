import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // Every core: nothing else runs beside the tests.
    maxWorkers: '100%',
    projects: [
      ...['core', 'contract', 'library', 'demo', 'web'].map((name) => ({
        // Long enough for a machine that does something else as well.
        test: { name, include: [`${name}/test/**/*.test.ts`], testTimeout: 60_000 },
      })),
      {
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
