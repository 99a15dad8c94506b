import type { Browser, Page } from '@playwright/test';
import type { App } from '../src/app';
import { clean, logOf, PHONE, runAlone, shiftClock, up } from '../src/field';
import { betweenTaps, enterDemo, expect, test } from '../src/test';

/** The phone on the field: what it holds, sends and undoes, alone and beside another one. */

const second = async (browser: Browser, app: App, session: string, aheadMs = 0): Promise<Page> => {
  const context = await browser.newContext({ viewport: PHONE });
  const page = await context.newPage();
  if (aheadMs !== 0) {
    await shiftClock(page, aheadMs);
  }
  await enterDemo(page, app);
  await page.goto(`${app.address}/run/${session}`);
  return page;
};

const sent = (page: Page) => page.getByRole('button', { name: 'Send now' });

test('of two phones each undoes its own rep, though one clock is two minutes ahead', async ({
  signedIn: page,
  app,
  browser,
}) => {
  const session = await runAlone(page, 'Two phones', ['Evander', 'Maelle'], 3);
  const other = await second(browser, app, session, 120_000);
  await expect(up(page)).toHaveText('Evander');
  await clean(other).click();
  await expect(up(page)).toHaveText('Maelle');
  await clean(page).click();
  await expect(up(other)).toHaveText('Evander');
  // Mine is the last, whatever the other clock says.
  await page.getByRole('button', { name: 'Undo Maelle' }).click();
  await expect(up(page)).toHaveText('Maelle');
  await expect(other.getByRole('button', { name: 'Undo Evander' })).toBeVisible();
  await other.getByRole('button', { name: 'Undo Evander' }).click();
  await expect(up(page)).toHaveText('Evander');
  await other.context().close();
});

test('two answers to one turn, given without network, count once, and who came second is asked', async ({
  signedIn: page,
  app,
  browser,
}) => {
  const session = await runAlone(page, 'Twice answered', ['Roland'], 2);
  const other = await second(browser, app, session);
  await expect(up(other)).toHaveText('Roland');
  for (const eachPage of [page, other])
    await eachPage.route('**/api/reps', (route) => route.abort());
  await clean(page).click();
  await other.getByRole('group', { name: 'Faults seen' }).getByRole('button').first().click();
  await other.getByRole('button', { name: 'Log the fault' }).click();
  for (const one of [page, other]) {
    await expect(sent(one)).toContainText('1 rep waiting');
    await expect(one.locator('.rep-no .figure')).toContainText('2');
  }
  for (const one of [page, other]) {
    await one.unroute('**/api/reps');
    await sent(one).click();
    await expect(sent(one)).toContainText('all sent');
  }
  for (const one of [page, other]) await expect(one.locator('.rep-no .figure')).toContainText('2');
  // Nobody is asked in the middle of a set; what both tell alike is never asked.
  const asked = other.getByRole('region', { name: 'Seen differently' });
  await expect(asked).toHaveCount(0);
  await clean(page).click();
  await expect(up(other)).toHaveText('Drill set done');
  await expect(asked).toContainText('One rep was seen differently on another phone');
  await expect(up(page)).toHaveText('Drill set done');
  await expect(page.getByRole('region', { name: 'Seen differently' })).toHaveCount(0);
  await expect(asked.getByRole('button', { name: 'There: clean' })).toBeVisible();
  await asked.getByRole('button', { name: /^Here: / }).click();
  await expect(asked).toHaveCount(0);
  await expect(sent(other)).toContainText('all sent');
  const rows = await logOf(page, session);
  const gone = new Set(rows.flatMap((row) => row.voids ?? []));
  const left = rows.filter((row) => row.outcome !== 'void' && !gone.has(row.id));
  expect(left.map((row) => row.outcome).sort()).toEqual(['clean', 'fault']);
  await page.goto(`${app.address}/sessions/${session}`);
  await expect(page.getByRole('link', { name: 'Resume' })).toBeVisible();
  const answer = await page.request.get(`${app.address}/api/sessions/${session}`);
  expect(((await answer.json()) as { logged: number }).logged).toBe(2);
  await other.context().close();
});

test('a rep that is stored stays on the screen though every fetch after it fails, and a tap is small', async ({
  signedIn: page,
}) => {
  await runAlone(page, 'Fetches fail', ['Wilma', 'Tomaz'], 3);
  await page.setViewportSize(PHONE);
  await expect(up(page)).toHaveText('Tomaz');
  await page.route('**/api/sessions/**', (route) => route.abort());
  const posted = page.waitForRequest('**/api/reps');
  await clean(page).click();
  expect((await posted).postDataBuffer()!.length).toBeLessThan(2_000);
  await expect(sent(page)).toContainText('all sent');
  await expect(up(page)).toHaveText('Wilma');
  await betweenTaps(page);
  await clean(page).click();
  await expect(up(page)).toHaveText('Tomaz');
  await expect(sent(page)).toContainText('all sent');
  await page.reload();
  await expect(up(page)).toHaveText('Tomaz');
  await expect(page.locator('.rep-no .figure')).toContainText('2');
});

test('a row that the server cannot take is shown by name, and those behind it are stored', async ({
  signedIn: page,
}) => {
  await runAlone(page, 'One bad row', ['Signe', 'Maelle'], 3);
  await expect(up(page)).toHaveText('Maelle');
  await page.route('**/api/reps', async (route) => {
    const body = route.request().postDataJSON() as { reps: { athleteId: string; at: string }[] };
    // On its way a rep is broken: what it says of its time is no time.
    if (body.reps[0]) body.reps[0].at = 'noon';
    await route.continue({ postData: JSON.stringify(body) });
  });
  await clean(page).click();
  const alert = page.getByRole('alert').filter({ hasText: 'Not taken by the server' });
  await expect(alert).toContainText('Maelle Thorsby, set 1 rep 1: The time is not a time.');
  await page.unroute('**/api/reps');
  // It counts for nothing, so Maelle is up again; the screen does not say “offline”.
  await expect(up(page)).toHaveText('Maelle');
  await expect(sent(page)).not.toContainText('offline');
  await betweenTaps(page);
  await clean(page).click();
  await expect(up(page)).toHaveText('Signe');
  await expect(sent(page)).toContainText('all sent');
  await alert.getByRole('button', { name: 'Let go' }).click();
  await expect(alert).toBeHidden();
});
