import { randomUUID } from 'node:crypto';
import type { Ledger } from '@gravek/contract/faults';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import { ask, logOf, PHONE, showFaultsOf, tap, up } from '../src/field';
import { axeFinds } from '../src/axe';
import { expect, goTo, test } from '../src/test';

/** What can be said of a rep: a wrong answer, a hold, only what it could show. */

const SET = { sets: 1, restS: 0, setRestS: 0 } as const;

test('a read is called as it was chosen; a wrong answer asks what else showed, and is read on the athlete’s page', async ({
  signedIn: page,
}) => {
  const { items } = await ask<{ items: { id: string; name: string }[] }>(page, 'GET', '/athletes');
  const kaia = items.find(({ name }) => name.startsWith('Kaia'))!;
  const readsOf = async (): Promise<{ reps: number; right: number }> => {
    const { reads } = await ask<Ledger>(page, 'GET', `/athletes/${kaia.id}/ledger/give-ground`);
    return {
      reps: reads.reduce((sum, read) => sum + read.reps, 0),
      right: reads.reduce((sum, read) => sum + read.right, 0),
    };
  };
  const before = await readsOf();
  const exits = ['give:left', 'give:stops'];
  const work = { kind: 'movement' as const, movement: 'give-ground', drill: null };
  const fresh = freshDrillSet(randomUUID(), work, [kaia.id]);
  const session = {
    ...{ id: randomUUID(), date: '2031-07-02', title: 'Reads', groundId: null, place: 'Hall' },
    template: false,
    drillSets: [
      { ...fresh, ...SET, reps: 2, vary: { ...fresh.vary, exits }, call: { kind: 'reads' } },
    ],
  };
  await ask(page, 'POST', '/sessions', session);
  await page.setViewportSize(PHONE);
  await goTo(page, `/run/${session.id}`);
  await expect(up(page)).toHaveText('Kaia');
  const ways = page.getByRole('group', { name: 'Which way was taken' });
  const word = page.locator('.call-word');
  const call = async (name: string): Promise<void> => {
    await expect(page.locator('.run-what')).toContainText(name.toLowerCase());
    await page.getByRole('button', { name: /^Call:/ }).click();
    await expect(word).toHaveText(name, { timeout: 15_000 });
  };
  // What stands above is what is called; the sitting way shows none of the sliding faults.
  await call('To the left');
  await page.getByRole('button', { name: 'Other' }).click();
  const faults = page.getByRole('group', { name: 'Faults seen' });
  await expect(faults.getByRole('button', { name: 'He is level' })).toBeVisible();
  await page.getByRole('searchbox', { name: 'Search the faults' }).fill('heels');
  await expect(faults.getByRole('button')).toHaveText([
    ...['Weight on the heels', 'Back steps too long', 'Fewer'],
  ]);
  await faults.getByRole('button', { name: 'Fewer' }).click();
  await tap(page, ways.getByRole('button', { name: 'He stops' }));
  await expect(
    page.getByText('Asked “To the left”, took “He stops”: what else showed?'),
  ).toBeVisible();
  expect(await axeFinds(page)).toEqual([]);
  await page.getByRole('button', { name: 'Other' }).click();
  await expect(faults.getByRole('button', { name: 'He is level' })).toHaveCount(0);
  await faults.getByRole('button', { name: 'Weight on the heels' }).click();
  await tap(page, page.getByRole('button', { name: 'Log 2 faults' }));
  // It may have been a slip of the thumb: nothing is logged until it is said.
  {
    await call('To the left');
    await tap(page, ways.getByRole('button', { name: 'To the right' }));
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await tap(page, ways.getByRole('button', { name: 'To the left' }));
  }
  await call('He stops');
  await tap(page, ways.getByRole('button', { name: 'He stops' }));
  await call('He stops');
  await tap(page, ways.getByRole('button', { name: 'To the left' }));
  await tap(page, page.getByRole('button', { name: 'Log the wrong answer' }));
  await expect(up(page)).toHaveText('Drill set done');
  await expect(page.getByText('all sent')).toBeVisible();
  const rows = await logOf(page, session.id);
  expect(rows.map(({ exit, taken, right }) => [exit, taken, right])).toEqual([
    ['give:left', 'give:stops', false],
    ['give:left', 'give:left', true],
    ['give:stops', 'give:stops', true],
    ['give:stops', 'give:left', false],
  ]);
  expect(rows[0]!.faults.sort()).toEqual(['on-heels', 'wrong-side']);
  expect(rows[1]).toMatchObject({ outcome: 'clean', faults: [] });
  expect(rows[0]!.could).not.toContain('caught-flat');
  expect(rows[1]!.could).toContain('caught-flat');
  for (const { lateS } of rows) expect(lateS === null || lateS <= 3).toBe(true);
  // Counts come by themselves, a moment later.
  await expect
    .poll(async () => (await readsOf()).reps, { timeout: 15_000 })
    .toBe(before.reps + rows.length);
  expect((await readsOf()).right).toBe(before.right + 2);
  await showFaultsOf(page, kaia.id, 'Give-ground mirror');
  const reads = page.getByRole('region', { name: 'Reads' });
  const { reps, right } = await readsOf();
  await expect(reads).toContainText(`${reps - right} of ${reps} answered wrongly`);
});

test('a hold that is too short is not clean, a tap is no hold, and both stand on the athlete’s page', async ({
  signedIn: page,
}) => {
  const { items } = await ask<{ items: { id: string; name: string }[] }>(page, 'GET', '/athletes');
  const kaia = items.find(({ name }) => name.startsWith('Kaia'))!;
  const work = { kind: 'movement' as const, movement: 'gaps', drill: null };
  const session = {
    ...{ id: randomUUID(), date: '2031-07-03', title: 'Holds', groundId: null, place: 'Hall' },
    template: false,
    drillSets: [
      {
        ...freshDrillSet(randomUUID(), work, [kaia.id]),
        ...{ ...SET, reps: 2, target: 'seconds', amount: 3 },
      },
    ],
  };
  await ask(page, 'POST', '/sessions', session);
  await page.setViewportSize(PHONE);
  await goTo(page, `/run/${session.id}`);
  await expect(up(page)).toHaveText('Kaia');
  const hold = page.getByRole('button', { name: /^Hold while it lasts/ });
  const press = async (ms: number): Promise<void> => {
    await hold.hover();
    await page.mouse.down();
    await page.waitForTimeout(ms);
    await page.mouse.up();
  };
  await press(50);
  await expect(page.getByText(/That was a tap of 0\.\d s/)).toBeVisible();
  await page.getByRole('button', { name: 'Hold again' }).click();
  await press(700);
  await expect(page.locator('.rep-no .figure')).toContainText('2');
  await press(3_300);
  await expect(up(page)).toHaveText('Drill set done');
  await expect(page.getByText('all sent')).toBeVisible();
  const rows = await logOf(page, session.id);
  expect(rows.map(({ outcome }) => outcome)).toEqual(['fault', 'clean']);
  const heldOn = async () => {
    const { results } = await ask<Ledger>(page, 'GET', `/athletes/${kaia.id}/ledger/gaps`);
    return results.filter((session) => session.date === '2031-07-03');
  };
  await expect.poll(heldOn, { timeout: 15_000 }).toMatchObject([{ held: 2, tried: 0 }]);
  expect((await heldOn())[0]!.bestHeldS).toBeGreaterThanOrEqual(3.3);
});
