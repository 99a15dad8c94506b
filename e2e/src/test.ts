import { expect, test as base, type Page } from '@playwright/test';
import { shifted } from './clock';
import { startApp, type App } from './app';

/** What runs in this worker, and for which file. */
let running: { file: string; app: App } | undefined;

/**
 * Every file of tests has an application of its own, with the demo club: what one file does is no other's
 * to find, whichever worker they meet in.
 */
export const test = base.extend<{ app: App; signedIn: Page }, { tidy: void }>({
  app: [
    async ({}, use, { file }) => {
      if (running?.file !== file) {
        await running?.app.remove();
        running = undefined;
        running = { file, app: await startApp() };
      }
      await use(running.app);
    },
    { timeout: 180_000 },
  ],
  browser: [({ browser }, use) => use(shifted(browser)), { scope: 'worker' }],
  tidy: [
    async ({}, use) => {
      await use();
      await running?.app.remove();
    },
    { scope: 'worker', auto: true, timeout: 60_000 },
  ],
  signedIn: async ({ page, app }, use) => {
    // As the press at the door does; that is tested by itself.
    await page.request.post(`${app.address}/api/demo-entry`, { headers: { origin: app.address } });
    await page.goto(`${app.address}/approaches`);
    await expect(page.getByRole('heading', { level: 1, name: 'Approaches' })).toBeVisible();
    await use(page);
  },
});

export const enterDemo = async (page: Page, app: App): Promise<void> => {
  await page.goto(app.address);
  await page.getByRole('button', { name: 'Open the demo club' }).click();
  await expect(page.getByRole('region', { name: 'One cue each' })).toBeVisible();
};

/** Takes minutes by nature; `npm run test:long` runs it. */
export const LONG = { tag: '@long' };

/** Nobody answers two turns faster than this; a second tap within it is one that slipped. */
export const BETWEEN_TAPS_MS = 320;

export const betweenTaps = (page: Page): Promise<void> => page.waitForTimeout(BETWEEN_TAPS_MS);

export { expect };
