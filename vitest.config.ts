import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // Every core: nothing else runs beside the tests.
    maxWorkers: '100%',
    projects: [
      ...['core', 'contract', 'library', 'demo', 'web'].map((name) => ({
        // Long enough for a machine that does something else as well.
        // What they test keeps nothing, so that files of a worker share what they import.
        test: {
          name,
          include: [`${name}/test/**/*.test.ts`],
          testTimeout: 300_000,
          isolate: name === 'web',
        },
      })),
      {
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          // What takes long by nature, for `npm run test:long`.
          exclude: process.env.GRAVEK_LONG ? [] : ['**/*.long.test.ts'],
          testTimeout: 300_000,
          hookTimeout: 300_000,
          isolate: false,
        },
      },
    ],
  },
});
