import {
  expect,
  test as base,
  type Browser,
  type BrowserContext,
  type Locator,
  type Page,
  type TestInfo,
} from '@playwright/test';
import { shifted } from './clock';
import { startApp, type App } from './app';
import { freePort } from './startCommand';

/** What runs in this worker, and for which file. */
let running: { file: string; app: App } | undefined;
/** Where tests of this worker are signed in: what pages are made of is loaded once for all of them. */
let signedInHere: BrowserContext | undefined;
/** What stays open when the test that opened it has ended. */
export const goingOn = new Set<BrowserContext>();
/** The same for every application of this worker, so that its pages are those that are loaded. */
let port: number | undefined;

/** Where somebody is signed in as the press at the door does; that is tested by itself. */
const enter = async (context: BrowserContext, { address }: App): Promise<Page> => {
  await context.request.post(`${address}/api/demo-entry`, { headers: { origin: address } });
  const page = await context.newPage();
  await page.goto(`${address}/approaches`);
  await expect(page.getByRole('heading', { level: 1, name: 'Approaches' })).toBeVisible();
  return page;
};

/** Leaves of a test nothing but the files that pages are made of. */
const forgetAll = async (context: BrowserContext, { address }: App): Promise<void> => {
  await context.setOffline(false);
  const [page, ...others] = context.pages();
  for (const other of others) await other.close();
  if (page) {
    const devTools = await context.newCDPSession(page);
    await page.goto('about:blank');
    await devTools.send('Storage.clearDataForOrigin', {
      origin: address,
      storageTypes: 'cookies,local_storage,indexeddb,cache_storage',
    });
    await page.close();
  }
  await context.clearCookies();
};

/** Says what stood on every page when a test failed: where tests run, pictures are not always kept. */
const tellWhenFailed = async (browser: Browser, { status, expectedStatus }: TestInfo) => {
  if (status === expectedStatus) return;
  for (const page of browser.contexts().flatMap((context) => context.pages())) {
    const words = await page
      .locator('body')
      .innerText({ timeout: 5_000 })
      .catch(() => 'no answer');
    console.log(`${page.url()} shows: ${words.replace(/\s+/g, ' ').slice(0, 1500)}`);
  }
};

/**
 * Every file of tests has an application of its own, with the demo club: what one file does is no other's
 * to find, whichever worker they meet in.
 */
export const test = base.extend<{ app: App; signedIn: Page; alone: void }, { tidy: void }>({
  app: [
    async ({}, use, { file }) => {
      if (running?.file !== file) {
        await running?.app.remove();
        running = undefined;
        port ??= await freePort();
        running = { file, app: await startApp('demo', port) };
      }
      await use(running.app);
    },
    { timeout: 300_000 },
  ],
  browser: [({ browser }, use) => use(shifted(browser)), { scope: 'worker' }],
  // Pages of other people, which a test opened, would go on beside those that come after it.
  alone: [
    async ({ browser }, use, testInfo) => {
      await use();
      await tellWhenFailed(browser, testInfo);
      const others = browser.contexts().filter((context) => !goingOn.has(context));
      await Promise.all(others.map((context) => context.close()));
    },
    { auto: true },
  ],
  tidy: [
    async ({}, use) => {
      await use();
      await running?.app.remove();
    },
    { scope: 'worker', auto: true, timeout: 180_000 },
  ],
  signedIn: async ({ browser, app, serviceWorkers }, use, testInfo) => {
    // What a service worker keeps is of one test.
    if (serviceWorkers === 'allow') {
      const context = await browser.newContext();
      await use(await enter(context, app));
      await tellWhenFailed(browser, testInfo);
      await context.close();
      return;
    }
    const context = (signedInHere ??= await browser.newContext());
    goingOn.add(context);
    await use(await enter(context, app));
    await tellWhenFailed(browser, testInfo);
    await forgetAll(context, app);
  },
});

/** Places of the same kind are the same component: leaving out what differs in it. */
const kindOf = (url: URL): string => {
  const [, first = '', ...more] = url.pathname.split('/');
  return `${first} ${more.length}`;
};

/** Goes to a place as a link does: what is loaded stays. From a place of the same kind the page is loaded anew. */
export const goTo = async (page: Page, place: string): Promise<void> => {
  const here = new URL(page.url());
  const to = new URL(place, here);
  if (kindOf(here) === kindOf(to)) {
    await page.goto(to.toString());
    await expect(page.locator('main .spinner-border')).toHaveCount(0);
    return;
  }
  const shown = await page.evaluate(async (address) => {
    const before = document.querySelector('main > *');
    window.history.pushState(null, '', address);
    window.dispatchEvent(new PopStateEvent('popstate'));
    const untilMs = performance.now() + 30_000;
    // What comes late pushes down what is pressed.
    const isUnderWay = () =>
      before?.isConnected || document.querySelector('main .spinner-border') !== null;
    while (isUnderWay() && performance.now() < untilMs) await new Promise(requestAnimationFrame);
    return !before?.isConnected;
  }, place);
  if (!shown) throw new Error(`${place} is not shown: what was shown before has not gone`);
};

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

/** Waits until at least one of what is looked for is to be seen; how many there are does not matter. */
export const seen = (what: Locator): Promise<void> =>
  expect(what.filter({ visible: true })).not.toHaveCount(0);

export { expect };
