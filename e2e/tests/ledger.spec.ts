import type { Page } from '@playwright/test';
import type { SquadFaults } from '@gravek/contract/faults';
import { axeFinds } from '../src/axe';
import { PHONE, takeOutNewestRun } from '../src/field';
import { expect, goTo, test, seen } from '../src/test';

/** Cues in force, the ledger that tells whether they work, and the squad by who needs the coach most. */

const squadOf = (page: Page): Promise<SquadFaults> =>
  page.evaluate(async () => (await fetch('/api/faults')).json() as Promise<SquadFaults>);

/** What the reasons and the figures of a cue are folded behind. */
const WHY = /% likely to be helping|^Why this one$/;

const open = (page: Page, path: string): Promise<unknown> => goTo(page, path);

test('a cue is changed with its reason, is the one on Faults too, and goes back to the figures', async ({
  signedIn: page,
}) => {
  const { items } = await squadOf(page);
  const { athleteId, cue } = items.find((item) => item.cue !== null)!;
  await open(page, `/athletes/${athleteId}`);
  const name = (await page.getByRole('heading', { level: 1 }).textContent())!;
  const faults = page.getByRole('region', { name: 'Faults' });
  await faults.getByLabel('Movement').selectOption('Straight run-up');
  const words = faults.locator('.cue-words');
  const before = (await words.textContent())!;
  await faults.getByText(WHY).click();
  await expect(faults.getByText(cue!.since ? /Given since/ : /begins with/)).toBeVisible();

  await faults.getByRole('button', { name: 'Another cue' }).click();
  const form = faults.getByRole('form', { name: 'Another cue' });
  await form.getByLabel('Cue').selectOption({ index: 2 });
  await form.getByRole('button', { name: 'Take this cue' }).click();
  await expect(form.getByText('Say why this cue and no other')).toBeVisible();
  await form.getByLabel('Why').fill('the arms come first for her');
  await form.getByRole('button', { name: 'Take this cue' }).click();
  await expect(form).toBeHidden();
  await expect(words).not.toHaveText(before);
  const after = (await words.textContent())!;
  await expect(
    faults.getByText('Chosen by Runa Telford: the arms come first for her'),
  ).toBeVisible();
  await expect(faults.getByText('New: it begins with the next session.')).toBeVisible();

  // It survives a reload, and no screen shows another one.
  await page.reload();
  await faults.getByLabel('Movement').selectOption('Straight run-up');
  await expect(words).toHaveText(after);
  await open(page, '/faults');
  const row = page.getByRole('row', { name: new RegExp(name) });
  await expect(row).toContainText(after);
  await expect(row).toContainText('(chosen)');

  await row.getByRole('link').click();
  await faults.getByLabel('Movement').selectOption('Straight run-up');
  await faults.getByRole('button', { name: 'Let the figures choose' }).click();
  await expect(words).toHaveText(before);
  await expect(faults.getByRole('button', { name: 'Let the figures choose' })).toBeHidden();
});

test('the ledger says session by session what showed, what decided, and of which reps', async ({
  signedIn: page,
}) => {
  const { items } = await squadOf(page);
  const { athleteId } = items.find((item) => item.faults.some((fault) => fault.state === 'back'))!;
  await open(page, `/athletes/${athleteId}`);
  const faults = page.getByRole('region', { name: 'Faults' });
  const table = faults.getByRole('table');
  await expect(table).toBeVisible();
  // Who has run nothing else has nothing to choose from.
  const movement = faults.getByLabel('Movement');
  if (await movement.isVisible()) await movement.selectOption('Straight run-up');
  // More than one may have come back.
  const back = table.getByRole('row').filter({ hasText: 'back' }).first();
  await expect(back).toBeVisible();
  await back.getByRole('button').click();
  await expect(
    faults.getByText(/^It had cleared, and shows again: \d+ % of \d+ reps/),
  ).toBeVisible();
  await expect(faults.getByRole('img', { name: /of reps, between/ })).toBeVisible();

  const reps = table.getByRole('row').last();
  const all = (await reps.textContent())!;
  await faults.getByLabel('In the set').selectOption('true');
  await expect(reps).not.toHaveText(all);
  await expect(faults.getByText('how a fault stands is judged over all of them')).toBeVisible();
  await faults.getByLabel('In the set').selectOption('');
  await expect(reps).toHaveText(all);
  expect(await axeFinds(page, { within: '[aria-label=Faults]' })).toEqual([]);
});

