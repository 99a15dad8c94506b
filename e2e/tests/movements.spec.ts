import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { addPlan } from '../src/field';
import { expect, goTo, test, seen } from '../src/test';

const copyOf = async (page: Page, code: string): Promise<void> => {
  await goTo(page, `/movements/${code}`);
  await page.getByRole('button', { name: 'Copy and change' }).click();
  await expect(page.getByLabel('Name of the movement')).toBeVisible();
};

const drawing = (page: Page) => page.getByRole('img', { name: /for a usual body|from above/ });

test('what goes wrong finds the movement, the fault and its drill; the drawing plays phase by phase', async ({
  signedIn: page,
}) => {
  await page.getByRole('link', { name: 'Movements' }).click();
  await page.getByLabel('Find a movement').fill('stops dead before the short steps');
  const first = page.getByRole('main').getByRole('listitem').first();
  await expect(first.getByRole('link', { name: 'Close and shorten' })).toBeVisible();
  await seen(first.getByText(/→ drill: \w+/));
  await first.locator('.hit a').first().click();
  const cue = page.locator('.cue-card');
  await expect(cue).toContainText('Drill:');
  await page.getByRole('button', { name: 'Quarter' }).click();
  await page.getByRole('button', { name: 'Play' }).click();
  const passing = page.locator('.phase-now');
  await expect(passing).toContainText('Sprint');
  await expect(passing).toContainText(/[Ss]hort/, { timeout: 40_000 });

  await page.getByLabel('Find a movement').isHidden();
  await page.getByRole('region', { name: 'Drills' }).getByRole('button').first().click();
  await expect(page.getByRole('button', { name: 'Show the whole' })).toBeVisible();
});

test('by position and by nothing that fits', async ({ signedIn: page }) => {
  await page.getByRole('link', { name: 'Movements' }).click();
  await page.getByLabel('Position').selectOption('bar jumper');
  await expect(page.getByText('One movement')).toBeVisible();
  await page.getByLabel('Find a movement').fill('zzz');
  await expect(page.getByText('Nothing fits these words.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  // The twenty that are built in, and what copies another test has made in this club.
  await expect(page.getByText(/^(2\d|[3-9]\d) movements$/)).toBeVisible();
  await expect(page.getByLabel('Find a movement')).toHaveValue('');
});

test('a copy is changed and the drawing follows; the built-in one stays', async ({
  signedIn: page,
}) => {
  await copyOf(page, 'give-ground');
  await expect(drawing(page)).toHaveAccessibleName(/13 steps/);
  await page.getByRole('button', { name: 'Short steps back', exact: true }).click();
  const steps = page.getByLabel('Steps', { exact: true });
  await steps.fill('9');
  await expect(drawing(page)).toHaveAccessibleName(/as it stands.*18 steps/);
  await steps.fill('many');
  await seen(page.getByText('Write a number.'));
  // A length emptied is a length to mend, also after a reload; nothing is lost and nothing breaks.
  const length = page.getByLabel('Step', { exact: true });
  await length.fill('');
  await page.reload();
  await page.getByRole('button', { name: 'Short steps back 2 to mend' }).click();
  await expect(steps).toHaveValue('many');
  await expect(length).toHaveValue('');
  await expect(drawing(page)).toHaveAccessibleName(/18 steps/);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('2 things must be mended first')).toBeVisible();
  await length.fill('0.5');
  await steps.fill('8');
  await expect(drawing(page)).toHaveAccessibleName(/17 steps/);
  await page.getByLabel('Name of the movement').fill('Give ground, long');
  await page.reload();
  await expect(page.getByText('What was typed and not saved is back.')).toBeVisible();
  await expect(page.getByLabel('Name of the movement')).toHaveValue('Give ground, long');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Give ground, long' })).toBeVisible();
  await expect(drawing(page)).toHaveAccessibleName(/17 steps/);
  await goTo(page, '/movements/give-ground');
  await expect(drawing(page)).toHaveAccessibleName(/13 steps/);
});

test('what does not hang together is refused at the spot, with the reason, and can be undone', async ({
  signedIn: page,
}) => {
  await copyOf(page, 'give-ground');
  const refused = page.getByRole('alert').filter({ hasText: 'must be mended first' });

  await page.getByRole('button', { name: 'Short steps back', exact: true }).click();
  const step = page.getByLabel('Step', { exact: true });
  await step.fill('40');
  await seen(page.getByText(/Step of 40 × shoe cannot be/));
  await expect(page.getByRole('button', { name: /^Phases 1 to mend$/ })).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(refused).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/cannot be/)).toBeHidden();

  for (let i = 0; i < 3; i += 1)
    await page.getByRole('button', { name: 'Take out' }).first().click();
  await seen(page.getByText(/A read without exits leads nowhere/));
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByText(/A read with/)).toBeHidden();

  await page.getByRole('button', { name: 'Stamp', exact: true }).click();
  await page.getByLabel('Goes on with').selectOption('nothing: it ends here');
  await seen(page.getByText('Short steps back is never reached'));
  await page.getByRole('button', { name: 'Undo' }).click();

  await page.getByRole('button', { name: /^Faults/ }).click();
  await page.getByRole('button', { name: 'Turns too soon', exact: true }).first().click();
  await page
    .getByRole('group', { name: 'Brings about' })
    .getByRole('button', { name: 'Lines up too near or too far', exact: true })
    .click();
  await seen(page.getByText(/cause each other in a circle: .* → /));
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(refused).toBeVisible();
});

