import { addPlan } from '../src/field';
import { betweenTaps, enterDemo, expect, test } from '../src/test';

test('a session without athletes is pointed out; what was typed stays', async ({
  signedIn: page,
}) => {
  await page.getByRole('link', { name: 'Sessions' }).click();
  await page.getByRole('link', { name: 'Plan a session' }).click();
  await page.getByLabel('Name').fill('Short one');
  const set = await addPlan(page, 'Crease run-up, 12 steps');
  for (const name of [
    'Harlan Dewsbury',
    'Imogen Castellane',
    'Lucan Merriweather',
    'Saskia Oyelaran',
  ]) {
    await set.getByRole('button', { name }).click();
  }
  await set.getByLabel('Reps of each').fill('9000');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(set.getByText('Choose at least one athlete.')).toBeVisible();
  await expect(set.getByText('Reps must be at most 50.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Name')).toHaveValue('Short one');
  await set.getByText(/\d+ others/).click();
  await set.getByRole('button', { name: 'Harlan Dewsbury' }).click();
  await set.getByLabel('Reps of each').fill('3');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Short one is saved.')).toBeVisible();
  await set.getByRole('button', { name: 'Take out' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(set).toBeVisible();
});

test('an athlete archived in mid session is passed over, with a word, and keeps the reps', async ({
  signedIn: page,
  app,
  browser,
}) => {
  await page.getByRole('link', { name: 'Sessions' }).click();
  await page.getByRole('link', { name: 'Plan a session' }).click();
  await page.getByLabel('Name').fill('Two bowlers');
  const set = await addPlan(page, 'Crease run-up, 12 steps');
  for (const name of ['Imogen Castellane', 'Saskia Oyelaran']) {
    await set.getByRole('button', { name }).click();
  }
  await set.getByRole('group', { name: 'Sides' }).getByRole('button').nth(1).click();
  await set.getByLabel('Rounds').fill('1');
  await set.getByLabel('Reps of each').fill('1');
  await page.getByRole('button', { name: 'Save and run' }).click();
  const up = page.getByRole('heading', { level: 1 });
  await expect(up).toHaveText('Harlan');
  await page.getByRole('button', { name: 'Clean' }).click();
  await expect(up).toHaveText('Lucan');
  await betweenTaps(page);
  await page.getByRole('button', { name: 'Clean' }).click();
  await expect(up).toHaveText('Harlan');
  await expect(page.getByText('take off right')).toBeVisible();

  const office = await browser.newContext();
  const second = await office.newPage();
  await enterDemo(second, app);
  await second.getByRole('link', { name: 'Athletes' }).click();
  await second
    .getByRole('row', { name: /Harlan Dewsbury/ })
    .getByRole('link')
    .click();
  await second.getByRole('button', { name: 'More' }).click();
  await second.getByRole('button', { name: 'Archive' }).click();
  await expect(second.getByText('Harlan Dewsbury is archived.')).toBeVisible();

  await expect(up).toHaveText('Lucan');
  await expect(page.getByText('Harlan Dewsbury was archived and is passed over.')).toBeVisible();
  await page.getByRole('button', { name: 'Clean' }).click();
  await expect(up).toHaveText('Drill set done');
  await expect(page.getByText('1 clean of 1')).toBeVisible();
  await expect(page.getByText('2 clean of 2')).toBeVisible();
  await second.getByRole('button', { name: 'More' }).click();
  await second.getByRole('button', { name: 'Bring back' }).click();
  await office.close();
});

test('a squad or a position goes on a set at once, but nobody who may not run it', async ({
  signedIn: page,
}) => {
  await page.goto(new URL('/sessions/new', page.url()).toString());
  const set = await addPlan(page, 'Long jump, 14 steps');
  const picked = set.locator('.picks .pick[aria-pressed=true]');
  const before = await picked.count();
  const groups = set.getByLabel('Put a squad or position on it');
  const option = groups.getByRole('option', { name: /^Handball, \d+ more$/ });
  const more = Number(/\d+/.exec((await option.textContent())!)![0]);
  expect(more).toBeGreaterThan(5);
  await groups.selectOption({ label: (await option.textContent())! });
  await expect(picked).toHaveCount(before + more);
  await expect(option).toHaveCount(0);
  await expect(set.locator('.picks .pick.barred[aria-pressed=true]')).toHaveCount(0);
});
