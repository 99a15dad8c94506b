import type { Locator, Page } from '@playwright/test';
import type { StoredRep } from '@gravek/contract/session';
import { addSet, logOf, PHONE, tap, up } from '../src/field';
import { expect, goTo, LONG, test } from '../src/test';

/**
 * Whole journeys: a set is planned in the builder, run with a thumb, and its log says what it was. Those that
 * follow a call at its own speed are long.
 */

/** A new session of its own day. */
const plan = async (page: Page, name: string): Promise<void> => {
  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Day').fill('2031-07-01');
};

/** Presses what of an axis is to be on. */
const axis = async (set: Locator, label: string, on: readonly string[]): Promise<void> => {
  const group = set.getByRole('group', { name: label, exact: true });
  for (const name of on) await group.getByRole('button', { name, exact: true }).click();
};

/** Puts athletes on a set by their first names. */
const put = async (page: Page, set: Locator, names: readonly string[]): Promise<void> => {
  const clear = set.getByRole('button', { name: 'take all off' });
  if (await clear.isVisible()) await clear.click();
  const others = set.locator('details', { has: page.locator('.pick') });
  if ((await others.count()) > 0 && (await others.getAttribute('open')) === null) {
    await others.locator('summary').click();
  }
  for (const name of names) {
    await set
      .locator('.picks')
      .getByRole('button', { name: new RegExp(`^${name} `) })
      .click();
  }
};

