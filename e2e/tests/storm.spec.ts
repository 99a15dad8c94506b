import type { Browser, BrowserContext, Page } from '@playwright/test';
import type { Session, StoredRep } from '@gravek/contract/session';
import type { App } from '../src/app';
import { logOf, PHONE, shiftClock } from '../src/field';
import { enterDemo, expect, LONG, test } from '../src/test';

// It opens without a network too.
test.use({ serviceWorkers: 'allow' });

/** Nothing lost: forty athletes, a thousand reps, three phones, a bad network and a server that dies. */

const PHONES = [
  { people: 14, aheadMs: 0 },
  { people: 13, aheadMs: 180_000 },
  { people: 13, aheadMs: -180_000 },
];
const REPS = 25;
const ATHLETES = 40;

/** The same misfortunes in every run. */
const chances = (seed: number): (() => number) => {
  let state = seed;
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return state / 4294967296;
  };
};

const write = (page: Page, path: string, body: object): Promise<unknown> =>
  page.evaluate(
    async ([to, text]) => {
      const me = JSON.parse(localStorage.getItem('gravek.me')!) as { club: { id: string } };
      const answer = await fetch(`/api${to}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'gravek-club': me.club.id },
        body: text!,
      });
      if (!answer.ok) throw new Error(await answer.text());
      return (await answer.json()) as unknown;
    },
    [path, JSON.stringify(body)],
  );

const ids = (n: number, kind: number): string[] =>
  Array.from(
    { length: n },
    (_, i) => `01900000-0000-7000-8${String(kind).padStart(3, '0')}-${String(i).padStart(12, '0')}`,
  );

/** Forty athletes in three drill sets of one session, one set a phone. */
const furnish = async (page: Page): Promise<{ session: Session; people: string[] }> => {
  const people = ids(ATHLETES, 1);
  for (const [i, id] of people.entries()) {
    await write(page, '/athletes', {
      id,
      name: `Storm${String(i).padStart(2, '0')} Runner`,
      squad: 'Storm',
      hand: 'right',
      takeoffFoot: i % 2 ? 'left' : 'right',
      shoeM: null,
      heightM: 1.7,
      legM: null,
      birthYear: 2008,
      positions: [],
    });
  }
  let from = 0;
  const drillSets = PHONES.map(({ people: many }, i) => {
    const athleteIds = people.slice(from, (from += many));
    return {
      id: ids(3, 2)[i],
      work: { kind: 'movement', movement: 'wall-switches', drill: null },
      athleteIds,
      sets: 1,
      reps: REPS,
      restS: 0,
      setRestS: 0,
    };
  });
  const session = (await write(page, '/sessions', {
    id: ids(1, 3)[0],
    date: '2031-08-01',
    title: 'Storm',
    groundId: null,
    place: '',
    drillSets,
  })) as Session;
  return { session, people };
};

/** A phone whose clock is off and whose network comes and goes; answers are lost after the server stored. */
const phoneIn = async (
  browser: Browser,
  app: App,
  aheadMs: number,
  seed: number,
): Promise<{ context: BrowserContext; page: Page; calm: () => void }> => {
  const next = chances(seed);
  const context = await browser.newContext({ viewport: PHONE });
  await shiftClock(context, aheadMs);
  const page = await context.newPage();
  await enterDemo(page, app);
  let stormy = true;
  await page.route('**/api/reps', async (route) => {
    const luck = stormy ? next() : 1;
    if (luck < 0.2) return route.abort();
    const answer = await route.fetch().catch(() => null);
    // Stored, and the answer is lost.
    if (answer === null || luck < 0.4) return route.abort();
    return route.fulfill({ response: answer }).catch(() => undefined);
  });
  return { context, page, calm: () => void (stormy = false) };
};

test(
  'forty athletes, a thousand reps, three phones: every rep is there once, and no screen went back',
  LONG,
  async ({ signedIn: coach, app, browser }) => {
    test.setTimeout(600_000);
    const { session, people } = await furnish(coach);
    const phones = await Promise.all(
      PHONES.map(async ({ people: many, aheadMs }, i) => {
        const phone = await phoneIn(browser, app, aheadMs, 7 + i);
        const { page } = phone;
        await page.goto(`${app.address}/run/${session.id}`);
        const mine = page.locator('.run-sets button').nth(i);
        await mine.click();
        await expect(mine).toHaveAttribute('aria-pressed', 'true');
        // What the screen says is done, each time it says something else.
        await page.evaluate((nth) => {
          const seen: number[] = [];
          Object.assign(globalThis, { seen });
          const look = (): void => {
            const button = document.querySelectorAll('.run-sets button')[nth];
            const done = Number(button?.querySelector('.figure')?.textContent ?? NaN);
            if (!Number.isNaN(done) && done !== seen.at(-1)) seen.push(done);
          };
          new MutationObserver(look).observe(document.body, {
            subtree: true,
            childList: true,
            characterData: true,
          });
          look();
        }, i);
        return { ...phone, total: many * REPS };
      }),
    );

    /** Taps until a number of reps is done, as fast as a double tap is not. */
    const tapTo = (page: Page, nth: number, goal: number): Promise<void> =>
      page.evaluate(
        async ([set, most]) => {
          const done = (): number =>
            Number(
              document.querySelectorAll('.run-sets button')[set!]?.querySelector('.figure')
                ?.textContent ?? 0,
            );
          let fault = 0;
          const shownMs: number[] = [];
          Object.assign(globalThis, { shownMs });
          while (done() < most!) {
            const before = done();
            // Every other one shows something: two of one kind so soon would be a double tap.
            fault += 1;
            if (fault % 2 === 0)
              document.querySelector<HTMLButtonElement>('.faults .fault')?.click();
            await new Promise((resolve) => setTimeout(resolve, 20));
            const tappedMs = performance.now();
            document.querySelector<HTMLButtonElement>('.run-answers .answer')?.click();
            for (let i = 0; i < 500 && done() === before; i += 1) {
              await new Promise((resolve) => setTimeout(resolve, 4));
            }
            shownMs.push(performance.now() - tappedMs);
            await new Promise((resolve) => setTimeout(resolve, 40));
          }
        },
        [nth, goal],
      );

    const weather = chances(99);
    let over = false;
    const cutting = (async () => {
      while (!over) {
        const { context } = phones[Math.floor(weather() * 3)]!;
        await context.setOffline(true);
        await coach.waitForTimeout(300 + 2500 * weather());
        await context.setOffline(false);
        await coach.waitForTimeout(300 + 1500 * weather());
      }
    })();
    const part = (share: number) =>
      Promise.all(phones.map(({ page, total }, i) => tapTo(page, i, Math.round(total * share))));
    const killing = (async () => {
      await coach.waitForTimeout(8_000);
      await app.kill();
      await app.start();
      await coach.waitForTimeout(8_000);
      await app.kill();
      await app.start();
    })();
    await part(1);
    await killing;
    over = true;
    await cutting;
    for (const { calm, context } of phones) {
      calm();
      await context.setOffline(false);
    }
    for (const { page } of phones) {
      const send = page.getByRole('button', { name: 'Send now' });
      await expect
        .poll(
          async () => {
            await send.click();
            return send.innerText();
          },
          { timeout: 60_000 },
        )
        .toBe('all sent');
    }

    const rows = await logOf(coach, session.id);
    expect(rows).toHaveLength(ATHLETES * REPS);
    expect(new Set(rows.map((row) => row.id)).size).toBe(ATHLETES * REPS);
    const byAthlete = new Map<string, StoredRep[]>(people.map((id) => [id, []]));
    for (const row of rows) byAthlete.get(row.athleteId)!.push(row);
    for (const own of byAthlete.values()) {
      // Each in order, once, by the number that its phone gave it.
      const inOrder = [...own].sort((a, b) => a.deviceNo - b.deviceNo);
      expect(inOrder.map((row) => row.rep)).toEqual(Array.from({ length: REPS }, (_, i) => i + 1));
    }
    const counted = await coach.evaluate(async (id) => {
      const me = JSON.parse(localStorage.getItem('gravek.me')!) as { club: { id: string } };
      const answer = await fetch(`/api/sessions/${id}`, { headers: { 'gravek-club': me.club.id } });
      return ((await answer.json()) as { logged: number }).logged;
    }, session.id);
    expect(counted).toBe(ATHLETES * REPS);
    for (const { page, context, total } of phones) {
      const seen = await page.evaluate(() => (globalThis as unknown as { seen: number[] }).seen);
      expect(seen).toEqual([...seen].sort((a, b) => a - b));
      expect(seen.at(-1)).toBe(total);
      const shown = await page.evaluate(() =>
        (globalThis as unknown as { shownMs: number[] }).shownMs.sort((a, b) => a - b),
      );
      console.log(
        `a tap showed after ${shown[shown.length >> 1]!.toFixed(0)} ms, nine of ten within ${shown[Math.floor(shown.length * 0.9)]!.toFixed(0)} ms`,
      );
      await context.close();
    }
  },
);
