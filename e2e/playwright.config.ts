import { defineConfig } from '@playwright/test';
import { LAUNCH } from './src/browser';
import { landings } from './src/landings';

const LONGEST = /(places|journeys|seen|movements)\.spec\.ts$/;

export default defineConfig({
  testDir: 'tests',
  outputDir: '../test-results/pages',
  globalSetup: './src/template.ts',
  // More than cores: tests wait for pages about as long as pages keep a core busy.
  workers: 3,
  fullyParallel: false,
  // Files that take longest begin first, so that no worker is left with one at the end.
  projects: [
    { name: 'longest', testMatch: LONGEST },
    { name: 'others', testIgnore: LONGEST },
  ],
  ...(process.env.GRAVEK_LONG ? { grep: /@long/ } : { grepInvert: /@long/ }),
  // For a machine that others use as well; a walk through every movement and a storm take minutes anyway.
  timeout: process.env.GRAVEK_LONG ? 600_000 : 300_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json', { outputFile: '../test-results/browser.json' }]],
  use: {
    browserName: 'chromium',
    launchOptions: {
      ...LAUNCH,
      args: [
        ...LAUNCH.args,
        // A page of a test is gone before the last step of compiling it has paid for itself.
        '--js-flags=--no-opt',
        // Landings on a track in place of what stands on the table.
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
        `--use-file-for-fake-audio-capture=${landings()}`,
      ],
    },
    // What cannot be pressed for so long says so itself, and not only that the test took too long.
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'UTC',
    // Nobody looks at what moves on its way.
    contextOptions: { reducedMotion: 'reduce' },
    // Only tests without a network need what it keeps; putting it there takes long.
    serviceWorkers: 'block',
    screenshot: 'only-on-failure',
  },
});