test('a movement goes out as a file and comes in again; broken files change nothing', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/wall-switches');
  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const text = await readFile(await (await coming).path(), 'utf8');
  const file = JSON.parse(text) as {
    version: number;
    movement: { name: string; phases: object[] };
  };
  await page.getByRole('link', { name: 'Movements' }).click();
  await expect(page.getByText(/^\d+ movements$/)).toBeVisible();
  const count = await page.getByText(/^\d+ movements$/).textContent();
  const send = (what: string): Promise<void> =>
    page.getByLabel('Movement file').setInputFiles({
      name: 'movement.json',
      mimeType: 'application/json',
      buffer: Buffer.from(what),
    });
  const problem = page.getByRole('alert');
  await send(text.slice(0, 500));
  await expect(problem).toContainText('cannot be read as JSON');
  await send(JSON.stringify({ ...file, version: 99 }));
  await expect(problem).toContainText('made by a newer Gravek');
  await send(text + ' '.repeat(500_000));
  await expect(problem).toContainText('too large');
  await send(JSON.stringify({ ...file, movement: { ...file.movement, phases: [] } }));
  await expect(problem).toContainText('at least one phase');
  await expect(page.getByText(count!)).toBeVisible();
  await send(
    JSON.stringify({ ...file, movement: { ...file.movement, name: 'Wall, from a file' } }),
  );
  await expect(page.getByRole('heading', { name: 'Wall, from a file' })).toBeVisible();
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByText('Wall, from a file is put away.')).toBeVisible();
  await expect(page.getByText(count!)).toBeVisible();
});

test('a newer built-in is offered to a copy, never forced', async ({ signedIn: page }) => {
  await copyOf(page, 'gaps');
  await page.getByLabel('Name of the movement').fill('Our gaps');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Our gaps' })).toBeVisible();
  await expect(page.getByText('has changed since')).toBeHidden();
  // As if the copy had been made of an older Gravek.
  await page.route('**/api/movements', async (route) => {
    try {
      // A connection that lay idle may just have been closed.
      const answer = await route.fetch({ maxRetries: 2 });
      const body = (await answer.json()) as { items?: { basedOn: { revision: number } | null }[] };
      for (const one of body.items ?? []) if (one.basedOn) one.basedOn.revision -= 1;
      await route.fulfill({ response: answer, json: body });
    } catch {
      // The page that asked is gone, or asks again.
      await route.abort().catch(() => undefined);
    }
  });
  await page.reload();
  await expect(page.getByText('has changed since this copy was made')).toBeVisible();
  await page.getByRole('button', { name: 'Keep ours' }).click();
  await expect(page.getByText('Yours stays as it is.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Our gaps' })).toBeVisible();
});

