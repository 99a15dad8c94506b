import { expect, test as base, type Page } from '@playwright/test';
import { startApp, type App } from './app';

/** Every worker has an application of its own, with the demo club. */
export const test = base.extend<{ signedIn: Page }, { app: App }>({
  app: [
    async ({}, use) => {
      const app = await startApp();
      await use(app);
      await app.remove();
    },
    { scope: 'worker', timeout: 180_000 },
  ],
  signedIn: async ({ page, app }, use) => {
    await enterDemo(page, app);
    await use(page);
  },
});

export const enterDemo = async (page: Page, app: App): Promise<void> => {
  await page.goto(app.address);
  await page.getByRole('button', { name: 'Open the demo club' }).click();
  await expect(page.getByRole('region', { name: 'One cue each' })).toBeVisible();
};

export { expect };
