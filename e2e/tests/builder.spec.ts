import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { Session } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';
import { axeFinds } from '../src/axe';
import { addSet, ask, PHONE } from '../src/field';
import { LONG, expect, goTo, test, seen } from '../src/test';

/** What the builder does by itself: chooses sets, keeps templates, prints cards, feeds calendars. */

const fresh = async (page: Page, name: string, day: string): Promise<void> => {
  await goTo(page, '/sessions/new');
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Day').fill(day);
};

const pagesOf = async (page: Page, format: 'A4' | 'Letter'): Promise<number> => {
  const pdf = await page.pdf({ format });
  return pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)?.length ?? 0;
};

test('sets are chosen for a squad within the minutes there are, with reasons, and taken back at once', async ({
  signedIn: page,
}) => {
  await fresh(page, 'Chosen', '2031-08-01');
  const panel = page.getByRole('region', { name: 'Choose for me' });
  // What a new day brings, such as who is out then, comes a moment later and moves what is pressed.
  await expect(async () => {
    await page.getByRole('button', { name: 'Choose for me' }).click();
    await expect(panel).toBeVisible({ timeout: 5_000 });
  }).toPass();
  await panel.getByLabel('For').selectOption({ label: 'Handball' });
  const chosen = panel.locator('.chosen-sets > li');
  await seen(chosen);
  await expect(panel.locator('[aria-busy=false]')).toBeVisible();
  const long = await chosen.count();
  expect(long).toBeGreaterThan(2);
  const minutesIn = async (): Promise<number> =>
    Number(/in (\d+) min/.exec((await panel.getByRole('heading').textContent())!)![1]);
  expect(await minutesIn()).toBeLessThanOrEqual(45);
  // Half typed and emptied it stays as it was, and says so.
  await panel.getByLabel('Minutes').fill('');
  await expect(panel.getByText('Write a number.')).toBeVisible();
  await panel.getByLabel('Minutes').fill('12');
  await seen(panel.getByText(/^Left out, it takes \d+ min more: /));
  await expect(panel.locator('[aria-busy=false]')).toBeVisible();
  expect(await minutesIn()).toBeLessThanOrEqual(12);
  expect(await chosen.count()).toBeLessThan(long);
  await expect(panel.getByRole('button', { name: /^Put (it|them) in$/ })).toBeEnabled();
  const few = await chosen.count();
  const names = await chosen.locator('strong').allTextContents();
  await panel.getByRole('button', { name: /^Put (it|them) in$/ }).click();
  await expect(page.locator('.set-line')).toHaveCount(few);
  await expect(page.locator('.set-name').first()).toHaveText(names[0]!);
  // What they take together is what was said.
  const takes = page.getByText(/^Takes/).locator('..');
  expect(Number(/\d+(?=min)/.exec((await takes.textContent())!)![0])).toBeLessThanOrEqual(12);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.set-line')).toHaveCount(0);
  await expect(panel).toBeHidden();
  await page.getByRole('button', { name: 'Choose for me' }).click();
  await panel.getByLabel('Minutes').fill('0');
  await expect(panel.getByText('Nothing fits into the time.')).toBeVisible();
  expect(await axeFinds(page, { within: '.choose' })).toEqual([]);
});

test('a session is kept as a template, and another begins from it with ids of its own', async ({
  signedIn: page,
}) => {
  await fresh(page, 'Tuesday as ever', '2031-08-05');
  await addSet(page, 'Back court run-in, 3 steps', /plan$/);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page).toHaveURL(/sessions\/[0-9a-f-]{36}$/);
  const first = page.url().split('/').at(-1)!;
  await page.getByRole('button', { name: 'Copy' }).click();
  await page.getByRole('button', { name: 'keep as a template' }).click();
  await expect(page.getByText('new sessions can begin from it')).toBeVisible();
  await page.reload();
  await expect(page.getByText(/found again|typed/)).toHaveCount(0);

  await goTo(page, '/sessions/new?day=2031-08-12');
  await page.getByLabel('Begin from a template').selectOption({ label: 'Tuesday as ever, 1 set' });
  await expect(page.locator('.set-line')).toHaveCount(1);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page).toHaveURL(/sessions\/[0-9a-f-]{36}$/);
  const second = page.url().split('/').at(-1)!;
  const [session, other] = [
    await ask<Session>(page, 'GET', `/sessions/${first}`),
    await ask<Session>(page, 'GET', `/sessions/${second}`),
  ];
  expect(other.date).toBe('2031-08-12');
  expect([session.template, other.template]).toEqual([true, false]);
  expect(other.drillSets[0]!.id).not.toBe(session.drillSets[0]!.id);
  expect(other.drillSets[0]!.athleteIds).toEqual(session.drillSets[0]!.athleteIds);
  // Dragged or changed, it stays one; until it is none any more.
  await goTo(page, `/sessions/${first}`);
  await page.getByRole('button', { name: 'Copy' }).click();
  await page.getByRole('button', { name: 'no template any more' }).click();
  await expect(page.getByText('is no template any more')).toBeVisible();
});

