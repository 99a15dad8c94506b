import { expect, goTo, test, seen } from '../src/test';

/** Runs one after the other in one club: what one adds the next one uses. */
test.describe.configure({ mode: 'serial' });

test('a coach keeps a ground; what cannot be read is said, and kept over a reload', async ({
  signedIn: page,
}) => {
  await goTo(page, '/club');
  const grounds = page.getByRole('region', { name: 'Grounds' });
  await grounds.getByRole('button', { name: 'Add a ground' }).click();
  const form = grounds.getByRole('form', { name: 'A new ground' });
  await form.getByLabel('Lanes side by side').fill('2');
  await form.getByLabel('Lane length before the target').fill('a lot');
  await form.getByLabel('Goal, between the posts').fill('2,4');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByText('Give the ground’s name.')).toBeVisible();
  await form.getByLabel('Name of the ground').fill('Old quay hall');
  await form.getByRole('button', { name: 'Add a line' }).click();
  await form.getByLabel('Called').fill('seam');
  await form.getByLabel('so far').fill('20 m');
  await form.getByRole('button', { name: 'Add a slot' }).click();
  await form.getByLabel('to', { exact: true }).fill('17:00');
  await page.reload();
  await grounds.getByRole('button', { name: 'Add a ground' }).click();
  await expect(form.getByLabel('Lane length before the target')).toHaveValue('a lot');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByText('It must end after it begins.')).toBeVisible();
  await form.getByLabel('to', { exact: true }).fill('18:15');
  await form.getByLabel('Lane length before the target').fill('22 m');
  await form.getByRole('button', { name: 'Save' }).click();
  const row = grounds.getByRole('listitem').filter({ hasText: 'Old quay hall' });
  await expect(row).toContainText('2 lanes of 22.00 m, goal 2.40 m, seam 20.00 m from the board');
  await expect(form).toBeHidden();
});

test('the library, a plan, its sheet and its drawing go by the ground that is chosen', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/goal-arc');
  const marks = page.getByRole('region', { name: 'To set out' });
  const drawing = page.locator('svg.plan-view').first();
  const feet = (): Promise<string | null> =>
    drawing.locator('.plan-track').first().getAttribute('points');
  const before = await feet();
  await page.getByLabel('Ground', { exact: true }).selectOption({ label: 'Old quay hall' });
  await expect.poll(feet).not.toBe(before);
  await page.getByRole('link', { name: 'Plan it' }).click();
  await expect(page.getByLabel('Ground')).toHaveValue(/^[0-9a-f-]{36}$/);
  await expect(page.getByText('Goal of Old quay hall: 2.40m')).toBeVisible();
  await expect(page.getByText('Hall floor: swept and dry')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page).toHaveURL(/approaches\/[0-9a-f-]{36}/);
  const plan = page.url();

  // Changed at the club, the plan stays as it was until the coach takes it anew.
  await goTo(page, '/club');
  const row = page.getByRole('listitem').filter({ hasText: 'Old quay hall' });
  await row.getByRole('button', { name: 'Change' }).click();
  await page.getByLabel('Goal, between the posts').fill('5');
  await page.getByLabel('Goal, between the posts').press('Enter');
  await expect(row).toContainText('goal 5.00 m');
  await page.goto(plan);
  await expect(page.getByText('Goal of Old quay hall: 2.40m')).toBeVisible();
  const wasDrawn = await feet();
  const wasSet = await marks.textContent();
  await page.getByRole('button', { name: 'Take it as it is now' }).click();
  await expect(page.getByText('Goal of Old quay hall: 5.00m')).toBeVisible();
  await expect.poll(feet).not.toBe(wasDrawn);
  expect(await marks.textContent()).not.toBe(wasSet);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('is saved, solved for')).toBeVisible();
});

test('a run-up beyond the lane is said, with the count that fits; its marks are told from the lines', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new?movement=straight-run-up');
  await page.getByLabel('Athlete', { exact: true }).selectOption({ label: 'Mirela Dussault' });
  await page.getByLabel('Ground', { exact: true }).selectOption({ label: 'Old quay hall' });
  await page.getByLabel('Steps', { exact: true }).fill('14');
  const note = page.getByRole('alert').filter({ hasText: 'The lane of Old quay hall ends' });
  await expect(note).toContainText('22.00 m');
  await expect(page.locator('svg.strip .beyond-lane')).toBeVisible();
  await note.getByRole('button', { name: /steps fit$/ }).click();
  await expect(note).toBeHidden();
  const fits = Number(await page.getByLabel('Steps', { exact: true }).inputValue());
  expect(fits).toBeLessThan(14);
  await expect(page.locator('svg.strip').first()).toContainText('seam');
  await expect(page.getByRole('region', { name: 'Setting out' })).toContainText(
    /[01]\.\d\dm (behind|in front of) the seam/,
  );
  await page.getByLabel('Target').selectOption('take-off spot');
  await expect(page.locator('svg.strip').first()).not.toContainText('seam');
});

test('a session on a ground takes its lanes, slot and surface; elsewhere it has a place to write', async ({
  signedIn: page,
}) => {
  await goTo(page, '/sessions');
  const card = page.locator('.session-card', { hasText: 'Harbour hall, 18:00–19:45' }).last();
  await card.click();
  const minutes = page.getByText('Takes, in 3 lanes').locator('..');
  await expect(minutes).toBeVisible();
  const inThree = Number(/\d+(?=of|min)/.exec((await minutes.textContent())!)![0]);
  await page.getByRole('button', { name: 'change day, name, ground' }).click();
  await page.getByLabel('Ground', { exact: true }).selectOption({ label: 'elsewhere' });
  await page.getByLabel('Place', { exact: true }).fill('Dunes');
  const alone = page.getByText('Takes', { exact: true }).locator('..');
  const inOne = Number(/\d+(?=min)/.exec((await alone.textContent())!)![0]);
  expect(inOne).toBeGreaterThan(inThree);
  await page.getByLabel('Ground', { exact: true }).selectOption({ label: 'Skerrow track' });
  await expect(page.getByText('The club does not have Skerrow track on this day.')).toBeVisible();
  await expect(page.getByText('Track: spikes only')).toHaveCount(1);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('is saved.')).toBeVisible();
  await page
    .getByRole('main')
    .getByRole('link', { name: /^(Run|Resume)$/ })
    .click();
  await seen(page.getByText('Track: spikes only'));
});
