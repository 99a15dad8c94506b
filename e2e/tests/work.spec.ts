import type { Page } from '@playwright/test';
import { addPlan } from '../src/field';
import { expect, goTo, test, seen } from '../src/test';

/** A session of its own day with one approach for whoever is on it, run at once. */
const run = async (page: Page, approach: string, day: string): Promise<void> => {
  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill(approach);
  await page.getByLabel('Day').fill(day);
  const set = await addPlan(page, approach);
  await set.getByLabel('Rounds').fill('1');
  await set.getByLabel('Reps of each').fill('2');
  await page.getByRole('button', { name: 'Save and run' }).click();
};

/** The faults that the field screen offers. */
const faultsSeen = async (page: Page): Promise<string[]> => {
  await page.getByRole('button', { name: 'Other', exact: true }).click();
  const group = page.getByRole('group', { name: 'Faults seen' });
  return group.getByRole('button').allInnerTexts();
};

const choose = (page: Page, part: string, name: string) =>
  page
    .getByRole('region', { name: part, exact: true })
    .getByRole('button', { name, exact: true })
    .click();

test('a chain is composed, told how it joins, planned, run and found among the faults', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements');
  await page.getByRole('link', { name: 'Chains' }).click();
  await choose(page, 'Move', 'Jab and rise');
  await expect(page.getByText(/One dribble joins them: right foot first/)).toBeVisible();
  await choose(page, 'Move', 'Jab, cross over');
  await choose(page, 'Ending', 'Floater');
  await expect(page.getByText('A step with the left foot joins them')).toBeVisible();
  await expect(page.getByText('Every step is legal.')).toHaveCount(2);
  await choose(page, 'Then', 'Hesitation');
  await expect(
    page.getByRole('heading', { name: 'Jab, cross over, Hesitation: floater' }),
  ).toBeVisible();
  await page.reload();
  await expect(
    page.getByRole('heading', { name: 'Jab, cross over, Hesitation: floater' }),
  ).toBeVisible();
  await choose(page, 'Then', 'nothing more');
  await page.getByLabel('Lengths of').selectOption({ label: 'Roland Quist' });
  // A left-hander’s chain is its mirror, the join with it.
  await page.getByRole('link', { name: 'Faults and drills' }).click();
  await expect(page.getByRole('heading', { name: 'Jab, cross over: floater' })).toBeVisible();
  await page.getByRole('link', { name: 'Change its parts' }).click();
  // The page before asks for whom as well.
  await expect(page.getByRole('region', { name: 'Move', exact: true })).toBeVisible();
  await page.getByLabel('Lengths of').selectOption({ label: 'Roland Quist' });
  await page.getByRole('link', { name: 'Plan it' }).click();
  await expect(page.getByText('drawn for the left hand')).toBeVisible();
  await page.getByLabel('Name of the approach').fill('Roland’s floater');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Roland’s floater is saved')).toBeVisible();

  await run(page, 'Roland’s floater', '2031-06-02');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Roland');
  expect(await faultsSeen(page)).toContain('Released too near');
  await page.getByRole('button', { name: 'Released too near' }).click();
  await page.getByRole('button', { name: 'Log the fault' }).click();
  // It is on the phone once the next rep is up; nobody leaves before they see that.
  await expect(page.locator('.rep-no')).toContainText(/^2/);
  await goTo(page, '/faults');
  await page.getByLabel('Movement').selectOption('Jab, cross over: floater');
  await expect(page.getByRole('row', { name: /Roland Quist/ })).toBeVisible();
});

test('a way of teaching reaches checkpoints, faults and the field screen', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new?movement=give-ground');
  await expect(page.getByText('Far arm')).toBeHidden();
  await page.getByLabel('A slide first, or open the hips at once?').selectOption('Open at once');
  await seen(page.getByText('Stiff, thumb up, head round with it'));
  await page.getByLabel('Name of the approach').fill('Open at once');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Open at once is saved')).toBeVisible();
  await run(page, 'Open at once', '2031-06-03');
  const faults = await faultsSeen(page);
  expect(faults).toContain('Opposite arm stays down');
  expect(faults).not.toContain('Slides too far');

  // A run-up to a target is taught its way too.
  await goTo(page, '/approaches/new?movement=close-and-shorten');
  await page.getByLabel('Stop in balance or keep coming?').selectOption('Stop in balance');
  await page.getByLabel('Name of the approach').fill('Close to a stop');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Close to a stop is saved')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Stop in balance or keep coming?')).toHaveValue('balance');
});

