import type { Athlete } from '@gravek/contract/athlete';
import { addPlan, ask, openAthlete } from '../src/field';
import { enterDemo, expect, goTo, test, seen } from '../src/test';

/** What was found broken once, each as a coach meets it. */

test('a place that cannot be drawn takes nothing else along, and what was typed can be dropped', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/gaps');
  await page.getByRole('button', { name: 'Copy and change' }).click();
  await expect(page).toHaveURL(/\/edit$/);
  const name = page.getByLabel('Name of the movement');
  await name.fill('Gaps, typed');
  // A draft as a fault or an older version might have left it.
  await page.evaluate(() => {
    for (const [key, text] of Object.entries(localStorage)) {
      if (!key.includes('movement.')) continue;
      const draft = JSON.parse(String(text)) as { movement: { phases: unknown } };
      draft.movement.phases = null;
      localStorage.setItem(key, JSON.stringify(draft));
    }
  });
  await page.reload();
  await expect(page.getByText('This page could not be shown.')).toBeVisible();
  await page.getByRole('link', { name: 'Athletes' }).click();
  await expect(page.getByRole('heading', { name: 'Athletes' })).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: 'Drop what was typed here' }).click();
  await expect(name).toHaveValue(/ours$/);
});

test('what was typed before the forms changed is still there, and is not put over what came since', async ({
  signedIn: page,
}) => {
  await openAthlete(page, 'Odran Vask');
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  const form = page.getByRole('dialog', { name: 'Change Odran Vask' });
  await form.getByLabel('Squad').fill('Typed last week');
  await form.getByLabel('Positions').fill('keeper, wing');
  await form.getByLabel('Height').fill('tall');
  // As it was kept then: its values alone, positions and birth year as texts, with the version that they are of.
  await page.evaluate(() => {
    for (const [key, text] of Object.entries(localStorage)) {
      if (!/draft.*athlete\.[0-9a-f-]{36}$/.test(key)) continue;
      const { value, version } = JSON.parse(String(text)) as { value: object; version: number };
      const before = { positions: 'keeper, wing', birthYear: '2004', bornOn: '' };
      localStorage.setItem(key, JSON.stringify({ ...value, ...before, version }));
    }
  });
  const path = new URL(page.url()).pathname;
  const { name, squad, hand, takeoffFoot, shoeM, heightM, legM, ...odran } = await ask<Athlete>(
    page,
    'GET',
    path,
  );
  const { birthYear, bornOn, positions, version } = odran;
  const changed = { name, squad, hand, takeoffFoot, shoeM, heightM, legM, birthYear, bornOn };
  await ask(page, 'PUT', path, { ...changed, positions: [...positions, 'relay runner'], version });
  await page.reload();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await expect(form.getByText('What was typed and not saved is back.')).toBeVisible();
  await expect(form.getByLabel('Squad')).toHaveValue('Typed last week');
  await expect(form.getByLabel('Positions')).toHaveValue('keeper,wing');
  await expect(form.getByLabel('Birth year')).toHaveValue('2004');
  // Somebody has changed him since: theirs are shown first, and mine stay until I say.
  await form.getByRole('button', { name: 'Save' }).click();
  await form.getByRole('button', { name: 'Keep mine' }).click();
  await expect(form.getByLabel('Squad')).toHaveValue('Typed last week');
  await form.getByLabel('Height').fill('tall');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByText(/^Write a length such as/)).toBeVisible();
  await form.getByLabel('Height').fill('181');
  await form.getByLabel('Birthday, if known').fill('2005-04-03');
  await expect(form.getByLabel('Birth year')).toHaveValue('2005');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Odran Vask is saved.')).toBeVisible();
  await expect(page.getByText('Typed last week')).toBeVisible();
});

test('what one person typed is not shown to the next, and goes at sign-out', async ({
  signedIn: page,
  app,
}) => {
  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill('A secret of mine');
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Open the demo club' })).toBeVisible();
  expect(await page.evaluate(() => JSON.stringify(localStorage))).not.toContain('A secret of mine');
  await enterDemo(page, app);
  await goTo(page, '/sessions/new');
  await expect(page.getByLabel('Name', { exact: true })).not.toHaveValue('A secret of mine');
});

