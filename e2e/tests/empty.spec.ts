import { test as base, expect } from '@playwright/test';
import { startApp, type App } from '../src/app';
import { invite, join, PASSWORD } from '../src/people';

const test = base.extend<object, { empty: App }>({
  empty: [
    async ({}, use) => {
      const app = await startApp('empty');
      await use(app);
      await app.remove();
    },
    { scope: 'worker', timeout: 180_000 },
  ],
});

test('an empty Gravek makes its first club, says what to do next, and holds an assistant back', async ({
  page,
  empty,
  browser,
}) => {
  await page.goto(empty.address);
  await expect(page.getByRole('button', { name: 'Open the demo club' })).toBeHidden();
  await page.getByLabel('Club').fill('Tarn Valley');
  await page.getByLabel('Your name').fill('Edda Brook');
  await page.getByLabel('E-mail').fill('edda');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Make the club' }).click();
  await expect(page.getByText('That is not an e-mail address.')).toBeVisible();
  await expect(page.getByText('A password needs at least 10 characters.')).toBeVisible();
  await page.getByLabel('E-mail').fill('edda@tarn.invalid');
  await page.getByLabel('Password').fill('long enough for Edda');
  await page.getByRole('button', { name: 'Make the club' }).click();

  await expect(page.getByText('Nothing is planned for today.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
  for (const [place, line] of [
    ['Athletes', 'No athletes yet.'],
    ['Approaches', 'No approach yet.'],
    ['Run', 'No session around today.'],
    ['Faults', 'No reps yet.'],
  ] as const) {
    await page.getByRole('navigation').getByRole('link', { name: place }).click();
    await expect(page.getByText(line)).toBeVisible();
  }
  await page.goto(`${empty.address}/approaches/new`);
  await expect(page.getByText('A plan needs an athlete.')).toBeVisible();

  await page.getByRole('navigation').getByRole('link', { name: 'Club' }).click();
  await page.getByLabel('Lengths in').first().selectOption('imperial');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('The club is saved.')).toBeVisible();
  const link = await invite(page, 'Nils Farrow', 'nils@tarn.invalid');

  const nils = await join(browser, link);
  await nils.getByRole('button', { name: 'Sign out' }).click();
  await nils.getByLabel('E-mail').fill('nils@tarn.invalid');
  await nils.getByLabel('Password').fill('not his password');
  await nils.getByRole('button', { name: 'Sign in' }).click();
  await expect(nils.getByText('do not go together')).toBeVisible();
  await nils.getByLabel('Password').fill(PASSWORD);
  await nils.getByRole('button', { name: 'Sign in' }).click();
  await expect(nils.getByText('Nothing is planned for today.')).toBeVisible();
  await nils.getByRole('link', { name: 'Athletes' }).click();
  await expect(nils.getByText('No athletes yet.')).toBeVisible();
  await expect(nils.getByRole('button', { name: 'Add athlete' })).toBeHidden();

  await test.step('and all of it is there after a restart', async () => {
    await empty.stop();
    await empty.start();
    await page.reload();
    await expect(page.getByRole('heading', { level: 1, name: 'Tarn Valley' })).toBeVisible();
  });
});

test('who never saw it is led from an empty club to a first logged rep, in few presses', async ({
  page,
  empty,
}) => {
  let presses = 0;
  await page.goto(empty.address);
  const make = page.getByRole('button', { name: 'Make the club' });
  const enter = page.getByRole('button', { name: 'Sign in' });
  await expect(make.or(enter)).toBeVisible();
  // By itself it makes the club that the test before it leaves.
  const isNew = await make.isVisible();
  if (isNew) {
    await page.getByLabel('Club').fill('Tarn Valley');
    await page.getByLabel('Your name').fill('Edda Brook');
  }
  await page.getByLabel('E-mail').fill('edda@tarn.invalid');
  await page.getByLabel('Password').fill('long enough for Edda');
  await (isNew ? make : enter).click();
  presses += 1;
  const guide = page.getByRole('region', { name: 'First steps' });
  const next = guide.getByRole('link');
  await expect(next).toHaveText('Add athletes');
  await next.click();
  presses += 1;
  await page
    .getByLabel('One athlete a line')
    .fill('Name, squad\nAda Reed, Wings, left, 1.74\nJon Vale, Keepers\n, Keepers\nAda Reed');
  await expect(page.getByText('There is no name at its beginning.')).toBeVisible();
  await expect(page.getByText('This name stands in the list before.')).toBeVisible();
  const lines = page.getByRole('list', { name: 'What becomes of each line' });
  await expect(lines).toContainText('Ada Reed, Wings, left-handed, takes off right, 5′ 8½″');
  await page.getByRole('button', { name: 'Add 2 athletes' }).click();
  presses += 1;
  await expect(page.getByText('2 athletes are in the club.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Ada Reed/ })).toContainText('Wings');

  const today = page.getByRole('navigation').getByRole('link', { name: 'Today' });
  await today.click();
  presses += 1;
  await expect(next).toHaveText('Measure');
  await guide.getByRole('button', { name: 'Skip this' }).click();
  presses += 1;
  await expect(next).toHaveText('Plan');
  await next.click();
  presses += 1;
  await page.getByRole('button', { name: 'Save' }).click();
  presses += 1;
  await expect(page.getByText(/is saved/)).toBeVisible();
  await today.click();
  presses += 1;
  await expect(next).toHaveText('Make a session');
  await next.click();
  presses += 1;
  await page.getByRole('button', { name: 'Save and run' }).click();
  presses += 1;
  await page.getByRole('button', { name: /^Clean/ }).click();
  presses += 1;
  await expect(page.locator('.rep-no')).toContainText(/^2/);
  expect(presses).toBeLessThanOrEqual(12);
  await page.getByRole('link', { name: 'Leave' }).click();
  await expect(page.getByRole('button', { name: 'More' }).or(today).first()).toBeVisible();
  await expect(guide).toBeHidden();
});
