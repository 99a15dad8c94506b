import { expect, test, enterDemo, seen } from '../src/test';

test('an impossible ask is explained, with plans nearby that work', async ({ signedIn: page }) => {
  await page.getByRole('link', { name: 'Approaches' }).click();
  await page.getByRole('link', { name: 'Long jump, 14 steps' }).click();
  await page.getByLabel('Start', { exact: true }).selectOption('fixed');
  await page.getByLabel('Start mark, from the target').fill('30 m');
  await expect(page.getByText('That cannot be run.')).toBeVisible();
  await expect(page.getByText(/14 steps reach at most 26\.\d\d m .* too far/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Start mark at 26/ })).toBeVisible();
  await page.getByRole('button', { name: /^\d+ steps$/ }).click();
  await expect(page.getByText('That cannot be run.')).toBeHidden();
  await expect(page.getByRole('img', { name: /steps over 30\.00 m to the board/ })).toBeVisible();

  await page.getByLabel('First foot').selectOption('left');
  const wrong = page.getByText(/end on the wrong foot/);
  const right = page.getByRole('img', { name: /left foot first/ });
  await seen(wrong.or(right));
});

test('figures that nobody can mean are pointed out at their field, and stay to be mended', async ({
  signedIn: page,
}) => {
  await page.getByRole('link', { name: 'Approaches' }).click();
  await page.getByRole('link', { name: 'Triple jump, 12 steps' }).click();
  const steps = page.getByLabel('Steps', { exact: true });
  await steps.fill('400');
  await seen(page.getByText('Steps must be at most 60.'));
  await expect(steps).toHaveValue('400');
  await steps.fill('twelve');
  await seen(page.getByText('Write a number.'));
  await expect(steps).toHaveValue('twelve');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Mend the fields that are marked')).toBeVisible();
  await steps.fill('12');
  await page.getByLabel('Start', { exact: true }).selectOption('fixed');
  await page.getByLabel('Start mark, from the target').fill('3 m 2 ft');
  await expect(page.getByText('Units of one kind')).toBeVisible();
  await page.getByLabel('Ending').selectOption('short');
  await page.getByLabel('Short steps', { exact: true }).fill('15');
  await seen(page.getByText(/leave at least one before them/));
});

test('a run that shortens closes no faster than can be braked, and says how fast that is', async ({
  signedIn: page,
}) => {
  await page.getByRole('link', { name: 'Approaches' }).click();
  await page.getByRole('link', { name: 'Crease run-up, 12 steps' }).click();
  await page.getByLabel('Ending').selectOption('short');
  await expect(page.getByText(/braking at \d\.\d m\/s² on average/)).toBeVisible();
  await expect(page.getByText(/Faster could not be braked there/)).toBeVisible();
  await page.getByLabel('Speed, %').fill('25');
  await expect(page.getByText(/25 % of full/)).toBeVisible();
  await expect(page.getByText(/No step may brake harder than/)).toBeVisible();
});

test('reads in feet, yards and shoes, and the mirror swaps the feet', async ({
  signedIn: page,
}) => {
  await page.getByRole('link', { name: 'Approaches' }).click();
  await page.getByRole('link', { name: 'Long jump, 14 steps' }).click();
  const sheet = page.getByRole('region', { name: 'Setting out' });
  const unit = page.getByLabel('Write lengths in');
  await unit.selectOption('imperial');
  await seen(sheet.getByText(/^\d+′ (\d+½?|½)″/));
  await unit.selectOption('yards');
  await seen(sheet.getByText(/yd/));
  await unit.selectOption('shoes');
  await seen(sheet.getByText(/shoes/));
  await unit.selectOption('metric');
  await expect(page.getByRole('img', { name: /right foot first/ })).toBeVisible();
  await page.getByLabel('Take-off foot').selectOption('right');
  await expect(page.getByRole('img', { name: /left foot first/ })).toBeVisible();
});

test('of two tabs that change the same plan the second is told, and nothing is overwritten', async ({
  signedIn: page,
  app,
  browser,
}) => {
  await page.getByRole('link', { name: 'Approaches' }).click();
  await page.getByRole('link', { name: 'First hurdle at 13.00, 8 steps' }).click();
  await expect(page.getByLabel('Speed, %')).toHaveValue('100');
  const address = page.url();

  const elsewhere = await browser.newContext();
  const second = await elsewhere.newPage();
  await enterDemo(second, app);
  await second.goto(address);
  await second.getByLabel('May change by, %').fill('12');

  await page.getByLabel('Speed, %').fill('95');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('is saved')).toBeVisible();

  await expect(second.getByText('Somebody has saved this approach since')).toBeVisible();
  await second.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(second.getByText('Nothing was overwritten.')).toBeVisible();
  await expect(second.getByLabel('May change by, %')).toHaveValue('12');
  await second.getByRole('button', { name: 'Keep mine' }).click();
  await second.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(second.getByText('is saved')).toBeVisible();
  await elsewhere.close();
  await page.reload();
  await expect(page.getByLabel('May change by, %')).toHaveValue('12');
});

test('what was typed and not saved is back after a reload, and a lost server loses nothing', async ({
  signedIn: page,
}) => {
  await page.getByRole('link', { name: 'Approaches' }).click();
  await page.getByRole('link', { name: 'Wing run-in, 5 steps' }).click();
  await page.getByLabel('Speed, %').fill('72');
  await page.reload();
  await expect(page.getByLabel('Speed, %')).toHaveValue('72');
  await expect(page.getByText('What was typed and not saved is back.')).toBeVisible();
  await page.route('**/api/approaches/**', (route) => route.abort());
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(
    page.getByText('The server cannot be reached. What you typed is kept'),
  ).toBeVisible();
  await page.unroute('**/api/approaches/**');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('is saved')).toBeVisible();
});
