import type { Session } from '@gravek/contract/session';
import { axeFinds } from '../src/axe';
import { ask, PHONE, shiftClock } from '../src/field';
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
  const from = new Date().toISOString().slice(0, 10);
  const until = new Date(Date.now() + 21 * 86_400_000).toISOString().slice(0, 10);
  const { items } = await ask<{ items: Session[] }>(
    page,
    'GET',
    `/sessions?from=${from}&to=${until}`,
  );
  const { id } = items.find(({ title, logged }) => title.includes('youth') && logged === 0)!;
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
