import type { Athlete } from '@gravek/contract/athlete';
import type { Locator } from '@playwright/test';
import { v7 as uuid } from 'uuid';
import { axeFinds } from '../src/axe';
import { ask, PHONE, plannedSessions, shiftClock } from '../src/field';
import { expect, goTo, test } from '../src/test';

/** Seconds that a clock shows. */
const seconds = (shown: string): number => {
  const [minutes, rest] = shown.trim().split(':').map(Number);
  return 60 * minutes! + rest!;
};

test('groups go round their stations by one clock, also on a phone whose own is minutes off', async ({
  signedIn: page,
  browser,
}) => {
  const { id } = (await plannedSessions(page)).find(
    ({ title, logged }) => title.includes('youth') && logged === 0,
  )!;
  await goTo(page, `/sessions/${id}`);
  await page.getByRole('button', { name: 'In groups' }).click();
  const groups = page.getByRole('region', { name: 'Groups' });
  const gulls = groups.getByRole('group', { name: 'Gulls' });
  const terns = groups.getByRole('group', { name: 'Terns' });
  const moved = await gulls.locator('.pick').first().innerText();
  await gulls.getByRole('button', { name: moved }).click();
  await terns.getByRole('button', { name: `${moved} here` }).click();
  await expect(terns.getByRole('button', { name: moved })).toBeVisible();
  await groups.getByLabel('Minutes at each').fill('7');
  expect(await axeFinds(page)).toEqual([]);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(/is saved\.$/)).toBeVisible();

  await page.goto(new URL(`/run/${id}/clock`, page.url()).href);
  await page.getByRole('button', { name: 'Start the clock' }).click();
  await expect(page.getByRole('heading', { name: 'Round 1 of 3' })).toBeVisible();
  expect(await axeFinds(page)).toEqual([]);

  const other = await browser.newContext({
    storageState: await page.context().storageState(),
    viewport: PHONE,
  });
  await shiftClock(other, 3 * 60_000);
  const phone = await other.newPage();
  await phone.goto(new URL(`/run/${id}`, page.url()).href);
  await expect(phone.getByText('Gulls here')).toBeVisible();
  // Until the server has told its time the phone goes by its own.
  await expect
    .poll(async () => {
      const [here, there] = await Promise.all([
        page.getByRole('timer').innerText(),
        phone.locator('.station-strip').getByRole('timer').innerText(),
      ]);
      return Math.abs(seconds(here) - seconds(there));
    })
    .toBeLessThanOrEqual(1);
  // Whoever went to the other group is up there, not here.
  await expect(phone.getByRole('heading', { level: 1 })).not.toHaveText(moved);

  await page.getByRole('button', { name: 'Change now' }).click();
  await expect(phone.getByText('Change: nobody comes here')).toBeVisible();
  await page.getByRole('button', { name: 'Change now' }).click();
  await expect(page.getByRole('heading', { name: 'Round 2 of 3' })).toBeVisible();
  await expect(phone.getByText('Nobody here in this round')).toBeVisible();
  await phone.getByRole('button', { name: /Finish from the spot/ }).click();
  await expect(phone.getByText('Gulls here')).toBeVisible();
  expect(await axeFinds(phone)).toEqual([]);
});

test('a session of four sets for fourteen in three groups takes no more than twelve presses', async ({
  signedIn: page,
}) => {
  const athletes = await ask<{ items: Athlete[] }>(page, 'GET', '/athletes');
  const some = athletes.items.find(({ squad }) => squad === 'Handball')!;
  for (let i = athletes.items.filter(({ squad }) => squad === 'Handball').length; i < 14; i += 1) {
    const { version: _, ...input } = some as Athlete & { version: number };
    await ask(page, 'POST', '/athletes', {
      ...input,
      ...{ id: uuid(), name: `Extra ${i}`, trials: [], readings: [], restrictions: [] },
    });
  }
  await goTo(page, '/sessions');
  let presses = 0;
  const press = async (target: Locator): Promise<void> => {
    presses += 1;
    await target.click();
  };
  await press(page.getByRole('link', { name: 'Plan a session' }));
  await press(page.getByLabel('Add a set'));
  await page.getByLabel('Add a set').fill('wall switches');
  await press(page.getByRole('button', { name: /^Wall switches: all \d drills in order/ }));
  const lines = page.locator('.set-line');
  await expect(lines.nth(3)).toBeVisible();
  // Whatever it has, it is four sets that are wanted.
  expect(presses).toBeLessThanOrEqual(3);
  const many = await lines.count();
  await press(lines.first().locator('.set-name'));
  presses += 1;
  await page
    .getByLabel('Put a squad or position on it')
    .selectOption({ label: 'Handball, 14 more' });
  await press(page.getByRole('button', { name: 'these in all sets' }));
  await expect(lines.filter({ hasText: '14 athletes' })).toHaveCount(many);
  await press(page.getByRole('button', { name: 'In groups' }));
  const groups = page.getByRole('region', { name: 'Groups' });
  presses += 1;
  await groups.getByRole('combobox', { name: 'Groups' }).selectOption('3');
  await expect(groups.getByRole('group')).toHaveCount(3);
  await press(page.getByRole('button', { name: 'Save', exact: true }));
  await expect(page.getByText(/is saved\.$/)).toBeVisible();
  expect(presses).toBeLessThanOrEqual(12);
});
