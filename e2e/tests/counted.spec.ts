import { randomUUID } from 'node:crypto';
import type { Ledger } from '@gravek/contract/faults';
import type { RunBundle } from '@gravek/contract/run';
import type { SessionInput } from '@gravek/contract/session';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import type { Page } from '@playwright/test';
import { axeFinds } from '../src/axe';
import { ask, logOf, PHONE, showFaultsOf, tap, up } from '../src/field';
import { expect, goTo, LONG, test } from '../src/test';

/** What counts of a rep beside its faults: touches, metres, minutes, makes by spot, the first step after a call. */

type DrillSet = SessionInput['drillSets'][number];

const people = async (page: Page, ...names: string[]): Promise<string[]> => {
  const { items } = await ask<{ items: { id: string; name: string }[] }>(page, 'GET', '/athletes');
  return names.map((name) => items.find((item) => item.name.startsWith(name))!.id);
};

const aSession = async (
  page: Page,
  movement: string,
  athleteIds: string[],
  change: Partial<Omit<DrillSet, 'vary'>> & { vary?: Partial<DrillSet['vary']> },
  date = '2031-07-05',
): Promise<SessionInput> => {
  const work = { kind: 'movement' as const, movement, drill: null };
  const fresh = freshDrillSet(randomUUID(), work, athleteIds);
  const session: SessionInput = {
    ...{ id: randomUUID(), date, title: 'Counted', groundId: null, place: 'Hall' },
    template: false,
    drillSets: [
      {
        ...{ ...fresh, sets: 1, restS: 0, setRestS: 0 },
        ...change,
        vary: { ...fresh.vary, ...change.vary },
      },
    ],
  };
  await ask(page, 'POST', '/sessions', session);
  return session;
};

const resultsOn = async (page: Page, id: string, movement: string, date: string) => {
  const path = `/athletes/${id}/ledger/${movement}`;
  const { results } = await ask<Ledger>(page, 'GET', path);
  return results.filter((result) => result.date === date);
};

test('touches are tapped or heard, counted up to what was asked, and timed from one to the next', async ({
  signedIn: page,
}) => {
  const [kaia] = await people(page, 'Kaia');
  const session = await aSession(page, 'slide-close-out', [kaia!], {
    ...{ target: 'touches', amount: 3, reps: 3 },
  });
  await page.setViewportSize(PHONE);
  await goTo(page, `/run/${session.id}`);
  const touch = page.getByRole('button', { name: /touch/i });
  await expect(touch).toHaveText(/First touch/);
  expect(await axeFinds(page)).toEqual([]);
  // A thumb that was still at the answer before has touched nothing.
  await page.waitForTimeout(800);
  for (let i = 0; i < 3; i += 1) {
    await touch.dispatchEvent('pointerdown');
    await page.waitForTimeout(300);
  }
  await expect(page.getByText(/^Touch 3 of 3, 0\.\d\d s after/)).toBeVisible();
  await expect(touch).toHaveCount(0);
  await page.getByRole('button', { name: 'Count anew' }).click();
  for (let i = 0; i < 3; i += 1) {
    await touch.dispatchEvent('pointerdown');
    await page.waitForTimeout(200 + 100 * i);
  }
  await tap(page, page.getByRole('button', { name: /^Clean/ }));
  // Taken back, its touches are still there.
  await tap(page, page.getByRole('button', { name: 'Undo Kaia' }));
  await expect(page.getByText(/^Touch 3 of 3/)).toBeVisible();
  await tap(page, page.getByRole('button', { name: /^Clean/ }));
  // A round that ends early is logged as far as it went, with the fault that was seen.
  await page.waitForTimeout(800);
  await touch.dispatchEvent('pointerdown');
  await page.getByRole('button', { name: 'Pushing knee falls in' }).click();
  await tap(page, page.getByRole('button', { name: /^Log the fault/ }));
  // Taken back, it is counted anew by the next touch: nothing tells how long ago the first was.
  await tap(page, page.getByRole('button', { name: 'Undo Kaia' }));
  await expect(page.getByText(/^Touch 1 of 3/)).toBeVisible();
  await page.waitForTimeout(800);
  for (let i = 0; i < 2; i += 1) {
    await touch.dispatchEvent('pointerdown');
    await page.waitForTimeout(300);
  }
  await expect(page.getByText(/^Touch 2 of 3, 0\.\d\d s after/)).toBeVisible();
  await tap(page, page.getByRole('button', { name: /^Log the fault/ }));
  // Landings that the microphone hears count by themselves.
  await page.getByRole('button', { name: 'Measure it' }).click();
  await page.getByRole('button', { name: 'Microphone', exact: true }).click();
  await expect(page.getByText(/^Touch 3 of 3/)).toBeVisible({ timeout: 20_000 });
  await tap(page, page.getByRole('button', { name: /^Clean/ }));
  await expect(up(page)).toHaveText('Drill set done');
  await expect(page.getByText(/s, last round/)).toBeVisible();
  await expect(page.getByText('all sent')).toBeVisible();
  const rows = (await logOf(page, session.id)).filter(({ outcome }) => outcome !== 'void');
  expect(rows.map(({ touchS, outcome }) => `${touchS!.length} ${outcome}`)).toEqual([
    ...['3 clean', '3 clean', '1 fault', '2 fault', '3 clean'],
  ]);
  for (const { touchS } of rows) expect(touchS![0]).toBe(0);
  const heard = rows.at(-1);
  // They land four times a second.
  expect(heard!.touchS![2]! - heard!.touchS![1]!).toBeGreaterThan(0.15);
  await expect
    .poll(() => resultsOn(page, kaia!, 'slide-close-out', '2031-07-05'), { timeout: 15_000 })
    .toMatchObject([{ rounds: 3, touches: 8, splits: 5 }]);
  await showFaultsOf(page, kaia!, 'Slide and close out');
  const results = page.getByRole('region', { name: 'Results' });
  await expect(results.getByRole('img', { name: /^Round 1: 3 touches in/ })).toBeVisible();
  await expect(results).toContainText(/The last round is/);
});

