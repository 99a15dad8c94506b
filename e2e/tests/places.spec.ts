import type { Browser, Page } from '@playwright/test';
import { axeFinds } from '../src/axe';
import type { App } from '../src/app';
import { PHONE, runAthletics } from '../src/field';
import { enterDemo, expect, goingOn, goTo, test, seen } from '../src/test';

const LAPTOP = { width: 1280, height: 800 };

const follow = async (page: Page, place: string, link: string): Promise<void> => {
  await goTo(page, place);
  await page.getByRole('main').getByRole('link', { name: link, exact: true }).click();
};

type Place = [name: string, go: (page: Page) => Promise<void>, ready: RegExp | string];

/** In the hours after midnight that of the day before may still be on. */
const todaysSession = async (page: Page): Promise<void> => {
  await goTo(page, '/');
  await page.getByRole('link', { name: 'Change the session' }).first().click();
};

const PLACES: Place[] = [
  ['Today', (page) => goTo(page, '/'), 'One cue each, today'],
  ['Athletes', (page) => goTo(page, '/athletes'), 'Mirela Dussault'],
  ['an athlete', (page) => follow(page, '/athletes', 'Mirela Dussault'), 'The one cue'],
  ['Approaches', (page) => goTo(page, '/approaches'), 'Long jump, 14 steps'],
  [
    'the planner',
    (page) => follow(page, '/approaches', 'Long jump, 14 steps'),
    'Step counts compared',
  ],
  ['Movements', (page) => goTo(page, '/movements'), 'Curved run-up to a bar'],
  ['Chains', (page) => goTo(page, '/movements/chains'), 'Every step is legal.'],
  ['a movement', (page) => follow(page, '/movements', 'Corner fielder’s first step'), 'Count in'],
  [
    'a movement being changed',
    async (page) => {
      await follow(page, '/movements', 'Give-ground mirror');
      await page.getByRole('button', { name: 'Copy and change' }).click();
    },
    'Kind of step',
  ],
  [
    'the planner of a sequence',
    (page) => goTo(page, '/approaches/new?movement=jab-and-go'),
    'Step rules',
  ],
  [
    'the squad sheet',
    async (page) => {
      await follow(page, '/approaches', 'Long jump, 14 steps');
      await page.getByRole('link', { name: 'Squad sheet' }).click();
    },
    'Start mark',
  ],
  ...(['curved-run-up', 'give-ground', 'goal-arc', 'steady-cadence'] as const).map(
    (code): Place => [
      `the planner of ${code}`,
      (page) => goTo(page, `/approaches/new?movement=${code}`),
      'To set out',
    ],
  ),
  ['Sessions', (page) => goTo(page, '/sessions'), 'Athletics: run-ups'],
  ['a session', todaysSession, 'Drill set 1'],
  [
    'a card of a session',
    async (page) => {
      await todaysSession(page);
      await page.getByRole('link', { name: 'Card' }).click();
    },
    'Print',
  ],
  ['Faults', (page) => goTo(page, '/faults'), 'Cue for the next session'],
  ['the season so far', (page) => goTo(page, '/faults/season'), 'Athlete by athlete'],
  [
    'a sheet of an athlete',
    async (page) => {
      await follow(page, '/athletes', 'Odran Vask');
      await page.getByRole('button', { name: 'More' }).click();
      await page.getByRole('link', { name: 'Sheet to print' }).click();
    },
    'Marks of the plans',
  ],
  ['Film', (page) => goTo(page, '/film'), 'A film stays on this device'],
  ['a film', (page) => follow(page, '/film', 'Mirela Dussault'), 'Step by step'],
  [
    'Club',
    async (page) => {
      await goTo(page, '/club');
      await page.getByRole('button', { name: 'Change your password' }).click();
      await page.getByRole('button', { name: 'New password' }).first().click();
      const grounds = page.getByRole('region', { name: 'Grounds' });
      await grounds.getByRole('button', { name: 'Change' }).last().click();
    },
    'Make the link',
  ],
];

/** One page that goes from place to place: to sign in anew for each of them takes longer than to look at it. */
let going: { page: Page; broken: string[] } | undefined;
test.afterAll(() => going?.page.context().close());

const begun = async (browser: Browser, app: App): Promise<NonNullable<typeof going>> => {
  if (going) return going;
  const context = await browser.newContext({
    viewport: LAPTOP,
    timezoneId: 'UTC',
    serviceWorkers: 'block',
  });
  goingOn.add(context);
  const page = await context.newPage();
  const broken: string[] = [];
  await enterDemo(page, app);
  page.on('pageerror', (error) => broken.push(error.message));
  page.on('console', (line) => {
    if (line.type() === 'error') broken.push(line.text());
  });
  going = { page, broken };
  return going;
};

