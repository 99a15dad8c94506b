import type { Page } from '@playwright/test';
import { clean, PHONE, runAthletics } from '../src/field';
import { enterDemo, expect, test, seen } from '../src/test';

/** Small things that a coach does, each of which must not annoy. */

const open = async (page: Page, place: string, link: string): Promise<void> => {
  await page.getByRole('navigation').getByRole('link', { name: place }).click();
  await page.getByRole('main').getByRole('link', { name: link, exact: true }).click();
};

test('a restriction set on the page bars the run-up everywhere, until it is lifted', async ({
  signedIn: page,
}) => {
  await open(page, 'Athletes', 'Lucan Merriweather');
  const panel = page.getByRole('region', { name: 'Restrictions' });
  await panel.getByRole('button', { name: 'Add' }).click();
  await panel.getByLabel('What').selectOption('no-sprinting');
  await panel.getByLabel('Until').fill('2020-01-01');
  await panel.getByRole('button', { name: 'Restrict' }).click();
  await expect(panel.getByText('The last day is before the first.')).toBeVisible();
  await panel.getByLabel('Until').fill('2099-01-01');
  await panel.getByRole('button', { name: 'Restrict' }).click();
  await expect(panel.locator('strong', { hasText: 'no sprinting' })).toBeVisible();

  await page.getByRole('link', { name: 'Crease run-up, 12 steps' }).click();
  await expect(page.getByText(/Lucan Merriweather may not .* until 2099-01-01/)).toBeVisible();
  await page.getByRole('navigation').getByRole('link', { name: 'Today' }).click();
  await expect(
    page.getByRole('region', { name: 'Restricted' }).getByText('Lucan Merriweather'),
  ).toBeVisible();

  await open(page, 'Athletes', 'Lucan Merriweather');
  await panel.getByRole('button', { name: 'Lift' }).click();
  await expect(panel.getByText('None.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panel.locator('strong', { hasText: 'no sprinting' })).toBeVisible();
  await panel.getByRole('button', { name: 'Lift' }).click();
  await expect(panel.getByText('None.')).toBeVisible();
});

test('a run with a slip is taken out and put back, and the figures follow', async ({
  signedIn: page,
}) => {
  await open(page, 'Athletes', 'Odran Vask');
  const steps = page.getByRole('region', { name: 'Steps' });
  await expect(steps.getByText(/1 step lies far from the curve/)).toBeVisible();
  await expect(steps.getByText('step 7: check')).toHaveCount(1);
  const fits = steps.locator('.figure-big').last();
  const before = await fits.textContent();
  // All that stands above has come: what moves between press and release is not pressed.
  await expect(page.getByText(/links hold/)).toBeVisible();
  await steps.getByRole('button', { name: 'Take out' }).last().click();
  await expect(page.getByText('The run is taken out.')).toBeVisible();
  await expect(steps.getByText(/far from the curve/)).toBeHidden();
  await expect(fits).not.toHaveText(before!);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(fits).toHaveText(before!);
});

test('step counts are compared in the range asked for, and one press takes one', async ({
  signedIn: page,
}) => {
  await open(page, 'Approaches', 'Vault to the box, 12 steps');
  await page.getByLabel('Compare from').fill('6');
  await page.getByLabel('Compare to').fill('16');
  const table = page.getByRole('table', { name: 'Step counts compared' });
  await expect(table.getByRole('button')).toHaveCount(11);
  await expect(table.getByText('suggested')).toHaveCount(1);
  const wanted = await page
    .getByText('Start mark', { exact: true })
    .first()
    .locator('..')
    .locator('.figure')
    .textContent();
  await table.getByRole('button', { name: 'Plan with 8 steps' }).click();
  await expect(page.getByRole('img', { name: /^8 steps over/ })).toBeVisible();
  // It stands in its line like the others.
  const cells = table
    .getByRole('row')
    .filter({ has: page.getByRole('button', { name: 'Plan with 8 steps' }) })
    .getByRole('cell');
  const tops = await cells.evaluateAll((all) => all.map((one) => one.getBoundingClientRect().top));
  expect(new Set(tops).size).toBe(1);
  await expect(
    page.getByText('Start mark', { exact: true }).first().locator('..').locator('.figure'),
  ).not.toHaveText(wanted!);
  // What is chosen and not saved outlives a reload, and can be dropped.
  await page.reload();
  await expect(page.getByRole('img', { name: /^8 steps over/ })).toBeVisible();
  await page.getByRole('button', { name: 'Drop it' }).click();
  await expect(page.getByRole('img', { name: /^12 steps over/ })).toBeVisible();
});

test('the strip, the sheet and the head say the same mark', async ({ signedIn: page }) => {
  await open(page, 'Approaches', 'Long jump, 14 steps');
  const head = page
    .getByText('Start mark', { exact: true })
    .first()
    .locator('..')
    .locator('.figure');
  const mark = (await head.textContent())!.replace(/\s/g, '');
  const sheet = page.getByRole('region', { name: 'Setting out' });
  await expect(sheet.locator('li').last().locator('> .figure')).toHaveText(
    new RegExp(mark.replace('m', '\\s*m')),
  );
  await expect(
    page.getByRole('img', { name: new RegExp(`^14 steps over ${mark.replace('m', '')} m`) }),
  ).toBeVisible();
  const figures = await sheet.locator('li > .figure').allTextContents();
  const lengths = figures.map(parseFloat);
  expect(lengths).toEqual([...lengths].sort((a, b) => a - b));
  await page.getByLabel('Check marks').fill('2, 4, 6, 8');
  await page.getByLabel('Check marks').blur();
  await expect(sheet.locator('li')).toHaveCount(5);
  await page.getByLabel('Check marks').fill('two');
  await page.getByLabel('Check marks').blur();
  await expect(page.getByText('Write how many steps out each mark lies')).toBeVisible();
  await expect(page.getByLabel('Check marks')).toHaveValue('two');
});

test('prints the sheet without the controls', async ({ signedIn: page }) => {
  await open(page, 'Approaches', 'Long jump, 14 steps');
  await expect(page.getByRole('region', { name: 'Setting out' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Save' })).toBeHidden();
  await expect(page.getByRole('region', { name: 'Setting out' })).toBeVisible();
  await expect(page.getByRole('img', { name: /14 steps over/ })).toBeVisible();
});

test('the club’s unit is for everybody, the device’s own goes before it', async ({
  signedIn: page,
}) => {
  await page.getByRole('navigation').getByRole('link', { name: 'Club' }).click();
  const device = page.getByRole('region', { name: 'On this device' });
  await device.getByLabel('Lengths in').selectOption('yards');
  await open(page, 'Approaches', 'Long jump, 14 steps');
  await expect(page.getByRole('img', { name: /14 steps over \d+ yd/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('img', { name: /14 steps over \d+ yd/ })).toBeVisible();
  await page.getByRole('navigation').getByRole('link', { name: 'Club' }).click();
  await device.getByLabel('Lengths in').selectOption('');
  await open(page, 'Approaches', 'Long jump, 14 steps');
  await expect(page.getByRole('img', { name: /14 steps over \d+\.\d\d m/ })).toBeVisible();
});

test('a different school gives a different cue, with its reason', async ({ signedIn: page }) => {
  await page.getByRole('navigation').getByRole('link', { name: 'Club' }).click();
  const school = page.getByLabel('Which fault gets the one cue');
  await school.selectOption('most-frequent');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('The club is saved.')).toBeVisible();
  await page.getByRole('navigation').getByRole('link', { name: 'Today' }).click();
  await seen(page.getByText(/counted by how grave it is, none shows more/));
  await page.getByRole('navigation').getByRole('link', { name: 'Club' }).click();
  await school.selectOption('root-cause');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('navigation').getByRole('link', { name: 'Today' }).click();
  await seen(page.getByText(/and brings about:/));
});

test('what one coach logs is seen by another, without asking', async ({
  signedIn: page,
  app,
  browser,
}) => {
  const office = await browser.newContext();
  const second = await office.newPage();
  await enterDemo(second, app);
  const card = second.getByRole('region', { name: 'Athletics: run-ups' });
  const before = Number((await card.locator('.figure-big').textContent())!.replace(/of.*/, ''));
  await page.setViewportSize(PHONE);
  await runAthletics(page);
  await clean(page).click();
  await expect(card.locator('.figure-big')).toHaveText(new RegExp(`^${before + 1}of`));
  await page.getByRole('button', { name: /^Undo / }).click();
  await expect(card.locator('.figure-big')).toHaveText(new RegExp(`^${before}of`));
  await office.close();
});

test('signing out asks first while reps wait, and keeps them', async ({ signedIn: page }) => {
  await runAthletics(page);
  await page.route('**/api/reps', (route) => route.abort());
  await page.getByRole('button', { name: 'Skip' }).click();
  await expect(page.getByRole('button', { name: 'Send now' })).toContainText(
    '1 rep waiting to send',
  );
  await page.getByRole('link', { name: 'Leave' }).click();
  let asked = '';
  page.once('dialog', (dialog) => {
    asked = dialog.message();
    void dialog.dismiss();
  });
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect.poll(() => asked).toContain('One rep waits to be sent');
  await expect(page.getByRole('heading', { name: 'Run', exact: true })).toBeVisible();
  await page.unroute('**/api/reps');
});