const run = async (page: Page): Promise<string> => {
  await page.getByRole('button', { name: 'Save and run' }).click();
  await expect(page).toHaveURL(/\/run\//);
  await page.setViewportSize(PHONE);
  return page.url().split('/').at(-1)!;
};

/** The side of a drill set that is not pressed yet. */
const otherSide = (set: Locator) =>
  set.getByRole('group', { name: 'Sides', exact: true }).getByRole('button', { pressed: false });

/** Nothing of the screen goes beyond it, and what answers stands on it. */
const inSight = async (page: Page, ...names: (string | RegExp)[]): Promise<void> => {
  for (const name of names) {
    const box = (await page.getByRole('button', { name }).first().boundingBox())!;
    expect(box.y + box.height).toBeLessThanOrEqual(PHONE.height);
    expect(box.x + box.width).toBeLessThanOrEqual(PHONE.width);
  }
};

const of = (rows: readonly StoredRep[], variant: string): StoredRep[] =>
  rows.filter((row) => row.variant === variant);

test('line player: four makes of three moves with two endings on both sides, on after seven tries', async ({
  signedIn: page,
}) => {
  await plan(page, 'Turns of the line player');
  const set = await addSet(page, 'Jab, cross over: two-foot stop', /plan$/);
  await axis(set, 'Moves', ['Jab, straight', 'Jab, cross over', 'Hesitation']);
  await axis(set, 'Endings', ['Near side', 'Two-foot stop']);
  await otherSide(set).click();
  await set.getByLabel('Until').selectOption('makes');
  await set.getByLabel('Makes').fill('4');
  await set.getByLabel('On after tries').fill('7');
  await set.getByLabel('Rounds').fill('1');
  await put(page, set, ['Tomaz']);
  await expect(page.getByText('3 moves × 2 endings × both sides: 12')).toBeVisible();
  await expect(page.getByText('4 makes of each, on after 7')).toBeVisible();
  // One combination is struck out and put back.
  await set.locator('summary', { hasText: '12 combinations' }).click();
  await set.locator('.combos').getByRole('checkbox').first().uncheck();
  await expect(page.getByText('3 moves × 2 endings × both sides: 11')).toBeVisible();
  await set.locator('.combos').getByRole('checkbox').first().check();
  const session = await run(page);

  const made = page.getByRole('button', { name: /^Made/ });
  const missed = page.getByRole('button', { name: /^Missed/ });
  await inSight(page, /^Made/, /^Missed/, 'Undo', 'Pain');
  await expect(page.locator('.run-what')).toContainText('near side');
  const no = page.locator('.rep-no');
  // Four makes: on to the next list.
  for (let n = 0; n < 4; n += 1) {
    await expect(no).toContainText(`${n}of 4 made`);
    await tap(page, made);
  }
  await expect(no).toContainText('0of 4 made');
  // Seven tries with three makes, the last undone once: on all the same.
  for (let n = 0; n < 7; n += 1) {
    await expect(no).toContainText(`try ${n + 1} of 7`);
    await tap(page, n % 3 === 0 ? made : missed);
  }
  await expect(no).toContainText('try 1 of 7');
  await page.getByRole('button', { name: 'Undo Tomaz' }).click();
  await expect(no).toContainText('try 7 of 7');
  await tap(page, missed);
  await expect(no).toContainText('try 1 of 7');

  await expect(page.getByText('all sent')).toBeVisible();
  const rows = (await logOf(page, session)).filter((row) => row.outcome !== 'void');
  expect(rows.filter((row) => row.made).length).toBe(4 + 3);
  expect(new Set(rows.map((row) => row.movement))).toEqual(new Set(['jab-straight--near-side']));
  expect(rows.every((row) => row.variant === 'move=jab-straight end=near-side')).toBe(true);
  expect(new Set(rows.map((row) => row.side))).toEqual(new Set(['own', 'other']));
  expect(rows.every((row) => row.load!.contacts > 0)).toBe(true);
});

test(
  'keeper: five lanes each way on calls, which way was taken and how late',
  LONG,
  async ({ signedIn: page }) => {
    await plan(page, 'Keeper on calls');
    const set = await addSet(page, 'Goal-arc shuffle and wide move', /movement$/);
    await put(page, set, ['Jorun']);
    await otherSide(set).click();
    await set.getByLabel('Rounds').fill('1');
    await set.getByLabel('Reps of each').fill('5');
    await set.getByLabel('Called', { exact: true }).selectOption('reads');
    const session = await run(page);
    await expect(up(page)).toHaveText('Jorun');
    const ways = page.getByRole('group', { name: 'Which way was taken' }).getByRole('button');
    const names = await ways.allInnerTexts();
    expect(names.length).toBeGreaterThan(1);
    await inSight(page, /^Call:/, 'Pain');
    for (let n = 1; n <= 10; n += 1) {
      await page.getByRole('button', { name: /^Call:/ }).click();
      // The called way is shown large, for who cannot hear.
      const word = page.locator('.call-word');
      await expect
        .poll(async () => names.includes(await word.innerText()), { timeout: 8_000 })
        .toBe(true);
      const called = await word.innerText();
      await tap(
        page,
        ways.filter({ hasText: n === 3 ? names.find((name) => name !== called)! : called }).first(),
      );
      if (n === 3) await tap(page, page.getByRole('button', { name: 'Log the wrong answer' }));
      if (n < 10)
        await expect(page.locator('.rep-no')).toContainText(`${n < 5 ? n + 1 : n - 4}of 5`);
    }
    await expect(up(page)).toHaveText('Drill set done');
    await expect(page.getByText('all sent')).toBeVisible();
    const rows = await logOf(page, session);
    expect(rows).toHaveLength(10);
    expect(rows.filter((row) => row.taken !== row.exit)).toHaveLength(1);
    const [wrong] = rows.filter((row) => row.taken !== row.exit);
    expect(wrong).toMatchObject({ outcome: 'fault', right: false, faults: ['wrong-way-shot'] });
    // A tap of more than three seconds says nothing of how soon.
    for (const { lateS } of rows) expect(lateS === null || (lateS > 0 && lateS <= 3)).toBe(true);
  },
);

test(
  'a row of twelve on uneven called steps, both lead feet, quarter, half and full',
  LONG,
  async ({ signedIn: page }) => {
    await plan(page, 'A row on call');
    const set = await addSet(page, 'Wall switches, four and hold', /plan$/);
    await axis(set, 'Lead foot', ['left first', 'right first']);
    await axis(set, 'Speed', ['a quarter', 'half']);
    await set.getByLabel('They stand').selectOption('row');
    await set.getByLabel('Called', { exact: true }).selectOption('steps');
    await set.getByLabel('Steps', { exact: true }).fill('3');
    await set.getByLabel('Wait, least s').fill('0.2');
    await set.getByLabel('most s').fill('0.4');
    await set.getByLabel('freeze and check').check();
    await set.getByLabel('Rounds').fill('1');
    await set.getByLabel('Reps of each').fill('1');
    await put(page, set, [
      ...['Bram', 'Anouk', 'Dario', 'Kaia', 'Evander', 'Maelle'],
      ...['Roland', 'Tomaz', 'Wilma', 'Jorun', 'Petra', 'Odran'],
    ]);
    const session = await run(page);
    const keys = page.getByRole('group', { name: 'As they stand' }).getByRole('button');
    await expect(keys).toHaveCount(12);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(
      /left foot first, a quarter speed/i,
    );
    await inSight(page, 'Call', 'Pain', 'Bram', 'Odran');
    await page.getByRole('button', { name: 'Call', exact: true }).click();
    await expect(page.locator('.call-word')).toHaveText(/left|right/);
    await expect(page.locator('.call-word')).toHaveText('hold');
    // Three neighbours are to be watched; whoever else shows something is tapped too.
    const atOnce = page.getByLabel('How many you watch at a call');
    await expect(atOnce.locator('option:checked')).toHaveText('these three');
    await expect(page.locator('.row-watched')).toHaveText([
      'Bramwatch',
      'Anoukwatch',
      'Dariowatch',
    ]);
    await keys.filter({ hasText: 'Dario' }).click();
    const shown = (name: string) => page.getByRole('group', { name: `What ${name} showed` });
    await shown('Dario').getByRole('button').first().click();
    await keys.filter({ hasText: 'Roland' }).click();
    // What is not among the likeliest is found by a word.
    await shown('Roland').getByRole('button', { name: 'Other' }).click();
    await page.getByRole('searchbox', { name: 'Search the faults' }).fill('zip');
    await expect(
      shown('Roland').getByRole('button', { name: 'Hips behind the line' }),
    ).toBeVisible();
    await shown('Roland').getByRole('button', { name: 'Hips behind the line' }).click();
    const next = page.getByRole('button', { name: /^Next call/ });
    await expect(next).toContainText(
      '2 clean, 1 with a fault, 1 more tapped; next: Kaia, Evander, Maelle',
    );
    await next.click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(
      /right foot first, a quarter/i,
    );
    // The next call has begun by itself.
    await expect(page.locator('.call-bar[data-running]')).toBeVisible();
    await expect(page.locator('.call-word')).toHaveText('hold');
    await page.getByRole('button', { name: 'Undo' }).click();
    // One press was one row: all twelve are taken back, and what was tapped is tapped again.
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/left foot first, a quarter/i);
    await expect(keys.filter({ hasText: 'Roland' })).toContainText('Hips behind the line');
    await expect(page.locator('.row-key')).toHaveText([
      /^Bram/,
      /^Anouk/,
      /^Dario/,
      /^Kaia/,
      /^Evander/,
      /^Maelle/,
      /^Roland/,
      /^Tomaz/,
      /^Wilma/,
      /^Jorun/,
      /^Petra/,
      /^Odran/,
    ]);
    for (let n = 0; n < 6; n += 1) {
      const log = page.getByRole('button', { name: /^(Next call|All clean|Log)/ });
      await expect(log).toBeEnabled();
      await tap(page, log);
    }
    await expect(up(page)).toHaveText('Drill set done');
    await expect(page.getByText('all sent')).toBeVisible();
    const rows = await logOf(page, session);
    const gone = new Set(rows.flatMap((row) => row.voids ?? []));
    const stand = rows.filter((row) => row.outcome !== 'void' && !gone.has(row.id));
    expect(gone.size).toBe(12);
    expect(stand).toHaveLength(72);
    // Three were watched at each of six calls, nobody less often than once.
    const watched = stand.filter((row) => row.watched).map((row) => row.athleteId);
    expect(watched).toHaveLength(18);
    expect(new Set(watched).size).toBe(12);
    for (const pace of ['', ' pace=0.5', ' pace=0.25']) {
      for (const foot of ['left', 'right'] as const) {
        const these = of(stand, `lead=${foot}${pace}`);
        expect(these).toHaveLength(12);
        expect(these.every((row) => row.leadFoot === foot)).toBe(true);
      }
    }
  },
);