test('what several share becomes a drill of the next session for all of them, and is taken out again', async ({
  signedIn: page,
}) => {
  await open(page, '/faults');
  const shared = page.getByRole('region', { name: 'What most share' });
  const first = shared.getByRole('listitem').first();
  await expect(first.getByRole('button', { name: /^Into / })).toBeVisible();
  const many = Number(/, (\d+) of \d+/.exec((await first.textContent())!)![1]);
  const drill = /Together: (.+?)Into/.exec((await first.textContent())!)![1]!;
  const sets = () =>
    page.evaluate(async () => {
      const day = new Date().toISOString().slice(0, 10);
      const later = new Date(Date.now() + 21 * 864e5).toISOString().slice(0, 10);
      const answer = await fetch(`/api/sessions?from=${day}&to=${later}`);
      const { items: list } = (await answer.json()) as {
        items: { drillSets: { id: string; work: { kind: string }; athleteIds: string[] }[] }[];
      };
      return list.flatMap((one) => one.drillSets.filter(({ work }) => work.kind === 'movement'));
    });
  const before = await sets();
  await first.getByRole('button', { name: /^Into / }).click();
  const said = page.getByText(new RegExp(`^${drill}.* is added to`));
  await expect(said).toBeVisible();
  const out = Number(/without (\d+)/.exec((await said.textContent())!)?.[1] ?? 0);
  const added = (await sets()).filter(({ id }) => before.every((one) => one.id !== id));
  expect(added).toHaveLength(1);
  expect(added[0]!.athleteIds).toHaveLength(many - out);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('It is taken out again.')).toBeVisible();
  expect(await sets()).toEqual(before);
});

test('on a phone the squad is one line an athlete, worst first, without going sideways', async ({
  signedIn: page,
}) => {
  await page.setViewportSize(PHONE);
  await open(page, '/faults');
  const lines = page.locator('.squad-lines > li');
  await seen(lines);
  const { scroll, room } = await page.evaluate(() => ({
    scroll: document.documentElement.scrollWidth,
    room: document.documentElement.clientWidth,
  }));
  expect(scroll).toBeLessThanOrEqual(room);
  const rates = (await lines.locator('.figure').allTextContents()).map(Number);
  expect(rates[0]!).toBeGreaterThan(rates.at(-1)!);
  await lines.first().getByRole('link').click();
  await expect(page.getByRole('region', { name: 'Faults' }).getByText('The one cue')).toBeVisible();
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(room);
});

test('a link that the reps show and the chain does not is put into a copy of the club’s own, once', async ({
  signedIn: page,
}) => {
  await open(page, '/faults');
  const causes = page.getByRole('region', { name: 'What brings about what' });
  await expect(
    causes.getByText(/^Held against 3,\d+ reps of the club’s last year: /),
  ).toBeVisible();
  await expect(
    causes.getByText(/^Looks for the mark seems to bring about foot over the line/),
  ).toBeVisible();
  await causes.getByRole('button', { name: /^Looks for the mark/ }).click();
  await seen(causes.getByText(/in \d+ % of reps with the first/));
  expect(await axeFinds(page, { within: '[aria-label="What brings about what"]' })).toEqual([]);
  await causes.getByRole('button', { name: 'Put it into a copy of our own' }).click();
  await expect(page.getByRole('heading', { name: 'Straight run-up, ours' })).toBeVisible();
  await page
    .getByRole('region', { name: 'What goes wrong' })
    .getByRole('button', { name: /^Looks for the mark/ })
    .click();
  await expect(page.getByText(/Brings about:.*foot over the line/)).toBeVisible();
  await open(page, '/faults');
  await expect(causes.getByText('Straight run-up, ours has it so already.')).toBeVisible();
});