test(
  'a card is one page, for seven sets and for twenty with sixty athletes; a calendar follows',
  LONG,
  async ({ signedIn: page }) => {
    const week = await ask<{ items: Session[] }>(page, 'GET', '/sessions/templates');
    const seven = week.items.find((session) => session.drillSets.length === 7)!;
    await goTo(page, `/sessions/${seven.id}/card`);
    const card = page.getByRole('region', { name: 'Card' });
    await expect(card.locator('tbody tr')).toHaveCount(8);
    await expect(card.getByText('One cue each')).toBeVisible();
    expect(await axeFinds(page, { within: '.card-sheet' })).toEqual([]);
    for (const format of ['A4', 'Letter'] as const) expect(await pagesOf(page, format)).toBe(1);

    const people = Array.from({ length: 60 }, (_, i) => ({
      id: uuid(),
      name: `Wilhelmina-Konstantina${i} Featherstonehaugh-Cholmondeley ${i}`,
      squad: 'Sixty',
      hand: 'right',
      takeoffFoot: 'left',
      shoeM: 0.27,
      heightM: 1.7,
      birthYear: 2012,
      positions: [],
    }));
    for (const person of people) await ask(page, 'POST', '/athletes', person);
    const ids = people.map((other) => other.id);
    const { version: _v, archived: _a, logged: _l, ...like } = seven;
    const sets = Array.from({ length: 20 }, (_, i) => ({
      ...like.drillSets[i % 2 === 0 ? 1 : 6]!,
      id: uuid(),
      athleteIds: i % 3 === 0 ? ids.slice(0, 30 + i) : ids,
      beside: false,
    }));
    const sixty = { ...like, id: uuid(), date: '2031-09-01', title: 'Sixty', drillSets: sets };
    await ask(page, 'POST', '/sessions', sixty);
    await goTo(page, `/sessions/${sixty.id}/card`);
    await expect(card.locator('tbody tr')).toHaveCount(21);
    for (const format of ['A4', 'Letter'] as const) expect(await pagesOf(page, format)).toBe(1);

    // On the field, sixty long names are on the screen and nothing goes beyond it.
    await page.setViewportSize(PHONE);
    await goTo(page, `/run/${sixty.id}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    const wide = (): Promise<number> => page.evaluate(() => document.documentElement.scrollWidth);
    expect(await wide()).toBeLessThanOrEqual(PHONE.width);
    await page.getByRole('group', { name: 'Drill sets' }).getByRole('button').nth(1).click();
    await expect(
      page.getByRole('group', { name: 'As they stand' }).getByRole('button'),
    ).toHaveCount(60);
    expect(await wide()).toBeLessThanOrEqual(PHONE.width);
    const next = page.locator('.run-answers .answer').first();
    const box = (await next.boundingBox())!;
    expect(box.y + box.height).toBeLessThanOrEqual(PHONE.height);

    await page.setViewportSize({ width: 1280, height: 800 });
    await goTo(page, `/sessions/${seven.id}`);
    await page.getByRole('button', { name: 'Copy' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'as a calendar file' }).click(),
    ]);
    expect(readFileSync(await file.path(), 'utf8')).toContain('BEGIN:VEVENT');
    await page.getByRole('link', { name: 'Sessions' }).click();
    await page.getByRole('button', { name: 'Calendar' }).click();
    await page.getByRole('button', { name: /^Make (one|a new one)$/ }).click();
    const address = await page.getByLabel('Your address').inputValue();
    const feed = await page.request.get(address);
    expect(await feed.text()).toContain(`SUMMARY:${seven.title}`);
    await page.getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByText('Nobody can follow your address any more.')).toBeVisible();
    expect((await page.request.get(address)).status()).toBe(404);
  },
);

test('a limit of the club by age is kept, and a session that is over it says so', async ({
  signedIn: page,
}) => {
  await goTo(page, '/club');
  const limits = page.getByRole('region', { name: 'Limits of a week' });
  await limits.getByRole('button', { name: 'Add a limit' }).click();
  await limits.getByLabel('Up to the age of').last().fill('many');
  await expect(limits.getByText('Write a number.')).toBeVisible();
  await page.reload();
  await expect(limits.getByLabel('Up to the age of').last()).toHaveValue('many');
  await limits.getByRole('button', { name: 'Save limits' }).click();
  await expect(limits.getByText('Mend the fields that are marked, then save.')).toBeVisible();
  await limits.getByLabel('Up to the age of').last().fill('60');
  await limits.getByLabel('What').last().selectOption('contacts');
  await limits.getByLabel('at most').last().fill('3');
  await limits.getByRole('button', { name: 'Save limits' }).click();
  await expect(page.getByText('The limits are saved.')).toBeVisible();
  await page.reload();
  await expect(limits.getByLabel('at most').last()).toHaveValue('3');
  await fresh(page, 'Over it', '2031-08-20');
  await addSet(page, 'Back court run-in, 3 steps', /plan$/);
  await expect(page.getByText('over 3')).toBeVisible();
  await goTo(page, '/club');
  await limits.getByRole('button', { name: 'Take out' }).last().click();
  await limits.getByRole('button', { name: 'Save limits' }).click();
  await expect(page.getByText('The limits are saved.')).toBeVisible();
});
