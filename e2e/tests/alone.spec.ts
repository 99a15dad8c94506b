import type { Athlete } from '@gravek/contract/athlete';
import type { OwnLink } from '@gravek/contract/ownView';
import { v7 as uuid } from 'uuid';
import { axeFinds } from '../src/axe';
import { ask, PHONE, plannedSessions } from '../src/field';
import { expect, goTo, test } from '../src/test';

test('an athlete works a list off alone, also without network, and the coach sees it as the own count', async ({
  signedIn: page,
  browser,
}) => {
  const { items } = await ask<{ items: Athlete[] }>(page, 'GET', '/athletes');
  const athlete = items.find(({ squad, minor }) => squad === 'Handball' && !minor)!;
  const today = new Date().toISOString().slice(0, 10);
  const set = (await plannedSessions(page))
    .flatMap(({ drillSets }) => drillSets)
    .find(({ work }) => work.kind === 'movement' && work.movement === 'goal-arc')!;
  await ask(page, 'POST', '/sessions', {
    ...{ id: uuid(), date: today, title: 'Homework', groundId: null, place: '', template: false },
    drillSets: [
      {
        ...{ ...set, id: uuid(), athleteIds: [athlete.id], sets: 1, reps: 3, stand: 'turns' },
        ...{ target: 'makes', amount: 2, retryMissed: true, helpers: [], freeze: false },
        vary: { ...set.vary, sides: ['own', 'other'] },
      },
    ],
  });
  const { token } = await ask<OwnLink>(page, 'POST', `/athletes/${athlete.id}/own-link`, {
    ...{ days: 30, guardian: true },
  });

  const alone = await browser.newContext({ viewport: PHONE });
  const phone = await alone.newPage();
  await phone.goto(new URL(`/own#${token}`, page.url()).href);
  const list = phone.locator('.own-list').first();
  await expect(list).toContainText('2 makes of each, 3 tries at most');
  await list.getByRole('button', { name: 'Do it now' }).click();
  const item = list.getByRole('heading', { level: 4 });
  const first = await item.innerText();
  await expect(list.locator('.print-strip')).toBeVisible();
  expect(await axeFinds(phone)).toEqual([]);
  const made = list.getByRole('button', { name: 'Made', exact: true });
  const missed = list.getByRole('button', { name: 'Missed', exact: true });
  const stand = list.getByRole('status').first();
  await expect(stand).toHaveText('0 of 2 made, try 1 of 3');
  await alone.setOffline(true);
  await made.click();
  await expect(stand).toHaveText('1 of 2 made, try 2 of 3');
  await missed.click();
  await list.getByRole('button', { name: 'Undo the last' }).click();
  await expect(stand).toHaveText('1 of 2 made, try 2 of 3');
  await expect(phone.getByText('3 tries waiting to be sent.')).toBeVisible();
  await missed.click();
  await missed.click();
  // On to the next after three tries; the first comes back at the end.
  await expect(item).not.toHaveText(first);
  await made.click();
  await made.click();
  await expect(item).toHaveText(first);
  await expect(stand).toHaveText('1 of 2 made, try 1 of 3');
  await alone.setOffline(false);
  await phone.reload();
  await list.getByRole('button', { name: 'Go on' }).click();
  await expect(stand).toHaveText('1 of 2 made, try 1 of 3');
  await made.click();
  await expect(list.getByText('All of it is done.')).toBeVisible();
  await expect(phone.getByText('Your coach sees what you count')).toBeVisible();
  await phone.reload();
  await expect(list.getByText('All of it is done.')).toBeVisible();

  await goTo(page, `/athletes/${athlete.id}`);
  const own = page.getByRole('region', { name: 'Own count' });
  await expect(own.getByRole('listitem').first()).toContainText('4 of 6');
  expect(await axeFinds(page)).toEqual([]);
  await alone.close();
});
