import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/test/**/*.test.ts'] } },
      { test: { name: 'contract', include: ['contract/test/**/*.test.ts'] } },
      { test: { name: 'library', include: ['library/test/**/*.test.ts'] } },
      { test: { name: 'demo', include: ['demo/test/**/*.test.ts'], testTimeout: 60_000 } },
      { test: { name: 'web', include: ['web/test/**/*.test.ts'] } },
      {
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
