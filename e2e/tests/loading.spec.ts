import { BUILT_IN } from '@gravek/library/movement/builtIn';
import type { Page, Route } from '@playwright/test';
import { addPlan, openAthlete, PHONE } from '../src/field';
import { expect, goTo, test } from '../src/test';

/** Pages load their parts when they are wanted: on a slow network, and on none. */

const DOCUMENTS = new RegExp(`/assets/(${BUILT_IN.map(({ code }) => code).join('|')})-`);

/** Keeps the documents of movements back. Returns how to let them through. */
const holdMovements = async (page: Page): Promise<() => void> => {
  const held: Route[] = [];
  let open = false;
  await page.route(DOCUMENTS, async (route) => {
    if (open) await route.continue();
    else held.push(route);
  });
  return () => {
    open = true;
    for (const route of held) void route.continue();
  };
};

test('an athlete’s page stays while what is known of a movement is on its way', async ({
  signedIn: page,
}) => {
  const letThrough = await holdMovements(page);
  await openAthlete(page, 'Mirela Dussault');
  const faults = page.getByRole('region', { name: 'Faults' });
  await expect(faults.getByText('Getting the reps …')).toBeVisible();
  await expect(page.getByRole('heading', { level: 1, name: 'Mirela Dussault' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Plans' }).getByRole('link')).not.toHaveCount(0);
  letThrough();
  await expect(faults.getByText('The one cue')).toBeVisible();
});

test('what a press needs and the network has not is told; what was typed stays, and is saved later', async ({
  signedIn: page,
}) => {
  const check = /\/assets\/sessionCheck-/;
  await page.route(check, (route) => route.abort());
  await page.goto(new URL('/sessions/new', page.url()).toString());
  await addPlan(page, 'Triple jump, 12 steps');
  await page.getByLabel('Name', { exact: true }).fill('Of the far field');
  const save = page.getByRole('button', { name: 'Save', exact: true });
  await save.click();
  await expect(page.getByRole('alert')).toHaveText(/The server cannot be reached/);
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Of the far field');
  await page.unroute(check);
  await save.click();
  await expect(page.getByText('Of the far field is saved.')).toBeVisible();
});

test('a menu opens by key, keeps the focus and gives it back', async ({ signedIn: page }) => {
  await openAthlete(page, 'Mirela Dussault');
  const more = page.getByRole('main').getByRole('button', { name: 'More' });
  await more.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Sheet to print' })).toBeVisible();
  await expect(more).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: 'Archive' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Archive' })).toBeHidden();
  await expect(more).toBeFocused();
});

test('a form that cannot be loaded says so in its place, and opens once it can be', async ({
  signedIn: page,
}) => {
  const form = /\/assets\/AthleteForm-/;
  await page.route(form, (route) => route.abort());
  await openAthlete(page, 'Mirela Dussault');
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText(/The server cannot be reached/);
  await expect(page.getByRole('heading', { level: 1, name: 'Mirela Dussault' })).toBeVisible();
  await page.unroute(form);
  await page.getByRole('alert').getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Mirela Dussault');
});

test('a place that could not be loaded says so, and opens once it can be', async ({
  signedIn: page,
}) => {
  await page.route(/\/assets\/Faults-/, (route) => route.abort());
  await page.getByRole('link', { name: 'Faults' }).click();
  await expect(page.getByRole('alert')).toHaveText(/The server cannot be reached/);
  await page.unroute(/\/assets\/Faults-/);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Faults' })).toBeVisible();
});

test('a page that is older than the server says so where it cannot go on, and is loaded anew', async ({
  signedIn: page,
}) => {
  const newer = '<title>Gravek</title><script type="module" src="/assets/index-newer.js"></script>';
  await page.route(/\/assets\/Films-/, (route) => route.fulfill({ status: 404 }));
  await page.route(
    (url) => url.pathname === '/',
    (route) => route.fulfill({ contentType: 'text/html', body: newer }),
  );
  await page.getByRole('link', { name: 'Film' }).click();
  await expect(page.getByRole('alert')).toHaveText(/Gravek was updated/);
  await page.unrouteAll();
  await page.getByRole('button', { name: 'Reload' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Film' })).toBeVisible();
});

test('without the documents of movements the list says so, and comes when it is asked again', async ({
  signedIn: page,
}) => {
  await page.route(DOCUMENTS, (route) => route.abort());
  await page.getByRole('link', { name: 'Movements' }).click();
  await expect(page.getByRole('alert')).toHaveText(/The server cannot be reached/);
  await page.unroute(DOCUMENTS);
  await page.getByRole('alert').getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('link', { name: 'Straight run-up' })).toBeVisible();
});

test('a session whose worker cannot be loaded is worked out on the page, and can be run', async ({
  signedIn: page,
}) => {
  await page.route(/\/assets\/session\.worker-/, (route) => route.abort());
  await page.goto(new URL('/', page.url()).toString());
  await page
    .getByRole('region', { name: 'Athletics: run-ups' })
    .getByRole('link', { name: 'Change the session' })
    .click();
  const lines = page.getByRole('list', { name: 'Drill sets' });
  await expect(lines.getByText('Long jump, 14 steps')).toBeVisible();
  await expect(page.getByText(/^Contacts, week: \w+$/)).toBeVisible();
  await page.getByRole('main').getByRole('link', { name: 'Run', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Clean' })).toBeVisible();
});

test('what a place shows is asked for beside its code, and once', async ({ signedIn: page }) => {
  const asked: string[] = [];
  const isAsked = new Promise<void>((resolve) => {
    page.on('request', (request) => {
      if (!request.url().endsWith('/api/today')) return;
      asked.push(request.url());
      resolve();
    });
  });
  // The code waits for the question: asked by the code alone it would never come.
  await page.route(/\/assets\/Today-/, async (route) => {
    await isAsked;
    await route.continue();
  });
  await page.goto(new URL('/', page.url()).toString());
  await expect(page.getByRole('region', { name: 'One cue each' })).toBeVisible();
  expect(asked).toHaveLength(1);
});

test('the rows of approaches stay where they are first shown', async ({ signedIn: page }) => {
  let answer = (): void => undefined;
  const late = new Promise<void>((resolve) => {
    answer = resolve;
  });
  await page.route(/\/api\/athletes/, async (route) => {
    await late;
    await route.continue();
  });
  // Nothing that the page before has asked for is still on its way.
  const here = page.url();
  await page.goto('about:blank');
  const listed = page.waitForEvent('requestfinished', (request) =>
    request.url().includes('/api/approaches'),
  );
  await page.goto(here);
  await listed;
  const plan = page.getByRole('link', { name: 'Long jump, 14 steps' });
  // Shown already, it must stay where it is.
  const before = await plan.boundingBox({ timeout: 1000 }).catch(() => null);
  answer();
  await expect(page.getByRole('cell', { name: /Sunniva/ })).not.toHaveCount(0);
  if (before) expect(await plan.boundingBox()).toEqual(before);
});

test('what a session puts on whom comes after the rest, whole, and moves nothing', async ({
  signedIn: page,
}) => {
  await page.setViewportSize(PHONE);
  let answer = (): void => undefined;
  const late = new Promise<void>((resolve) => {
    answer = resolve;
  });
  await page.route(/\/api\/sessions\/history/, async (route) => {
    await late;
    await route.continue();
  });
  await goTo(page, '/');
  await page
    .getByRole('region', { name: 'Athletics: run-ups' })
    .getByRole('link', { name: 'Change the session' })
    .click();
  const lines = page.getByRole('list', { name: 'Drill sets' });
  await expect(page.getByText('Contacts, week', { exact: true })).toBeVisible();
  const before = await lines.boundingBox();
  answer();
  await expect(page.getByText(/^Contacts, week: \w+$/)).toBeVisible();
  expect(await lines.boundingBox()).toEqual(before);
});
