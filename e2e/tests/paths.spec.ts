import type { Locator, Page } from '@playwright/test';
import { expect, goTo, test } from '../src/test';

const planOf = async (page: Page, movement: string): Promise<void> => {
  await goTo(page, `/approaches/new?movement=${movement}`);
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
};

const figure = async (panel: Locator, label: string): Promise<number> => {
  const block = panel
    .locator('.figures-row > div')
    .filter({ has: panel.page().getByText(label, { exact: true }) });
  return parseFloat((await block.locator('.figure').textContent())!);
};

const slide = async (panel: Locator, label: string, value: string): Promise<void> => {
  await panel.getByRole('slider', { name: label }).fill(value);
};

test('the curve: radius, lean and both tapes follow, too tight and off the apron are said, and all is kept', async ({
  signedIn: page,
}) => {
  await planOf(page, 'curved-run-up');
  const panel = page.getByRole('region', { name: 'The curve' });
  const radius = await figure(panel, 'Radius');
  await slide(panel, 'Take-off angle to the bar', '40');
  await expect.poll(() => figure(panel, 'Radius')).toBeGreaterThan(radius * 1.2);
  await slide(panel, 'Curve steps', '3');
  await slide(panel, 'Take-off angle to the bar', '10');
  await expect(panel.getByText(/asks for a lean of \d+° and a grip of/)).toBeVisible();
  await slide(panel, 'Curve steps', '5');
  await slide(panel, 'Take-off angle to the bar', '24');
  await panel.getByLabel('the apron ends').check();
  await panel.getByLabel('out from the bar at').fill('9 m');
  await expect(panel.getByText(/Off the apron: start mark, step 1/)).toBeVisible();
  // Two tapes and the distance between the uprights make the spot by the rule of cosines.
  const row = await panel
    .getByRole('row', { name: /^Take-off/ })
    .getByRole('cell')
    .allTextContents();
  const [near, far, beside, out] = row.slice(1).map((text) => parseFloat(text.replace('−', '-')));
  expect(Math.hypot(beside!, out!)).toBeCloseTo(near!, 1);
  expect(Math.hypot(beside! + 4, out!)).toBeCloseTo(far!, 1);
  await page.getByLabel('Name of the approach').fill('Bar with apron');
  await page.getByRole('button', { name: 'Save', exact: true }).first().click();
  await expect(page.getByText('Bar with apron is saved')).toBeVisible();
  await page.reload();
  await expect(panel.getByText(/Off the apron/)).toBeVisible();
});

test('giving ground: deeper stays in front longer, a faster runner is past sooner, and what helps is one press', async ({
  signedIn: page,
}) => {
  await planOf(page, 'give-ground');
  const panel = page.getByRole('region', { name: 'In front of the runner' });
  const inFront = async (): Promise<number> =>
    parseFloat(
      await panel
        .getByRole('row', { name: /In front of full speed/ })
        .getByRole('cell')
        .first()
        .innerText(),
    );
  await slide(panel, 'Head to head at', '1.6');
  const near = await inFront();
  await slide(panel, 'Head to head at', '2.4');
  await expect.poll(inFront).toBeGreaterThan(near);
  const far = await inFront();
  await slide(panel, 'Runner’s top speed', '10');
  await expect.poll(inFront).toBeLessThan(far);
  // Opening at once helps most, and becomes the way of teaching.
  await panel.getByRole('button', { name: 'Take over: open the hips at once' }).click();
  await expect(
    panel.getByRole('columnheader', { name: /hips open at once \(drawn\)/ }),
  ).toBeVisible();
  await expect(page.getByText('Slide right')).toHaveCount(0);
});

test('the keeper’s arc: on angle sooner or set sooner, raced', async ({ signedIn: page }) => {
  await planOf(page, 'goal-arc');
  const panel = page.getByRole('region', { name: 'Lanes and the wide move' });
  const straight = await figure(panel, 'Straight: on angle and set');
  expect(await figure(panel, 'Angle first: on angle')).toBeLessThan(straight);
  expect(await figure(panel, 'set')).toBeGreaterThan(straight);
  await slide(panel, 'Speed', '1');
  await panel.getByRole('button', { name: 'Race them' }).click();
  await expect(panel.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(panel.getByRole('button', { name: 'Race them' })).toBeVisible();
});

test('take-offs at the bar are logged, and move the marks once that is no chance', async ({
  signedIn: page,
}) => {
  await planOf(page, 'curved-run-up');
  const panel = page.getByRole('region', { name: 'Take-offs' });
  await expect(panel.getByText(/None yet/)).toBeVisible();
  await panel.getByRole('button', { name: 'Log take-offs' }).click();
  const list = panel.getByLabel('Inside the upright / out from the bar, one run a line');
  await list.fill('0.6 / 0.6\n0.62');
  await panel.getByRole('button', { name: 'Keep it' }).click();
  await expect(panel.getByText(/Line 2: write two lengths/)).toBeVisible();
  await expect(list).toHaveValue('0.6 / 0.6\n0.62');
  await list.fill('0.6 / 0.6\n0.6 / 0.62\n0.6/0.58\n0.6/0.61\n0.6/0.6\n0.6/0.59');
  await panel.getByRole('button', { name: 'Keep it' }).click();
  await expect(panel).toContainText(/6 runs of .*nearer to the bar/);
  await expect(panel).toContainText(/Move the start and the mark of the curve .*away from the bar/);
});

test('a cadence raised over weeks warns above ten percent and saves its beat', async ({
  signedIn: page,
}) => {
  await planOf(page, 'steady-cadence');
  const panel = page.getByRole('region', { name: 'Cadence over the weeks' });
  await slide(panel, 'Baseline', '160');
  await slide(panel, 'Raised by', '12');
  await expect(panel.getByText(/12 % is more than runners take on/)).toBeVisible();
  await slide(panel, 'Raised by', '5');
  await expect(panel.getByText(/more than runners/)).toBeHidden();
  expect(await figure(panel, 'After 6 weeks')).toBe(168);
  await panel.getByLabel('Week that is drawn and sounded').selectOption('6');
  await panel.getByLabel('Minutes of the beat').selectOption('1');
  const coming = page.waitForEvent('download');
  await panel.getByRole('button', { name: 'Save as notes' }).click();
  expect((await coming).suggestedFilename()).toBe('cadence-168-1-min.mid');
  // An easy day has a count and a beat of its own.
  await expect(panel.getByText(/Nobody has counted on an easy day yet/)).toBeVisible();
  await page.getByLabel('Athlete', { exact: true }).selectOption('Mirela Dussault');
  await expect(panel.getByText(/Easy days, counted .*156/)).toBeVisible();
  await panel.getByLabel('beat of an easy day: 164').check();
  const easy = page.waitForEvent('download');
  await panel.getByRole('button', { name: 'Save as notes' }).click();
  expect((await easy).suggestedFilename()).toBe('cadence-164-1-min.mid');
});
