import { addPlan, ask } from '../src/field';
import { betweenTaps, enterDemo, expect, goTo, test } from '../src/test';

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
  await set.getByRole('group', { name: 'Sides' }).getByRole('button', { pressed: false }).click();
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
  await goTo(page, '/sessions/new');
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

test('a session is copied to another day and carried to one, each with a way back', async ({
  signedIn: page,
}) => {
  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill('Carried about');
  await page.getByLabel('Day').fill('2031-09-03');
  await addPlan(page, 'Crease run-up, 12 steps');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Carried about is saved.')).toBeVisible();
  const first = page.url();
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.getByRole('button', { name: 'to Fri 5 Sep 2031' }).click();
  await expect(page.getByText('Carried about is copied to Fri 5 Sep 2031.')).toBeVisible();
  await expect(page).not.toHaveURL(first);
  await expect(page.getByText(/^Fri 5 Sep 2031/)).toBeVisible();
  // A copy is a session of its own: what is changed in it stays there.
  await page.getByRole('button', { name: 'Crease run-up, 12 steps', exact: true }).click();
  await page.getByLabel('Reps of each').fill('9');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Carried about is saved.')).toBeVisible();
  await page.goto(first);
  await expect(page.getByText('4 reps', { exact: true })).toBeVisible();

  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.getByRole('button', { name: 'every week, 2 more' }).click();
  await expect(page.getByText('Carried about is planned for 2 weeks more.')).toBeVisible();
  await page
    .locator('.toast-line', { hasText: 'is planned for 2 weeks more' })
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(page.getByText('The copies are put away.')).toBeVisible();
});

test('in the week a session is carried to another day, and back', async ({ signedIn: page }) => {
  // Not every week after this one has a session already.
  const { today } = await ask<{ today: string }>(page, 'GET', '/me');
  const title = 'Carried across';
  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill(title);
  await page
    .getByLabel('Day')
    .fill(new Date(Date.parse(today) + 7 * 86_400_000).toISOString().slice(0, 10));
  await addPlan(page, 'Crease run-up, 12 steps');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(`${title} is saved.`)).toBeVisible();
  await goTo(page, '/sessions');
  await page.getByRole('button', { name: 'Week after' }).click();
  const grip = page.getByRole('button', { name: `Move ${title} to another day` });
  const day = page.locator('.week-day', { has: grip });
  const from = (await day.getAttribute('aria-label'))!;
  const free = page.locator('.week-day', { hasNot: page.locator('.session-card') }).first();
  const to = (await free.getAttribute('aria-label'))!;
  const [a, b] = [(await grip.boundingBox())!, (await free.boundingBox())!];
  await page.mouse.move(a.x + a.width / 2, a.y + a.height / 2);
  await page.mouse.down();
  await page.mouse.move(a.x + 30, a.y + 30, { steps: 5 });
  await page.mouse.move(b.x + b.width / 2, b.y + 80, { steps: 10 });
  await page.mouse.up();
  await expect(page.getByText(`${title} is on ${to}.`)).toBeVisible();
  const there = page.getByRole('region', { name: to });
  await expect(there.getByRole('link', { name: new RegExp(title) })).toBeVisible();
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(
    page.getByRole('region', { name: from }).getByRole('link', { name: new RegExp(title) }),
  ).toBeVisible();
});