test('pairs at three paces, roles changing, an odd one in, a late one, one who is hurt', async ({
  signedIn: page,
}) => {
  await plan(page, 'Pairs');
  const set = await addSet(page, 'Close and shorten at half', /plan$/);
  await set.getByLabel('They stand').selectOption('pairs');
  await set.getByLabel('The other is').selectOption('opponent');
  await set.getByLabel('Own paces apart').selectOption('3');
  await set.getByLabel('Rounds').fill('1');
  await set.getByLabel('Reps of each').fill('2');
  await put(page, set, ['Bram', 'Anouk', 'Dario', 'Kaia', 'Tomaz']);
  const session = await run(page);
  await expect(page.getByText('3 own paces apart')).toBeVisible();
  const keys = page.getByRole('group', { name: 'As they stand' }).getByRole('button');
  await expect(keys).toHaveCount(2);
  await expect(keys.first()).toContainText('opponent:');
  await expect(page.getByText(/^waits: /)).toBeVisible();
  const performed: string[] = [];
  const together = async (): Promise<void> => {
    for (const text of await keys.allInnerTexts()) performed.push(text.split('\n')[0]!);
    await tap(page, page.getByRole('button', { name: 'All clean' }));
  };
  await together();
  await expect(keys.first()).not.toContainText(new RegExp(`^${performed[0]}`));
  await together();
  // Who is left of the five goes alone; then somebody comes late.
  await expect(up(page)).toHaveText('Tomaz');
  await page.getByRole('button', { name: 'Tomaz', exact: true }).click();
  await page.getByLabel('Somebody comes late').selectOption({ label: 'Evander Stroud' });
  await expect(page.getByRole('list', { name: 'Everybody of this drill set' })).toContainText(
    'Evander',
  );
  await page.getByRole('button', { name: 'Back to the turn' }).click();
  // The late one is at the end of the row, and in it at once.
  await expect(keys.filter({ hasText: 'Evander' })).toBeVisible();
  await together();
  await expect.poll(() => keys.count()).toBe(3);
  await page.getByRole('button', { name: 'Pain' }).click();
  await keys.filter({ hasText: /^Bram/ }).click();
  await expect(
    page.getByText('Bram Solheide was stopped by pain; nothing until cleared.'),
  ).toBeVisible();
  while ((await keys.count()) > 0) await together();
  while ((await up(page).innerText()) !== 'Drill set done') {
    await tap(page, page.getByRole('button', { name: 'Clean' }));
  }
  await expect(page.getByText('all sent')).toBeVisible();
  const rows = await logOf(page, session);
  const ran = rows.filter((row) => row.outcome === 'clean');
  const often = new Map<string, number>();
  for (const { athleteId } of ran) often.set(athleteId, (often.get(athleteId) ?? 0) + 1);
  // Five did both reps, Bram one.
  expect([...often.values()].sort()).toEqual([1, 2, 2, 2, 2, 2]);
  expect(rows.filter((row) => row.outcome === 'in')).toHaveLength(1);
  expect(rows.filter((row) => row.outcome === 'pain')).toHaveLength(1);
  await page.getByRole('link', { name: 'Finish' }).click();
});

