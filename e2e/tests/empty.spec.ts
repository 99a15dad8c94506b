import { test as base, expect } from '@playwright/test';
import { startApp, type App } from '../src/app';

const test = base.extend<object, { empty: App }>({
  empty: [
    async ({}, use) => {
      const app = await startApp('--empty');
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
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('The club is saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Add somebody' }).click();
  await page.getByLabel('Name').last().fill('Nils Farrow');
  await page.getByLabel('E-mail').fill('nils@tarn.invalid');
  await page.getByLabel('First password').fill('long enough for Nils');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('nils@tarn.invalid')).toBeVisible();

  const other = await browser.newContext();
  const nils = await other.newPage();
  await nils.goto(empty.address);
  await nils.getByLabel('E-mail').fill('nils@tarn.invalid');
  await nils.getByLabel('Password').fill('not his password');
  await nils.getByRole('button', { name: 'Sign in' }).click();
  await expect(nils.getByText('do not go together')).toBeVisible();
  await nils.getByLabel('Password').fill('long enough for Nils');
  await nils.getByRole('button', { name: 'Sign in' }).click();
  await expect(nils.getByText('Nothing is planned for today.')).toBeVisible();
  await nils.getByRole('link', { name: 'Athletes' }).click();
  await expect(nils.getByText('No athletes yet.')).toBeVisible();
  await expect(nils.getByRole('button', { name: 'Add athlete' })).toBeHidden();
  await other.close();

  await test.step('and all of it is there after a restart', async () => {
    await empty.stop();
    await empty.start();
    await page.reload();
    await expect(page.getByRole('heading', { level: 1, name: 'Tarn Valley' })).toBeVisible();
  });
});
