import type { Session } from '@gravek/contract/session';
import { ask, clean, logOf, PHONE, runAlone, tap, up } from '../src/field';
import { enterDemo, expect, test } from '../src/test';

/** The edges of a session on the field, each with its sentence. */

test('a set of one goes on; with nobody left, or everybody held back, it says so', async ({
  signedIn: page,
}) => {
  const session = await runAlone(page, 'Alone', ['Roland'], 1);
  await page.setViewportSize(PHONE);
  await expect(up(page)).toHaveText('Roland');
  await expect(page.getByText('nobody else waits')).toBeVisible();
  await clean(page).click();
  await expect(up(page)).toHaveText('Drill set done');

  const {
    archived: _a,
    logged: _l,
    ...before
  } = await ask<Session>(page, 'GET', `/sessions/${session}`);
  const people = await ask<{ items: { id: string; name: string; version: number }[] }>(
    page,
    'GET',
    '/athletes',
  );
  const tomaz = people.items.find((item) => item.name.startsWith('Tomaz'))!;
  // A second set for somebody who is held back after it was planned.
  const [first] = before.drillSets;
  const second = { ...first!, id: crypto.randomUUID(), athleteIds: [tomaz.id] };
  await ask(page, 'PUT', `/sessions/${session}`, { ...before, drillSets: [first, second] });
  await page.reload();
  await page.getByRole('group', { name: 'Drill sets' }).getByRole('button').nth(1).click();
  await expect(up(page)).toHaveText('Tomaz');
  const restriction = crypto.randomUUID();
  await ask(page, 'POST', `/athletes/${tomaz.id}/restrictions`, {
    id: restriction,
    athleteId: tomaz.id,
    kind: 'pain',
    from: '2026-01-01',
    until: null,
    share: 0.5,
    note: '',
  });
  await expect(up(page)).toHaveText('Everybody is held back');
  await expect(page.locator('.run-body')).toContainText('Tomaz');
  await ask(page, 'PUT', `/athletes/${tomaz.id}/restrictions/${restriction}/away`, { away: true });
  await expect(up(page)).toHaveText('Tomaz');
});

test('a session that is put away elsewhere goes on and says so', async ({ signedIn: page }) => {
  const session = await runAlone(page, 'Put away meanwhile', ['Roland', 'Signe'], 2);
  await page.setViewportSize(PHONE);
  await expect(up(page)).toHaveText('Roland');
  await ask(page, 'PUT', `/sessions/${session}/away`, { away: true });
  await expect(page.getByText('This session was put away on another device.')).toBeVisible();
  await clean(page).click();
  await expect(up(page)).toHaveText('Signe');
  await expect(page.getByRole('button', { name: 'Send now' })).toContainText('all sent');
  expect(await logOf(page, session)).toHaveLength(1);
});

test('a sign-in that ends on the field loses no rep: sign in again, and they go', async ({
  signedIn: page,
  app,
}) => {
  const session = await runAlone(page, 'Signed out meanwhile', ['Roland', 'Signe'], 2);
  await page.setViewportSize(PHONE);
  await expect(up(page)).toHaveText('Roland');
  // Nothing else asks meanwhile, or the door would stand there before the tap.
  await page.route('**/api/**', (route) => route.abort());
  await page.context().clearCookies();
  await clean(page).click();
  await expect(page.getByRole('button', { name: 'Send now' })).toContainText('1');
  await page.unroute('**/api/**');
  // Whoever finds the phone sees no names.
  await expect(page.getByText('One rep waits on this device')).toBeVisible();
  await expect(page.getByText('Signe')).toHaveCount(0);
  await enterDemo(page, app);
  await expect
    .poll(async () => (await logOf(page, session)).map((row) => row.outcome))
    .toEqual(['clean']);
});

test('a session that was begun before midnight is on after it, until the morning', async ({
  signedIn: page,
}) => {
  const { club } = await ask<{ club: { id: string; timeZone: string } }>(page, 'GET', '/me');
  // Where it is between one and four in the night now.
  const zones = Array.from({ length: 25 }, (_, i) => i - 12).map((ahead) =>
    ahead > 0 ? `Etc/GMT-${ahead}` : `Etc/GMT+${-ahead}`,
  );
  const hour = (timeZone: string): number =>
    Number(
      new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', hourCycle: 'h23' }).format(),
    );
  const night = zones.find((zone) => hour(zone) >= 1 && hour(zone) <= 3)!;
  const noon = zones.find((zone) => hour(zone) >= 11 && hour(zone) <= 13)!;
  const change = async (timeZone: string): Promise<string> => {
    const me = await ask<{ club: object; today: string }>(page, 'GET', '/me');
    await ask(page, 'PUT', '/club', { ...me.club, timeZone });
    return (await ask<{ today: string }>(page, 'GET', '/me')).today;
  };
  const session = await runAlone(page, 'Into the night', ['Roland', 'Signe'], 2);
  await expect(up(page)).toHaveText('Roland');
  await clean(page).click();
  await expect(page.getByRole('button', { name: 'Send now' })).toContainText('all sent');
  const dayBefore = (day: string): string =>
    new Date(Date.parse(`${day}T00:00:00Z`) - 86_400_000).toISOString().slice(0, 10);
  const onDay = async (date: string): Promise<void> => {
    const {
      archived: _a,
      logged: _l,
      ...own
    } = await ask<Session>(page, 'GET', `/sessions/${session}`);
    await ask(page, 'PUT', `/sessions/${session}`, { ...own, date });
  };
  try {
    await onDay(dayBefore(await change(night)));
    await page.goto(new URL('/', page.url()).toString());
    const own = page.getByRole('region', { name: 'Into the night' });
    await expect(own).toContainText('begun yesterday');
    await expect(own.getByRole('link', { name: 'Resume' })).toBeVisible();
    await onDay(dayBefore(await change(noon)));
    await page.reload();
    await expect(page.getByRole('region', { name: 'Restricted' })).toBeVisible();
    await expect(own).toHaveCount(0);
  } finally {
    await change(club.timeZone);
  }
});