test('metres and minutes are timed by the coach’s clock, which runs on through a reload, for one or a row', async ({
  signedIn: page,
}) => {
  const [kaia, bram] = await people(page, 'Kaia', 'Bram');
  const session = await aSession(page, 'steady-cadence', [kaia!, bram!], {
    ...{ target: 'minutes', amount: 5, reps: 1, stand: 'row' },
  });
  await page.setViewportSize(PHONE);
  await goTo(page, `/run/${session.id}`);
  await page.getByRole('button', { name: /^Start/ }).click();
  await expect(page.getByRole('timer').last()).toContainText('0:01 of 5 min');
  await page.reload();
  await expect(page.getByRole('timer').last()).toContainText(/0:0[2-9] of 5 min/);
  await tap(page, page.getByRole('button', { name: /^Finished/ }));
  await expect(up(page)).toHaveText('Drill set done');
  const metres = await aSession(page, 'steady-cadence', [kaia!], {
    ...{ target: 'metres', amount: 400, reps: 2 },
  });
  await goTo(page, `/run/${metres.id}`);
  await page.getByRole('button', { name: /^Start/ }).click();
  await page.getByRole('button', { name: /^Not yet/ }).click();
  await page.getByRole('button', { name: /^Start/ }).click();
  await page.waitForTimeout(1_000);
  await tap(page, page.getByRole('button', { name: /^Finished/ }));
  // Who forgot the clock logs without a time.
  await tap(page, page.getByRole('button', { name: /^Clean/ }));
  await expect(up(page)).toHaveText('Drill set done');
  await expect(page.getByText('all sent')).toBeVisible();
  const ran = await logOf(page, metres.id);
  expect(ran.map(({ ranM }) => ranM)).toEqual([400, 400]);
  expect(ran[0]!.ranS).toBeGreaterThan(0.9);
  expect(ran[0]!.ranS).toBeLessThan(60);
  expect(ran[1]!.ranS).toBeNull();
  const rows = await logOf(page, session.id);
  expect(rows).toHaveLength(2);
  for (const { ranM, ranS } of rows) expect([ranM, ranS! > 1.5]).toEqual([null, true]);
  await expect
    .poll(
      async () =>
        // Two sessions of one day stand in no order.
        (await resultsOn(page, kaia!, 'steady-cadence', '2031-07-05'))
          .map(({ runs, ranM }) => `${runs} ${ranM}`)
          .sort(),
      { timeout: 15_000 },
    )
    .toEqual(['1 0', '2 800']);
});

