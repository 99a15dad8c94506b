import type { Athlete } from '@gravek/contract/athlete';
import { v7 as uuid } from 'uuid';
import { axeFinds } from '../src/axe';
import { ask, logOf, PHONE, plannedSessions } from '../src/field';
import { expect, goTo, test } from '../src/test';

test.use({ viewport: PHONE });

test('a partner shows the same cue as the coach reads, on two phones without network', async ({
  signedIn: page,
  browser,
}) => {
  const { items } = await ask<{ items: Athlete[] }>(page, 'GET', '/athletes');
  const athleteIds = items
    .filter(({ squad }) => squad === 'Handball')
    .slice(0, 2)
    .map(({ id }) => id);
  const today = new Date().toISOString().slice(0, 10);
  const set = (await plannedSessions(page))
    .flatMap(({ drillSets }) => drillSets)
    .find(({ work }) => work.kind === 'movement' && work.movement === 'goal-arc')!;
  const session = uuid();
  await ask(page, 'POST', '/sessions', {
    ...{ id: session, date: today, title: 'Mirror', groundId: null, place: '', template: false },
    drillSets: [
      {
        ...{ ...set, id: uuid(), athleteIds, stand: 'turns', helpers: [], call: null, sets: 1 },
        struck: [],
        ...{
          work: { kind: 'movement', movement: 'give-ground', drill: null },
          target: 'attempts',
          amount: 1,
          restS: 0,
        },
        vary: { ...set.vary, exits: [], spots: [], ways: [], rungs: [], sides: ['own'] },
      },
    ],
  });
  await goTo(page, `/run/${session}`);
  await page.getByRole('button', { name: 'By a partner' }).click();
  const code = await page.locator('.silent-code').innerText();
  expect(code).toMatch(/^\d{4}$/);
  expect(await axeFinds(page)).toEqual([]);

  // Nobody is signed in on the partner's phone.
  const other = await browser.newContext({ viewport: PHONE });
  const partner = await other.newPage();
  await partner.goto(new URL('/partner', page.url()).href);
  const typed = partner.getByLabel('The coach’s code');
  await typed.fill('9999');
  await expect(partner.getByRole('alert')).toBeVisible();
  await Promise.all([other.setOffline(true), page.context().setOffline(true)]);
  await typed.fill(code);
  await partner.getByRole('button', { name: 'Give ground' }).click();
  expect(await axeFinds(partner)).toEqual([]);
  await Promise.all([
    page.getByRole('button', { name: 'Start', exact: true }).click(),
    partner.getByRole('button', { name: 'Start', exact: true }).click(),
  ]);
  const told = partner.locator('.partner-shows');
  await expect(told).toContainText('When it buzzes', { timeout: 15_000 });
  const shows = await partner.getByRole('heading', { level: 1 }).innerText();
  const ready = page.getByRole('timer', { name: 'Rest' });
  await expect(ready).toContainText(`1 of 10, next: ${shows}`);
  await expect(told).toContainText('Now', { timeout: 15_000 });
  await expect(ready).toContainText(`1 of 10, now: ${shows}`);
  // The coach taps what the athlete did.
  const way = {
    'Run past on your left': 'To the right',
    'Run past on your right': 'To the left',
    'Break your stride and stop': 'He stops',
  }[shows]!;
  await page.getByRole('button', { name: way }).click();
  await expect(ready).toContainText('1 of 10');
  // The next cue is the same on both again.
  await expect(told).toContainText('When it buzzes', { timeout: 30_000 });
  const next = await partner.getByRole('heading', { level: 1 }).innerText();
  await expect(ready).toContainText(`2 of 10, next: ${next}`);
  await page.getByRole('button', { name: 'No partner' }).click();
  await expect(page.getByRole('button', { name: 'By a partner' })).toBeVisible();
  await page.context().setOffline(false);
  await expect.poll(async () => (await logOf(page, session)).length).toBe(1);
  const [rep] = await logOf(page, session);
  expect(rep).toMatchObject({ outcome: 'clean', right: true, lateBy: 'tap' });
  expect(rep!.exit).toBe(rep!.taken);
  expect(rep!.lateS).toBeGreaterThan(0);
  expect(rep!.lateS).toBeLessThan(10);
  await other.close();
});