test('a rung is set with its reason, takes the drills along, and the rule decides again', async ({
  signedIn: page,
}) => {
  const { items } = await squadOf(page);
  const { athleteId } = items.find((item) => item.cue !== null)!;
  await open(page, `/athletes/${athleteId}`);
  const faults = page.getByRole('region', { name: 'Faults' });
  await faults.getByLabel('Movement').selectOption('Straight run-up');
  const ladder = faults.getByRole('region', { name: 'Ladder' });
  // What is shown of the movement before goes while the other comes.
  await expect(async () => {
    await ladder.getByRole('button', { name: /Set a rung|Another rung/ }).click();
    await ladder.getByLabel('Rung', { exact: true }).selectOption('walk', { timeout: 2_000 });
  }).toPass();
  await ladder.getByRole('button', { name: 'Take this rung' }).click();
  await expect(ladder.getByText('Say why this rung')).toBeVisible();
  await ladder.getByLabel('Why').fill('sore shins');
  await ladder.getByRole('button', { name: 'Take this rung' }).click();
  await expect(ladder.getByText(/^Rung: walk\..*Runa Telford chose it.*sore shins/)).toBeVisible();
  await page.reload();
  await faults.getByLabel('Movement').selectOption('Straight run-up');
  await expect(ladder.getByText(/^Rung: walk\./)).toBeVisible();
  await ladder.getByRole('button', { name: 'Let the rule decide' }).click();
  await expect(ladder.getByRole('button', { name: 'Let the rule decide' })).toBeHidden();
});

test('Today says whether what was cleared stays away, and which plans are of measures that changed', async ({
  signedIn: page,
}) => {
  await open(page, '/');
  const due = page.getByRole('region', { name: 'Due' });
  await expect(due.getByText('Does it stay away?')).toBeVisible();
  await expect(due.getByText('Measure', { exact: true })).toBeVisible();
  const outdated = page.getByRole('region', { name: 'Plans out of date' });
  await expect(outdated).toBeHidden();
  await open(page, '/athletes');
  await page.getByRole('link', { name: 'Sunniva Kehr', exact: true }).click();
  await takeOutNewestRun(page);
  await open(page, '/');
  await seen(outdated.getByText('Sunniva Kehr'));
  await outdated.getByRole('link').first().click();
  await expect(page.getByText(/The measures have changed since/)).toBeVisible();
});

test('Today, the card and the field screen tell the same cue of a session', async ({
  signedIn: page,
}) => {
  await open(page, '/');
  const cues = page.getByRole('region', { name: 'One cue each' }).getByRole('listitem');
  await seen(cues);
  const told = new Map<string, string>();
  for (const line of await cues.all()) {
    const [name] = (await line.getByRole('link').textContent())!.split(' ');
    told.set(name!, (await line.locator('.cue-line').textContent())!);
  }
  // Some days have a session of handball as well.
  const athletics = page.getByRole('region', { name: /^Athletics/ });
  await athletics.getByRole('link', { name: 'Change the session' }).click();
  await page.getByRole('link', { name: 'Card' }).click();
  const card = page.getByRole('region', { name: 'Card' });
  await seen(card.getByRole('listitem'));
  const onCard = await card.getByRole('listitem').allTextContents();
  expect(onCard.length).toBeGreaterThan(3);
  for (const line of onCard) expect(line).toContain(told.get(line.split(' ')[0]!)!);
  await open(page, '/');
  await athletics.getByRole('link', { name: 'Run' }).click();
  const words = page.locator('.run .cue-words').first();
  await expect(words).toBeVisible();
  const up = (await page.getByRole('heading', { level: 1 }).textContent())!;
  await expect(words).toHaveText(told.get(up)!);
});