test(
  'slides: eight slow, eight fast, four rounds, the last the fastest',
  LONG,
  async ({ signedIn: page }) => {
    await plan(page, 'Slides');
    const set = await addSet(page, 'Slide and close out', /movement$/);
    await put(page, set, ['Kaia', 'Tomaz']);
    await axis(set, 'Speed', ['half']);
    await set.getByLabel('They stand').selectOption('row');
    await set.getByLabel('Rounds').fill('4');
    await set.getByLabel('Reps of each').fill('8');
    await expect(page.getByText('half, full', { exact: true })).toBeVisible();
    const session = await run(page);
    const head = page.getByRole('heading', { level: 1 });
    for (let round = 1; round <= 4; round += 1) {
      for (let n = 1; n <= 16; n += 1) {
        await expect(page.locator('.rep-no')).toContainText(`${n <= 8 ? n : n - 8}of 8`);
        await expect(page.locator('.rep-no')).toContainText(`set ${round} of 4`);
        if (n <= 8) await expect(head).toHaveText(/half speed/i);
        await tap(page, page.getByRole('button', { name: 'All clean' }));
      }
    }
    await expect(up(page)).toHaveText('Drill set done');
    await expect(page.getByText('all sent')).toBeVisible();
    const rows = await logOf(page, session);
    expect(rows).toHaveLength(2 * 16 * 4);
    const speeds = rows
      .filter((row) => row.athleteId === rows[0]!.athleteId)
      .map((row) => row.speedPct!);
    for (let round = 0; round < 4; round += 1) {
      const own = speeds.slice(16 * round, 16 * round + 16);
      expect(own).toEqual([...own].sort((a, b) => a - b));
      expect(own.at(-1)).toBe(Math.max(...own));
    }
  },
);