test('a close is run at a quarter while the short steps stay, and never faster than can be braked', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new?movement=close-and-shorten');
  await expect(page.getByText(/Faster could not be braked there/)).toBeVisible();
  // A draft of the whole run is no hindrance to planning a drill of it.
  await page.getByLabel('Name of the approach').fill('Begun as a whole');
  await goTo(page, '/movements/close-and-shorten');
  await page.getByLabel(/^Part/).selectOption('Clap to short');
  await page.getByRole('link', { name: 'Plan it' }).click();
  const takes = page.getByText('Takes').locator('..').locator('.figure').first();
  const full = parseFloat(await takes.innerText());
  await page.getByLabel('Sprint: of that speed').selectOption('a quarter');
  await expect.poll(async () => parseFloat(await takes.innerText())).toBeGreaterThan(full);
});

test('a set runs a plan’s way in at a quarter, and says so on the field', async ({
  signedIn: page,
}) => {
  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill('Quarter first');
  await page.getByLabel('Day').fill('2031-06-09');
  const set = await addPlan(page, 'Close and shorten at half');
  const speeds = set.getByRole('group', { name: 'Speed' });
  await speeds.getByRole('button', { name: 'a quarter' }).click();
  await speeds.getByRole('button', { name: 'full', exact: true }).click();
  await page.getByRole('button', { name: 'Save and run' }).click();
  await expect(page.locator('.run-what')).toContainText('a quarter speed');
  const seconds = page.getByText(/steps in [\d.]+ s/);
  const slow = parseFloat(/in ([\d.]+)/.exec(await seconds.innerText())![1]!);
  await goTo(page, page.url().replace('/run/', '/sessions/'));
  await page.getByRole('button', { name: 'Close and shorten at half', exact: true }).click();
  await speeds.getByRole('button', { name: 'full', exact: true }).click();
  await speeds.getByRole('button', { name: 'a quarter' }).click();
  await page.getByRole('button', { name: 'Save and run' }).click();
  await expect
    .poll(async () => parseFloat(/in ([\d.]+)/.exec(await seconds.innerText())![1]!))
    .toBeLessThan(slow);
});

test('a child’s plan has its own counts and lengths', async ({ signedIn: page }) => {
  await goTo(page, '/movements/two-step-finish');
  const drawn = page.getByRole('img', { name: /Two-step finish from above/ });
  await page.getByLabel('Lengths of').selectOption({ label: 'Bram Solheide' });
  await expect(drawn).toHaveAccessibleName(/5 steps/);
  await page.getByLabel('Lengths of').selectOption({ label: 'Tilde Marchbank' });
  await expect(drawn).toHaveAccessibleName(/7 steps/);
  // Nobody measured Emrik: the height is that of his age, and said so.
  await page.getByLabel('Lengths of').selectOption({ label: 'Emrik Dallow' });
  await expect(page.getByText(/the usual height at 13 years and age: a rough guess/)).toBeVisible();
});

test('a call to the right goes right for a left-hander, what has a hand is mirrored', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/block-jump');
  await page.getByLabel('Lengths of').selectOption({ label: 'Anouk Ferrand' });
  await page.getByLabel(/Read: where the set goes/).selectOption('Right, near');
  await expect(page.getByRole('button', { name: 'Shuffle right', exact: true })).toBeVisible();
  await expect(page.getByText('drawn for the left')).toBeHidden();
  await goTo(page, '/movements/jab-and-go');
  await page.getByLabel('Lengths of').selectOption({ label: 'Anouk Ferrand' });
  await expect(page.getByText('drawn for the left')).toBeVisible();
});

test('footwork on air is open to who may have no contact; with an opponent it is not', async ({
  signedIn: page,
}) => {
  await goTo(page, '/athletes');
  await page.getByRole('link', { name: 'Signe Averill' }).click();
  await seen(page.getByText(/contact/i));
  const athlete = page.url().split('/').at(-1)!;
  await goTo(page, `/approaches/new?movement=line-first-steps&athlete=${athlete}`);
  await seen(page.getByText('Air before pad, pad before partner'));
  await expect(page.getByText('Sessions will not let this run')).toBeHidden();
  await page.getByLabel('Rung').selectOption('with opponent');
  await expect(page.getByText(/Signe Averill may not have contact/)).toBeVisible();
});