test('any movement becomes a plan for a left-hander, a session, and faults on the field screen', async ({
  signedIn: page,
}) => {
  await goTo(page, '/athletes');
  await page.getByRole('link', { name: 'Anouk Ferrand' }).click();
  await seen(page.getByText(/left/i));
  const athlete = page.url().split('/').at(-1)!;
  await goTo(page, `/approaches/new?movement=gather-right-left&athlete=${athlete}`);
  await expect(page.getByRole('link', { name: 'Gather left-right' })).toBeVisible();
  await expect(page.getByText('drawn for the left hand')).toBeVisible();
  await page.getByLabel('Name of the approach').fill('Anouk gathers');
  await page.getByLabel('Speed, % of full').fill('300');
  await expect(page.getByText('Between 20 and 110 %.')).toBeVisible();
  await page.getByLabel('Speed, % of full').fill('70');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Anouk gathers is saved')).toBeVisible();

  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill('Gathering');
  // Not among the sessions of today, which other tests add to.
  await page.getByLabel('Day').fill('2031-05-01');
  const set = await addPlan(page, 'Anouk gathers');
  await set.getByLabel('Rounds').fill('1');
  await set.getByLabel('Reps of each').fill('2');
  await page.getByRole('button', { name: 'Save and run' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Anouk');
  await page.getByRole('button', { name: 'Other', exact: true }).click();
  // Faults is open before the server has the rep, and nothing tells the page of changes.
  const shown = page.waitForResponse((answer) => answer.url().includes('/api/faults'));
  await page.route('**/api/changes', (route) => route.abort());
  await page.route('**/api/reps', async (route) => {
    await shown;
    await route.continue().catch(() => {
      // The page that asked is gone: it sends again from where it is now.
    });
  });
  await page.getByRole('group', { name: 'Faults seen' }).getByRole('button').first().click();
  await page.getByRole('button', { name: 'Log the fault' }).click();
  // It is on the phone once the next rep is up; nobody leaves before they see that.
  await expect(page.locator('.rep-no')).toContainText(/^2/);
  await goTo(page, '/faults');
  await page.getByLabel('Movement').selectOption('Gather right-left');
  await expect(page.getByRole('row', { name: /Anouk Ferrand/ })).toBeVisible();
});

test('a club adds step rules of its own, and a plan is held to them', async ({
  signedIn: page,
}) => {
  await goTo(page, '/club');
  const rules = page.getByRole('region', { name: 'Step rules' });
  await rules.getByRole('button', { name: 'Add a rule set' }).click();
  await rules.getByRole('button', { name: 'Save' }).click();
  await expect(rules.getByText('Give the rule set’s name.')).toBeVisible();
  await rules.getByLabel('Name of the rule set').fill('Our hall rules');
  await rules.getByLabel('Rule', { exact: true }).selectOption('most-steps');
  await rules.getByLabel('Steps to the take-off').fill('99');
  await rules.getByRole('button', { name: 'Save' }).click();
  await expect(rules.getByText('Steps to the take-off must be at most 60.')).toBeVisible();
  await rules.getByLabel('Steps to the take-off').fill('3');
  await rules.getByRole('button', { name: 'Save' }).click();
  await expect(rules.getByText('at most 3 steps to the take-off.')).toBeVisible();
  await goTo(page, '/approaches/new?movement=four-step-approach');
  await page.getByRole('combobox', { name: 'Step rules' }).selectOption('Our hall rules');
  await expect(page.getByText(/Step 4 .*3 steps/)).toBeVisible();
  await page.getByLabel('Name of the approach').fill('Too many steps');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Too many steps is saved')).toBeVisible();
  await goTo(page, '/sessions/new');
  await addPlan(page, 'Too many steps');
  await expect(page.getByText(/Our hall rules: .*Step 4 .*3 steps/)).toBeVisible();
});

test('an athlete’s restriction bars the movements it is about, with the reason', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/block-jump');
  await expect(page.getByRole('region', { name: 'Not for' })).toContainText(/may not jump/);
  await goTo(page, '/movements/steady-cadence');
  await expect(drawing(page)).toBeVisible();
  await expect(page.getByText(/may not jump/)).toBeHidden();
});

test('an assistant looks at movements and changes none; a copy survives the server going away', async ({
  page,
  app,
}) => {
  await page.goto(app.address);
  await page.getByRole('button', { name: 'Open the demo club' }).click();
  await expect(page.getByRole('link', { name: 'Movements' })).toBeVisible();
  await copyOf(page, 'wall-switches');
  const editor = page.url();
  await page.getByLabel('Name of the movement').fill('Wall, while away');
  await app.stop();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(
    page.getByText(/The server cannot be reached. What you typed is kept/),
  ).toBeVisible();
  await app.start();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Wall, while away' })).toBeVisible();

  await page.route('**/api/me', async (route) => {
    const answer = await route.fetch({ maxRetries: 2 });
    await route.fulfill({
      response: answer,
      json: { ...((await answer.json()) as object), role: 'assistant' },
    });
  });
  await page.goto(editor);
  await expect(page.getByText('Assistants do not change movements.')).toBeVisible();
  await page.getByRole('link', { name: 'All movements' }).click();
  await expect(page.getByRole('button', { name: 'Read in a file' })).toBeHidden();
});

test('faults, drills, schools and what stands around are edited, moved, taken out and brought back', async ({
  signedIn: page,
}) => {
  await copyOf(page, 'gaps');
  await page.getByLabel('Name of the movement').fill('Gaps, all edited');
  const part = (name: RegExp) =>
    page.getByRole('group', { name: 'What to change' }).getByRole('button', { name });
  await part(/^Faults/).click();
  await page.getByRole('button', { name: 'Add a fault' }).click();
  await expect(page.getByRole('button', { name: /^Faults 3 to mend$/ })).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Looks at the feet');
  await page.getByLabel('What is seen').fill('Head goes down at the first gap.');
  await page.getByLabel('Cue').fill('Eyes on the far cone');
  await page.getByRole('button', { name: 'Move Looks at the feet up' }).click();
  await expect(page.getByText(/to mend/)).toBeHidden();

  await part(/^Drills/).click();
  await page.getByRole('button', { name: 'Add a drill' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Far cone walk');
  await page.getByLabel('How it goes').fill('Walk the gaps and read the number on the far cone.');
  await page.getByLabel('Part', { exact: true }).selectOption('the last steps');
  await page.getByLabel('How many').fill('3');

  await part(/^Around it/).click();
  await page.getByRole('button', { name: 'Add a thing' }).click();
  await page.getByLabel('Name', { exact: true }).fill('far cone');
  await page.getByLabel('Ahead', { exact: true }).fill('4 m');
  await seen(page.getByText('far cone'));

  await part(/^Schools/).click();
  await page.getByRole('button', { name: 'Add a disagreement' }).click();
  await seen(page.getByText(/to mend/));
  await page.getByRole('button', { name: 'Take this disagreement out' }).click();
  await expect(page.getByText(/to mend/)).toBeHidden();
  await part(/^About/).click();
  await page.getByLabel('Mind').fill('Dry ground only.\nSpikes off.');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Gaps, all edited' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Mind' })).toContainText('Spikes off.');
  await expect(page.getByRole('button', { name: /^Looks at the feet, severity 2/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Drills' })).toContainText('The last 3 steps');
  await page.getByRole('link', { name: 'Movements' }).click();
  await page.getByLabel('Find a movement').fill('head goes down first gap');
  await expect(page.getByRole('link', { name: 'Gaps, all edited' })).toBeVisible();
});