for (const [name, go, ready] of PLACES) {
  test(`${name}: no serious fault for axe in either look, and nothing wider than the screen`, async ({
    browser,
    app,
  }) => {
    const { page, broken } = await begun(browser, app);
    await go(page);
    await seen(page.getByText(ready));
    expect(await axeFinds(page)).toEqual([]);
    // The other look has other colours and lines, and nothing else.
    await page.getByRole('button', { name: 'Sun look' }).click();
    expect(await axeFinds(page, { rules: ['color-contrast'] })).toEqual([]);
    for (const width of [1280, 390]) {
      await page.setViewportSize({ width, height: 844 });
      // What is drawn to fit is drawn anew.
      await expect
        .poll(
          () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
          `at ${width}`,
        )
        .toBeLessThanOrEqual(0);
    }
    expect(broken).toEqual([]);
    await page.setViewportSize(LAPTOP);
    await page.getByRole('button', { name: 'Chalk look' }).click();
  });
}

test('the field screen: no serious fault for axe, everything within a thumb’s screen', async ({
  signedIn: page,
}) => {
  await page.setViewportSize(PHONE);
  await runAthletics(page);
  await expect(page.getByText('The one cue')).toBeVisible();
  expect(await axeFinds(page)).toEqual([]);
  for (const name of [/^Clean$/, /^Undo/, /^Redo$/, /^Skip$/]) {
    const button = page.getByRole('button', { name });
    await expect(button).toBeInViewport({ ratio: 1 });
    expect((await button.boundingBox())!.height).toBeGreaterThanOrEqual(44);
  }
});

/** Waits until nothing fades in any more: half-seen text has no contrast. */
const still = async (page: Page): Promise<void> => {
  await expect
    .poll(() =>
      page.evaluate(
        () => document.getAnimations().filter((one) => one.playState === 'running').length,
      ),
    )
    .toBe(0);
};

test('dialogs, and the page of a one-time link: no serious fault for axe', async ({
  signedIn: page,
}) => {
  await follow(page, '/athletes', 'Odran Vask');
  await page.getByRole('button', { name: 'Add a measured run' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await still(page);
  expect(await axeFinds(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page
    .getByRole('combobox', { name: 'Do a test' })
    .selectOption({ label: 'Times over 5, 10 and 20 m' });
  await expect(page.getByRole('dialog', { name: 'Times over 5, 10 and 20 m' })).toBeVisible();
  await still(page);
  expect(await axeFinds(page)).toEqual([]);
  await page.goto(new URL('/new-password#x', page.url()).toString());
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeVisible();
  expect(await axeFinds(page)).toEqual([]);
});

test('a plan can be made by keyboard alone', async ({ signedIn: page }) => {
  await goTo(page, '/approaches/new');
  const name = page.getByLabel('Name of the approach');
  await name.focus();
  await page.keyboard.press('ControlOrMeta+A');
  await page.keyboard.type('By keyboard');
  for (let i = 0; i < 40; i += 1) {
    await page.keyboard.press('Tab');
    if (
      await page
        .getByLabel('Steps', { exact: true })
        .evaluate((field) => field === document.activeElement)
    )
      break;
  }
  await expect(page.getByLabel('Steps', { exact: true })).toBeFocused();
  await page.keyboard.type('10');
  await expect(page.getByRole('img', { name: /^10 steps over/ })).toBeVisible();
  const save = page.getByRole('button', { name: 'Save' });
  for (
    let i = 0;
    i < 40 && !(await save.evaluate((one) => one === document.activeElement));
    i += 1
  ) {
    await page.keyboard.press('Shift+Tab');
  }
  await page.keyboard.press('Enter');
  await expect(page.getByText('By keyboard is saved')).toBeVisible();
});

test('the roster searches, sorts and filters; archiving can be undone', async ({
  signedIn: page,
}) => {
  await page.getByRole('link', { name: 'Athletes' }).click();
  const rows = page.locator('tbody tr');
  await seen(rows);
  await page.getByRole('button', { name: 'Cricket' }).click();
  await expect(rows).toHaveCount(4);
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByLabel('Search athletes').fill('keeper');
  await expect(rows).toHaveCount(3);
  await page.getByLabel('Search athletes').fill('nobody at all');
  await expect(page.getByText('Nobody matches.')).toBeVisible();
  await page.getByLabel('Search athletes').fill('');
  await page.getByRole('button', { name: 'Height' }).click();
  await page.getByRole('button', { name: 'Height' }).click();
  await expect(rows.first()).toContainText(/1\.(93|38)/);

  await page.getByRole('link', { name: 'Petra Zellweg' }).click();
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByText('Petra Zellweg is archived.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('archived')).toBeHidden();
});