test('a plan is of whoever it is made for: the name follows, and people come on and off by a press', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new');
  const athlete = page.getByLabel('Athlete', { exact: true });
  const name = page.getByLabel('Name of the approach');
  await athlete.selectOption({ label: 'Odran Vask' });
  await expect(name).toHaveValue('Odran’s run-up');
  await athlete.selectOption({ label: 'Ysolde Prenn' });
  await expect(name).toHaveValue('Ysolde’s run-up');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Ysolde’s run-up is saved, solved for one athlete.')).toBeVisible();
  await expect(athlete.locator('optgroup').first().locator('option')).toHaveText(['Ysolde Prenn']);

  await athlete.selectOption({ label: 'Odran Vask' });
  await page.getByRole('button', { name: 'Put Odran on this approach' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('solved for 2 athletes')).toBeVisible();
  await page.getByRole('button', { name: 'Take Odran off this approach' }).click();
  await page.getByRole('link', { name: 'Squad sheet, as saved' }).click();
  await expect(page.getByText(/holds changes that are not saved/)).toBeVisible();
  await page.getByRole('link', { name: 'Save them first' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Ysolde’s run-up is saved, solved for one athlete.')).toBeVisible();
  await expect(athlete.locator('optgroup').first().locator('option')).toHaveText(['Ysolde Prenn']);
});

test('what is chosen on a movement’s page is planned, over a draft from before', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new?movement=give-ground');
  await page.getByLabel('Name of the approach').fill('Begun before');
  await goTo(page, '/movements/give-ground');
  await page.getByLabel(/to which side his waist leaves/).selectOption({ value: 'left' });
  await page.getByRole('link', { name: 'Plan it' }).click();
  // The movement's page has the same choice; it must be gone.
  await expect(page.getByLabel('Name of the approach')).toHaveValue('Begun before');
  await expect(page.getByLabel(/to which side his waist leaves/)).toHaveValue('left');
  // What is changed after that is the draft's, also after a reload.
  await page.getByLabel(/to which side his waist leaves/).selectOption({ value: 'right' });
  await page.reload();
  await expect(page.getByLabel(/to which side his waist leaves/)).toHaveValue('right');
  await goTo(page, '/athletes');
  await page.getByRole('link', { name: 'Ysolde Prenn' }).click();
  await page.getByRole('link', { name: 'Plan a run-up' }).click();
  await expect(page.getByLabel('Name of the approach')).toHaveValue('Ysolde’s run-up');
});

test('a pinned step breaks neither the squad sheet nor the session builder', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new');
  await page.getByLabel('Athlete', { exact: true }).selectOption({ label: 'Teodric Malou' });
  await page.getByLabel('Name of the approach').fill('Pinned near the end');
  await page.getByLabel('Start', { exact: true }).selectOption('fixed');
  const last = page.getByRole('region', { name: 'Step by step' }).getByRole('textbox').last();
  await last.fill('2.00 m');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Pinned near the end is saved')).toBeVisible();
  await page.getByRole('link', { name: 'Squad sheet' }).click();
  await page.getByLabel('each their own count, within two').check();
  await expect(page.getByRole('link', { name: 'Teodric Malou' })).toBeVisible();
  await goTo(page, '/sessions/new');
  const set = await addPlan(page, 'Pinned near the end');
  await set.getByText(/\d+ others/).click();
  await set.getByRole('button', { name: /Jorun/ }).click();
  await expect(set.getByRole('button', { name: /Jorun/ })).toContainText(/m|fit/);
});

test('a height is read as people write it, and the leg is asked for where it is missing', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new?movement=give-ground');
  await page.getByLabel('Athlete', { exact: true }).selectOption({ label: 'Odran Vask' });
  await page.getByRole('link', { name: 'Measure' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Height').fill('186');
  await form.getByLabel('Leg, hip to floor').fill('97');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form).toBeHidden();
  await seen(page.getByText('1.86'));
  await seen(page.getByText('0.97'));
});

test('a late tap starts no count, an empty row is no count, and nobody runs at six a minute', async ({
  signedIn: page,
}) => {
  await goTo(page, '/athletes');
  await page.getByRole('link', { name: 'Wilma Corriveau' }).click();
  await page.getByRole('combobox', { name: 'Do a test' }).selectOption('cadence');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Seconds, row 1').fill('5');
  const tap = dialog.locator('.tap-counter');
  for (let i = 0; i < 7; i += 1) await tap.dispatchEvent('pointerdown');
  const count = dialog.getByLabel('Count of one foot, row 1');
  await expect(count).toHaveValue('7', { timeout: 12_000 });
  await tap.dispatchEvent('pointerdown');
  await expect(tap).toContainText('the first tap starts it');
  await dialog.getByRole('button', { name: 'Another count' }).click();
  await count.fill('1');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText(/Nobody runs so/)).toBeVisible();
  await count.fill('7');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toBeHidden();
});

test('steps that were typed come back when the form is closed and opened again', async ({
  signedIn: page,
}) => {
  await goTo(page, '/athletes');
  await page.getByRole('link', { name: 'Roland Quist' }).click();
  for (const [row, length] of [
    [1, '1.21'],
    [2, '1.44'],
  ] as const) {
    await page.getByRole('button', { name: 'Add a measured run' }).click();
    const form = page.getByRole('dialog');
    await form.getByLabel(`Length of step ${row}`, { exact: true }).fill(length);
    await form.locator('.modal-footer').getByRole('button', { name: 'Close' }).click();
    await expect(form).toBeHidden();
  }
  await page.reload();
  await page.getByRole('button', { name: 'Add a measured run' }).click();
  const form = page.getByRole('dialog');
  await expect(form.getByLabel('Length of step 1', { exact: true })).toHaveValue('1.21');
  await expect(form.getByLabel('Length of step 2', { exact: true })).toHaveValue('1.44');
});

test('a run along one tape without a watch is measured, and its cadence stays an estimate', async ({
  signedIn: page,
}) => {
  await goTo(page, '/athletes');
  await page.getByRole('link', { name: 'Liesel Tamm' }).click();
  const steps = page.getByLabel('Steps', { exact: true });
  await page.getByRole('button', { name: 'Add a measured run' }).click();
  const form = page.getByRole('dialog');
  const tape = ['1.02', '2.26', '3.66', '5.17', '6.76', '8.40'];
  for (const [i, length] of tape.entries()) {
    await form.getByLabel(`Length of step ${i + 1}`, { exact: true }).fill(length);
  }
  // Taken for single steps, the tape is caught.
  await expect(form.getByText(/Is it a running tape/).first()).toBeVisible();
  await form.getByRole('button', { name: 'a running tape' }).click();
  await expect(form.getByText(/taped, not timed/)).toBeVisible();
  await form.getByRole('button', { name: 'Save the run' }).click();
  await expect(form).toBeHidden();
  await page.reload();
  await expect(steps.getByText(/taped, not timed/)).toBeVisible();
  await expect(steps.getByText('Full cadence (estimate)')).toBeVisible();
  await expect(steps.getByText(/6 steps, tape only/)).toBeVisible();
});