test('a stop by pain bars in another session on this phone before the server knows of it', async ({
  signedIn: page,
}) => {
  const later = await runAlone(page, 'Later on the day', ['Roland', 'Signe'], 2);
  await runAlone(page, 'Where it hurts', ['Roland', 'Signe'], 2);
  await page.setViewportSize(PHONE);
  await expect(up(page)).toHaveText('Roland');
  await page.route('**/api/reps', (route) => route.abort());
  await page.getByRole('button', { name: 'Pain' }).click();
  await expect(up(page)).toHaveText('Signe');
  await page.goto(new URL(`/run/${later}`, page.url()).toString());
  await expect(page.getByText('Roland Quist was stopped by pain')).toBeVisible();
  await expect(up(page)).toHaveText('Signe');
  // Taken back before it was sent, it bars nobody.
  await page.goBack();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(up(page)).toHaveText('Roland');
  await page.goto(new URL(`/run/${later}`, page.url()).toString());
  await expect(up(page)).toHaveText('Roland');
});

test('any of the last reps is taken back, whichever phone it came from, and its turn is open again', async ({
  signedIn: page,
  app,
  browser,
}) => {
  const session = await runAlone(page, 'Not the last', ['Roland', 'Signe'], 2);
  await page.setViewportSize(PHONE);
  const office = await browser.newContext();
  const other = await office.newPage();
  await enterDemo(other, app);
  await other.goto(page.url());
  await expect(up(other)).toHaveText('Roland');
  await tap(other, clean(other));
  await expect(up(page)).toHaveText('Signe');
  await tap(page, page.getByRole('group', { name: 'Faults seen' }).getByRole('button').first());
  await tap(page, page.getByRole('button', { name: 'Log the fault' }));
  await expect(up(page)).toHaveText('Roland');
  await tap(page, clean(page));
  await expect(up(page)).toHaveText('Signe');
  await up(page).getByRole('button').click();
  const last = page.getByRole('list', { name: 'Logged last' }).getByRole('listitem');
  await expect(last).toHaveCount(3);
  await expect(last.nth(0)).toContainText('Roland Quist');
  await expect(last.nth(2)).toContainText('rep 1, clean, on another phone');
  await last.nth(2).getByRole('button', { name: 'Take back Roland Quist, rep 1' }).click();
  await expect(last).toHaveCount(2);
  await page.getByRole('button', { name: 'Back to the turn' }).click();
  // The turn that is open again comes first, on both phones.
  await expect(up(page)).toHaveText('Roland');
  await expect(page.locator('.rep-no .figure')).toContainText('1');
  await expect(up(other)).toHaveText('Roland');
  await expect(page.getByRole('button', { name: 'Send now' })).toContainText('all sent');
  const rows = await logOf(page, session);
  expect(rows.filter((row) => row.outcome === 'void')).toHaveLength(1);
  expect(rows).toHaveLength(4);
  await office.close();
});

test('a session of today that is over stands below one that still has reps to run', async ({
  signedIn: page,
}) => {
  const session = await runAlone(page, 'All done', ['Roland'], 1);
  const {
    archived: _a,
    logged: _l,
    ...own
  } = await ask<Session>(page, 'GET', `/sessions/${session}`);
  const { today } = await ask<{ today: string }>(page, 'GET', '/me');
  await ask(page, 'PUT', `/sessions/${session}`, { ...own, date: today });
  const lines = page.getByRole('main').getByRole('listitem');
  const titles = async (): Promise<string[]> => {
    const found = (await lines.allTextContents()).map(
      (text) => /^(All done|Athletics: run-ups).*today/.exec(text)?.[1],
    );
    return found.filter((title) => title !== undefined);
  };
  const openChoice = async (): Promise<void> => {
    await page.goto(new URL('/run', page.url()).toString());
  };
  // While both are open, the title alone says which comes first.
  await openChoice();
  await expect.poll(titles).toEqual(['All done', 'Athletics: run-ups']);
  await page.goto(new URL(`/run/${session}`, page.url()).toString());
  await clean(page).click();
  await expect(page.getByRole('button', { name: 'Send now' })).toContainText('all sent');
  await openChoice();
  await expect.poll(titles).toEqual(['Athletics: run-ups', 'All done']);
});
