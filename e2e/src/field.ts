import type { LogPage, Session, StoredRep } from '@gravek/contract/session';
import type { BrowserContext, Locator, Page } from '@playwright/test';
import { BETWEEN_TAPS_MS, expect, goTo } from './test';

export const PHONE = { width: 390, height: 844 };

/** Who is up, and the answer that is given most. */
export const up = (page: Page) => page.getByRole('heading', { level: 1 });
export const clean = (page: Page) => page.getByRole('button', { name: 'Clean' });

/** Puts something into the session that is being planned: its line is open. */
export const addSet = async (page: Page, name: string, what: RegExp): Promise<Locator> => {
  await page.getByLabel('Add a set').fill(name);
  await page
    .getByRole('list', { name: 'What can be added' })
    .getByRole('button', { name: what })
    .filter({ hasText: name })
    .click();
  return page.getByRole('region', { name: /^Drill set \d+$/ });
};

/** Asks the server as the page would: for what no coach presses, such as sixty athletes at once. */
export const ask = <T>(
  page: Page,
  method: 'GET' | 'POST' | 'PUT',
  path: string,
  body?: object,
): Promise<T> =>
  page.evaluate(
    async ([how, where, text]) => {
      const me = JSON.parse(localStorage.getItem('gravek.me')!) as { club: { id: string } };
      const answer = await fetch(`/api${where}`, {
        method: how,
        headers: { 'gravek-club': me.club.id, 'content-type': 'application/json' },
        ...(text === null ? {} : { body: text }),
      });
      if (!answer.ok) throw new Error(`${how} ${where}: ${answer.status} ${await answer.text()}`);
      return (await answer.json()) as T;
    },
    [method, path, body ? JSON.stringify(body) : null] as const,
  );

/** The sessions that the demo has planned: of today and the three weeks after it. */
export const plannedSessions = async (page: Page): Promise<Session[]> => {
  const from = new Date().toISOString().slice(0, 10);
  const until = new Date(Date.now() + 21 * 86_400_000).toISOString().slice(0, 10);
  const path = `/sessions?from=${from}&to=${until}`;
  return (await ask<{ items: Session[] }>(page, 'GET', path)).items;
};

/** The log of a session as the server has it. */
export const logOf = (page: Page, session: string): Promise<StoredRep[]> =>
  page.evaluate(async (id) => {
    const me = JSON.parse(localStorage.getItem('gravek.me')!) as { club: { id: string } };
    const rows: StoredRep[] = [];
    for (;;) {
      const after = rows.at(-1)?.arrival ?? 0;
      const answer = await fetch(`/api/sessions/${id}/reps?after=${after}`, {
        headers: { 'gravek-club': me.club.id },
      });
      const page = (await answer.json()) as LogPage;
      rows.push(...page.items);
      if (!page.more) return rows;
    }
  }, session);

const tapped = new WeakMap<Page, number>();

/** A tap, once a thumb could have come back from the one before. */
export const tap = async (page: Page, what: Locator): Promise<void> => {
  const leftMs = BETWEEN_TAPS_MS - (Date.now() - (tapped.get(page) ?? 0));
  if (leftMs > 0) await page.waitForTimeout(leftMs);
  await what.click();
  tapped.set(page, Date.now());
};

/** Puts a plan into the session that is being planned; its line is open. */
export const addPlan = async (page: Page, plan: string): Promise<Locator> => {
  const sets = page.getByRole('region', { name: /^Drill set \d+$/ });
  await page.getByLabel('Add a set').fill(plan);
  await page
    .getByRole('list', { name: 'What can be added' })
    .getByRole('button', {
      name: new RegExp(`^${plan.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')} plan$`),
    })
    .click();
  await expect(sets).toHaveCount(1);
  return sets;
};

/**
 * A session with one set of the back court's run-in, of another day than today's, which other tests add
 * to; it is open on the field screen.
 *
 * @param athletes by their first names
 * @returns the id of the session
 */
export const runAlone = async (
  page: Page,
  name: string,
  athletes: readonly string[],
  reps: number,
): Promise<string> => {
  await page.goto(new URL('/sessions/new', page.url()).toString());
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Day').fill('2031-06-01');
  const set = await addPlan(page, 'Back court run-in, 3 steps');
  const picked = set.locator('.picks .pick[aria-pressed=true]');
  await expect(picked).toHaveCount(6);
  for (const text of await picked.allTextContents()) {
    const first = text.split(' ')[0]!;
    if (!athletes.includes(first)) await set.getByRole('button', { name: first }).click();
  }
  await expect(picked).toHaveCount(athletes.length);
  await set.getByLabel('Rounds').fill('1');
  await set.getByLabel('Reps of each').fill(String(reps));
  await page.getByRole('button', { name: 'Save and run' }).click();
  await expect(page).toHaveURL(/\/run\//);
  return page.url().split('/').at(-1)!;
};

/** Sets the clock of a page, or of all pages of a context, ahead or back. */
export const shiftClock = (target: Page | BrowserContext, ms: number): Promise<unknown> =>
  target.addInitScript((by) => {
    const real = Date;
    const now = (): number => real.now() + by;
    globalThis.Date = new Proxy(real, {
      construct: (_, args) =>
        args.length === 0 ? new real(now()) : new real(...(args as [number])),
      get: (target, key) => (key === 'now' ? now : (Reflect.get(target, key) as unknown)),
    });
  }, ms);

/** Opens today's session of the athletics group on the field screen: some days have others beside it. */
export const runAthletics = async (page: Page): Promise<void> => {
  await page.goto(new URL('/run', page.url()).toString());
  await page
    .getByRole('listitem')
    .filter({ hasText: /^Athletics: run-ups.*today/ })
    .getByRole('link', { name: /^(Run|Resume)$/ })
    .click();
  await expect(clean(page)).toBeVisible();
};

/** Opens somebody's page from the list of athletes. */
export const openAthlete = async (page: Page, name: string): Promise<void> => {
  await page.goto(new URL('/athletes', page.url()).toString());
  await page.getByRole('main').getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
};

/** On an athlete's page: the run whose steps were measured last goes, and the measures change. */
export const takeOutNewestRun = async (page: Page): Promise<void> => {
  const takeOut = page
    .getByRole('region', { name: 'Steps' })
    .getByRole('button', { name: 'Take out' });
  await expect(takeOut.first()).toBeVisible();
  const runs = await takeOut.count();
  const answer = page.waitForResponse(
    (response) => response.request().method() === 'PUT' && response.url().includes('/trials/'),
  );
  await takeOut.first().click();
  expect(await (await answer).text()).not.toContain('"title"');
  // The message goes after eight seconds; that the run is gone stays.
  await expect(takeOut).toHaveCount(runs - 1);
};

/** Opens an athlete's page at what is known of a movement. */
export const showFaultsOf = async (page: Page, id: string, movement: string): Promise<void> => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await goTo(page, `/athletes/${id}`);
  await page
    .getByRole('region', { name: 'Faults' })
    .getByRole('combobox')
    .first()
    .selectOption({ label: movement });
};
