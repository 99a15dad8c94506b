import type { Page } from '@playwright/test';
import { expect, test, seen } from '../src/test';

// It opens without a network too.
test.use({ serviceWorkers: 'allow' });

const PHONE = { width: 390, height: 844 };
const STEPS = [
  [1.2, 0.29],
  [1.47, 0.274],
  [1.68, 0.262],
  [1.82, 0.255],
  [1.93, 0.25],
  [2.01, 0.247],
  [2.07, 0.244],
  [2.12, 0.243],
  [2.15, 0.242],
  [2.17, 0.241],
];

const paste = async (page: Page, label: string, text: string): Promise<void> => {
  await page.getByLabel(label, { exact: true }).evaluate((field, pasted) => {
    const data = new DataTransfer();
    data.setData('text', pasted);
    field.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);
};

/** What the server holds of a session, asked with the browser's own cookie. */
const storedReps = async (
  page: Page,
  sessionId: string,
): Promise<{ id: string; outcome: string }[]> => {
  const answer = await page.request.get(
    `${new URL(page.url()).origin}/api/sessions/${sessionId}/reps`,
  );
  return ((await answer.json()) as { items: { id: string; outcome: string }[] }).items;
};

test('a coach measures, plans, runs a session with the server gone, and sees the faults', async ({
  signedIn: page,
  app,
}) => {
  const context = page.context();
  await test.step('adds a left-footed athlete; a slip loses nothing', async () => {
    await page.getByRole('link', { name: 'Athletes' }).click();
    await page.getByRole('button', { name: 'Add athlete' }).click();
    const form = page.getByRole('dialog');
    await form.getByLabel('Name').fill('Tove Hallam');
    await form.getByLabel('Squad').fill('Athletics');
    await form.getByLabel('Height').fill('17.4 m');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(form.getByText('The height must be at most 2.3 m.')).toBeVisible();
    await expect(form.getByLabel('Name')).toHaveValue('Tove Hallam');
    await page.reload();
    await page.getByRole('button', { name: 'Add athlete' }).click();
    await expect(form.getByLabel('Name')).toHaveValue('Tove Hallam');
    await form.getByLabel('Height').fill(`5' 8 1/2"`);
    await form.getByLabel('Take-off foot').selectOption('right');
    await form.getByLabel('Dominant hand').selectOption('left');
    await form.getByLabel('Shoe, heel to toe').fill('25.5');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Tove Hallam' })).toBeVisible();
    await seen(page.getByText('1.74'));
    await seen(page.getByText('estimate'));
  });

  await test.step('pastes a measured run, with a slip that is pointed out', async () => {
    await page.getByRole('button', { name: 'Add a measured run' }).click();
    const form = page.getByRole('dialog');
    await paste(page, 'Length of step 1', 'far too long '.repeat(4000) + '\n1\t2');
    await expect(form.getByText('far too much for one run')).toBeVisible();
    await paste(page, 'Length of step 1', STEPS.map((row) => row.join('\t')).join('\n'));
    await expect(form.getByLabel('Length of step 10')).toHaveValue('2.17');
    await expect(form.getByText('Full step')).toBeVisible();
    await form.getByLabel('Length of step 4').fill('9');
    await expect(form.getByText('9 is no step that anybody makes')).toBeVisible();
    await form.getByRole('button', { name: 'Save the run' }).click();
    await expect(form).toBeVisible();
    await form.getByLabel('Length of step 4').fill('1,82 m');
    await form.getByRole('button', { name: 'Save the run' }).click();
    await expect(form).toBeHidden();
    await expect(page.getByText('10 steps, counted by another')).toBeVisible();
  });

  await test.step('plans a run-up that takes off from the right foot', async () => {
    await page
      .getByRole('region', { name: 'Plans' })
      .getByRole('link', { name: 'Plan a run-up' })
      .click();
    await expect(page.getByLabel('Athlete')).toHaveValue(/.+/);
    await page.getByLabel('Name of the approach').fill('Tove, eleven steps');
    await page.getByLabel('Steps', { exact: true }).fill('11');
    await expect(
      page.getByRole('img', { name: /11 steps over .* right foot first/ }),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('is saved, solved for one athlete')).toBeVisible();
  });

  let sessionId = '';
  await test.step('puts it in a session with two others', async () => {
    const add = page.getByRole('button', { name: 'Add to today’s session' });
    await add.click();
    await page.getByRole('button', { name: 'Athletics: run-ups' }).click();
    await expect(page.getByText('Tove, eleven steps is added to Athletics')).toBeVisible();
    await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('It is taken out again.')).toBeVisible();
    await add.click();
    await page.getByRole('link', { name: 'a new session' }).click();
    await expect(page.getByRole('region', { name: /^Drill set \d+$/ })).toHaveCount(1);
    const set = page.getByRole('region', { name: 'Drill set 1' });
    await set.getByLabel('Rounds').fill('1');
    await set.getByLabel('Reps of each').fill('3');
    await set.getByLabel('Rest, s', { exact: true }).fill('2');
    await set.getByText(/\d+ others/).click();
    await set.getByRole('button', { name: /Mirela Dussault/ }).click();
    await expect(set.getByText(/Freya Lindqvale/)).toBeVisible();
    await expect(set.getByRole('button', { name: /Freya Lindqvale/ })).toBeDisabled();
    await page.getByRole('button', { name: 'Save and run' }).click();
    await expect(page).toHaveURL(/\/run\//);
    sessionId = page.url().split('/').at(-1)!;
  });

  await page.setViewportSize(PHONE);
  const clean = page.getByRole('button', { name: 'Clean' });
  const up = page.getByRole('heading', { level: 1 });
  const waiting = page.getByRole('button', { name: 'Send now' });

  await test.step('runs it: clean, a fault, undo', async () => {
    await expect(up).toHaveText('Tove');
    await expect(page.getByText('Watch first, say nothing')).toBeVisible();
    await expect(page.getByText('right foot first')).toBeVisible();
    await clean.click();
    await expect(up).toHaveText('Mirela');
    await expect(page.getByText('Eyes past the mark')).toBeVisible();
    await page.getByRole('button', { name: 'Reaches on the last step' }).click();
    await page.getByRole('button', { name: 'Log the fault' }).click();
    await expect(up).toHaveText('Tove');
    await page.getByRole('button', { name: 'Undo Mirela' }).click();
    await expect(up).toHaveText('Mirela');
    await expect(waiting).toContainText('all sent');
    expect((await storedReps(page, sessionId)).map((rep) => rep.outcome).sort()).toEqual([
      'clean',
      'fault',
      'void',
    ]);
  });

  await test.step('goes on with the server stopped, over a reload and a lost tab', async () => {
    // The pages must be kept by the browser before the server goes.
    await page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await app.stop();
    // What was taken back is still tapped.
    await expect(page.getByRole('button', { name: 'Reaches on the last step' })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
    await page.getByRole('button', { name: 'Other' }).click();
    await page.getByRole('button', { name: 'Looks for the mark' }).click();
    await page.getByRole('button', { name: 'Log 2 faults' }).click();
    await expect(up).toHaveText('Tove');
    await expect(waiting).toContainText('offline, 1 rep waiting to send');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(up).toHaveText('Tove');
    await clean.click();
    await expect(up).toHaveText('Mirela');
    await page.reload();
    await expect(up).toHaveText('Mirela');
    await expect(waiting).toContainText('3 reps waiting to send');
    await clean.click();
    await expect(waiting).toContainText('4 reps waiting to send');
  });

  await test.step('sends everything once the server is back, and nothing twice', async () => {
    const address = page.url();
    await page.close();
    const again = await context.newPage();
    await again.setViewportSize(PHONE);
    await again.goto(address);
    await expect(again.getByRole('button', { name: 'Send now' })).toContainText(
      '4 reps waiting to send',
    );
    await app.start();
    await again.getByRole('button', { name: 'Send now' }).click();
    await expect(again.getByRole('button', { name: 'Send now' })).toContainText('all sent', {
      timeout: 30_000,
    });
    const stored = await storedReps(again, sessionId);
    expect(new Set(stored.map((rep) => rep.id)).size).toBe(stored.length);
    expect(stored.map((rep) => rep.outcome).sort()).toEqual(
      ['again', 'clean', 'clean', 'clean', 'fault', 'fault', 'void'].sort(),
    );

    await again.getByRole('button', { name: 'Clean' }).click();
    await again.getByRole('button', { name: 'Skip' }).click();
    await expect(again.getByRole('heading', { name: 'Drill set done' })).toBeVisible();
    await expect(again.getByText('3 clean of 3')).toBeVisible();
    await again.getByRole('link', { name: 'See the faults' }).click();
    await expect(again.getByRole('link', { name: 'Mirela Dussault' })).toBeVisible();

    await again.setViewportSize({ width: 1280, height: 800 });
    await again.getByRole('link', { name: 'Mirela Dussault' }).click();
    const faults = again.getByRole('region', { name: 'Faults' });
    await expect(faults.getByText('The one cue')).toBeVisible();
    await faults.getByText(/% likely to be helping|^Why this one$/).click();
    await expect(faults.getByText(/Looks for the mark shows in \d+ % of reps/)).toBeVisible();
    await faults.getByRole('button', { name: 'Reaches on the last step', exact: true }).click();
    await expect(
      faults.getByRole('img', { name: /^Reaches on the last step: \d+ % of reps, between/ }),
    ).toBeVisible();
  });
});