test('makes are kept by spot; what was missed comes once more, and the next session begins there', async ({
  signedIn: page,
}) => {
  const [kaia] = await people(page, 'Kaia');
  // Its spots are typed on the session's page.
  const set = { target: 'makes', amount: 1, reps: 2 } as const;
  const first = await aSession(page, 'two-step-finish', [kaia!], set);
  await goTo(page, `/sessions/${first.id}`);
  await page.getByRole('button', { name: 'Two-step finish', exact: true }).click();
  const spot = page.getByLabel('Another spot');
  await spot.fill('left post');
  await spot.press('Enter');
  await spot.fill('  middle <3 ');
  await spot.press('Enter');
  await spot.fill('left post');
  await spot.blur();
  const spots = page.getByRole('group', { name: 'Spots' });
  await expect(spots.getByRole('button', { pressed: true })).toHaveText(['left post', 'middle 3']);
  // Those of its place are offered beside the coach’s own.
  await expect(spots.getByRole('button', { name: 'left side' })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
  await page.getByLabel('once more through what was missed').check();
  await expect(page.getByText('on after 2; what was missed once more')).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Counted is saved.')).toBeVisible();
  await page.setViewportSize(PHONE);
  await goTo(page, `/run/${first.id}`);
  await expect(page.locator('.run-what')).toContainText('left post');
  await expect(page.getByText('still to make: left post · middle 3')).toBeVisible();
  await tap(page, page.getByRole('button', { name: 'Made', exact: true }));
  await expect(page.locator('.run-what')).toContainText('middle 3');
  await tap(page, page.getByRole('button', { name: 'Missed', exact: true }));
  await tap(page, page.getByRole('button', { name: 'Missed', exact: true }));
  await expect(page.getByText('once more: missed in this round')).toBeVisible();
  await expect(page.locator('.run-what')).toContainText('middle 3');
  await expect(page.getByText('try 1 of 2')).toBeVisible();
  await tap(page, page.getByRole('button', { name: 'Missed', exact: true }));
  await page.reload();
  await expect(page.getByText('try 2 of 2')).toBeVisible();
  await tap(page, page.getByRole('button', { name: 'Missed', exact: true }));
  await expect(up(page)).toHaveText('Drill set done');
  await expect(page.getByText('left: middle 3')).toBeVisible();
  await expect
    .poll(() => resultsOn(page, kaia!, 'two-step-finish', '2031-07-05'), { timeout: 15_000 })
    .toMatchObject([
      { spot: 'left post', tried: 1, made: 1 },
      { spot: 'middle 3', tried: 4, made: 0 },
    ]);
  const next = await aSession(
    page,
    'two-step-finish',
    [kaia!],
    { ...set, vary: { spots: ['left post', 'middle 3'] } },
    '2031-07-06',
  );
  const { missed } = await ask<RunBundle>(page, 'GET', `/sessions/${next.id}/run`);
  expect(missed.map(({ variants }) => variants)).toEqual([['own spot=middle_3']]);
  await goTo(page, `/run/${next.id}`);
  await expect(page.locator('.run-what')).toContainText('middle 3');
  await expect(page.getByText('missed last time')).toBeVisible();
  await tap(page, page.getByRole('button', { name: 'Made', exact: true }));
  await expect(page.locator('.run-what')).toContainText('left post');
  await expect(page.getByText('missed last time')).toHaveCount(0);
});

test(
  'the first step after a call is a reaction where the microphone hears it, and a tap is not',
  LONG,
  async ({ signedIn: page }) => {
    const [kaia] = await people(page, 'Kaia');
    const session = await aSession(page, 'give-ground', [kaia!], {
      ...{ reps: 6, call: { kind: 'reads' }, vary: { exits: ['give:left'] } },
    });
    await page.setViewportSize(PHONE);
    await goTo(page, `/run/${session.id}`);
    const way = page
      .getByRole('group', { name: 'Which way was taken' })
      .getByRole('button', { name: 'To the left' });
    const callIt = async (): Promise<void> => {
      await page.getByRole('button', { name: /^Call:/ }).click();
      await expect(page.locator('.call-word')).toHaveText('To the left', { timeout: 15_000 });
    };
    await callIt();
    await tap(page, way);
    await page.getByRole('button', { name: 'Measure it' }).click();
    await page.getByRole('button', { name: 'Microphone', exact: true }).click();
    await expect(page.getByRole('status', { name: 'Cadence now' })).toHaveText(/^2/, {
      timeout: 20_000,
    });
    for (let i = 0; i < 5; i += 1) {
      await callIt();
      // The landings pause for three seconds now and then; a call that falls on a landing hears none.
      await page.waitForTimeout(3_400 + 300 * i);
      await tap(page, way);
    }
    await expect(up(page)).toHaveText('Drill set done');
    await expect(page.getByText('all sent')).toBeVisible();
    const rows = await logOf(page, session.id);
    expect(rows[0]!.lateBy).toBe('tap');
    const heard = rows.filter(({ lateBy }) => lateBy === 'sound');
    expect(heard.length).toBeGreaterThan(0);
    // Before the word was over it heard the word.
    for (const { lateS } of heard) expect(lateS).toBeGreaterThan(0.3);
    await showFaultsOf(page, kaia!, 'Give-ground mirror');
    const reads = page.getByRole('region', { name: 'Reads' });
    await expect(reads.getByRole('columnheader', { name: 'reaction' })).toBeVisible();
  },
);
