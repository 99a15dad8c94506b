import type { Page } from '@playwright/test';
import { openAthlete, takeOutNewestRun } from '../src/field';
import { expect, goTo, test, seen } from '../src/test';

const begin = async (page: Page, test: string): Promise<void> => {
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByRole('combobox', { name: 'Do a test' }).selectOption({ label: test });
  await expect(page.getByRole('dialog', { name: test })).toBeVisible();
};

test('sprint times: wrong ones are pointed out, good ones are fitted, kept, and outranked by trust', async ({
  signedIn: page,
}) => {
  await openAthlete(page, 'Saskia Oyelaran');
  await begin(page, 'Times over 5, 10 and 20 m');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText('Two distances at least.')).toBeVisible();
  await dialog.getByLabel('Time, s, row 1').fill('1,4');
  await dialog.getByLabel('Time, s, row 2').fill('1.3');
  await expect(dialog.getByText(/must be farther and later/)).toBeVisible();
  await dialog.getByLabel('Time, s, row 2').fill('2.14');
  await dialog.getByLabel('Time, s, row 3').fill('3.45');
  await expect(dialog.getByText(/Comes to top speed \d\.\d\d m\/s/)).toBeVisible();
  await page.reload();
  await begin(page, 'Times over 5, 10 and 20 m');
  await expect(dialog.getByLabel('Time, s, row 3')).toHaveValue('3.45');
  await dialog.getByLabel('Measured by').selectOption('device');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  const tests = page.getByRole('region', { name: 'Tests' });
  await seen(tests.getByText(/top speed \d\.\d\d m\/s/));

  await begin(page, 'Times over 5, 10 and 20 m');
  for (const [row, time] of ['1.5', '2.3', '3.7'].entries()) {
    await dialog.getByLabel(`Time, s, row ${row + 1}`).fill(time);
  }
  await dialog.getByLabel('Measured by').selectOption('self');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await tests.getByText(/2 readings/).click();
  await expect(tests.getByRole('listitem').filter({ hasText: 'by a device' }).last()).toContainText(
    'this one counts',
  );
  await expect(tests.getByRole('img', { name: /over time/ })).toBeVisible();
  await tests.getByRole('button', { name: 'Take out' }).first().click();
  await expect(page.getByText('The reading is taken out.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(tests.getByText(/2 readings/)).toBeVisible();
});

test('cadence is tapped on a phone, one foot, and counts twice', async ({ signedIn: page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openAthlete(page, 'Saskia Oyelaran');
  await begin(page, 'Cadence by counting');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Seconds, row 1').fill('5');
  const tap = dialog.getByRole('button', { name: /^Tap with one foot for 5 s/ });
  expect((await tap.boundingBox())!.height).toBeGreaterThan(80);
  await tap.dispatchEvent('pointerdown');
  const going = dialog.getByRole('button', { name: /s left$/ });
  for (let i = 0; i < 6; i += 1) await going.dispatchEvent('pointerdown');
  await expect(dialog.getByLabel('Count of one foot, row 1')).toHaveValue('7', { timeout: 12_000 });
  await expect(dialog.getByText(/Comes to 168 steps\/min, once/)).toBeVisible();
});

test('run-throughs move the start mark only when the evidence beats the noise', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches');
  await page.getByRole('link', { name: 'Long jump, 14 steps' }).click();
  const panel = page.getByRole('region', { name: 'Run-throughs' });
  await expect(panel.getByText('That may be chance')).toBeVisible();
  await page.getByLabel('Athlete', { exact: true }).selectOption('Odran Vask');
  await expect(panel.getByText(/Move the start mark 12[.\d]* ?cm back/)).toBeVisible();
  const start = page.locator('.planner-head .figure-big').first();
  const before = parseFloat((await start.textContent())!);
  await panel.getByRole('button', { name: 'Move it' }).click();
  await expect
    .poll(async () => parseFloat((await start.textContent())!))
    .toBeCloseTo(before + 0.12, 1);

  // What was logged pulls what the steps say; all that stands under it goes by what came of both.
  const holds = page.getByRole('region', { name: 'How well will it hold' });
  const from = holds.getByTestId('where-from');
  const reckoned = async (): Promise<number> =>
    Number(/reckoned with ([\d.]+)/.exec((await from.textContent())!)![1]);
  await expect(from).toContainText(/the newest 6 run-throughs 4\.2 ?cm: reckoned with/);
  const label = async () =>
    (await holds.getByRole('img', { name: /The spread grows/ }).getAttribute('aria-label'))!;
  expect(Number(/blind and ([\d.]+) cm/.exec(await label())![1])).toBe(await reckoned());
  const [nine] = (await holds.locator('.figure-big').allTextContents()).map(parseFloat);
  expect(nine! / (1.645 * (await reckoned()))).toBeCloseTo(1, 1);

  await panel.getByRole('button', { name: 'Log run-throughs' }).click();
  await panel.getByLabel(/Past the line/).fill('3\n-2\nfour');
  await panel.getByRole('button', { name: 'Keep it' }).click();
  await expect(panel.getByText(/Line 3:/)).toBeVisible();
  await panel.getByLabel(/Past the line/).fill('3\n-2\n4\n-5');
  await panel.getByRole('button', { name: 'Keep it' }).click();
  await expect(panel.getByText('That may be chance')).toBeVisible();
});

test('a measure deleted under a plan is told, with what moves, and one press solves anew', async ({
  signedIn: page,
}) => {
  await openAthlete(page, 'Sunniva Kehr');
  const plans = page.getByRole('region', { name: 'Plans' });
  await takeOutNewestRun(page);
  await plans.getByRole('link', { name: 'Long jump, 14 steps' }).click();
  const told = page.getByText(/The measures have changed since/);
  await expect(told).toContainText(/the start mark (moves [\d.]+ cm|stays)/);
  await page.getByRole('button', { name: 'Keep it solved anew' }).click();
  await expect(page.getByText('Long jump, 14 steps is saved')).toBeVisible();
  await expect(told).toBeHidden();
});
