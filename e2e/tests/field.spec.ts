import type { Page } from '@playwright/test';
import { addPlan, clean, PHONE, runAlone, up } from '../src/field';
import { betweenTaps, expect, goTo, test, seen } from '../src/test';

// It opens without a network too.
test.use({ serviceWorkers: 'allow' });

/** On the field: what is said, who goes, who stops, with a thumb and without network. */

/** On a phone, two reps each. */
const runWith = async (page: Page, name: string, athletes: readonly string[]): Promise<void> => {
  await runAlone(page, name, athletes, 2);
  await page.setViewportSize(PHONE);
};

const firstThree = async (page: Page): Promise<string[]> => {
  await goTo(page, '/sessions/new');
  const set = await addPlan(page, 'Back court run-in, 3 steps');
  const picked = set.locator('.picks .pick[aria-pressed=true]');
  await expect(picked).toHaveCount(6);
  const names = (await picked.allTextContents()).slice(0, 3).map((text) => text.split(' ')[0]!);
  await set.getByRole('button', { name: 'Take out' }).click();
  return names;
};

test('the screen says what to do; a name is brought forward, put out and let in again; two quick taps are one', async ({
  signedIn: page,
}) => {
  const [a, b, c] = (await firstThree(page)) as [string, string, string];
  await runWith(page, 'Thumbs', [a, b, c]);
  await expect(page.locator('.run-what')).toContainText('run-up');
  await expect(up(page)).toHaveText(a);
  await page.getByRole('button', { name: `${c} now` }).click();
  await expect(up(page)).toHaveText(c);
  // A double tap: the second is not the answer of whoever is up next.
  await clean(page).dblclick();
  await expect(up(page)).toHaveText(a);
  await betweenTaps(page);
  await expect(page.locator('.rep-no')).toContainText('1of 2');

  await page.getByRole('button', { name: a, exact: true }).click();
  const list = page.getByRole('list', { name: 'Everybody of this drill set' });
  await list.getByRole('button', { name: new RegExp(`^${b} .*out for today$`) }).click();
  await expect(list.getByText(/is out for today\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Back to the turn' }).click();
  await expect(up(page)).toHaveText(a);
  await seen(page.getByText(`${b}`));
  await clean(page).click();
  await expect(up(page)).toHaveText(a);
  await page.getByRole('button', { name: a, exact: true }).click();
  await list.getByRole('button', { name: 'Back in' }).click();
  await page.getByRole('button', { name: 'Back to the turn' }).click();
  await expect(up(page)).toHaveText(b);
});

test('every list leaves the answer in sight; redo says what becomes of a mark; the summary stands where Clean was', async ({
  signedIn: page,
}) => {
  const [a] = (await firstThree(page)) as [string];
  await runWith(page, 'Lists', [a]);
  const inSight = async (name: string): Promise<void> => {
    const box = (await page.getByRole('button', { name }).boundingBox())!;
    expect(box.y).toBeGreaterThanOrEqual(0);
    expect(box.y + box.height).toBeLessThanOrEqual(PHONE.height);
  };
  await inSight('Clean');
  await page.getByRole('button', { name: 'Other' }).click();
  await page.getByRole('group', { name: 'Faults seen' }).getByRole('button').first().click();
  await inSight('Log the fault');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(
    page.getByText(`${a} does rep 1 once more; what was marked does not count.`),
  ).toBeVisible();
  const where = (await clean(page).boundingBox())!;
  await clean(page).click();
  await expect(page.locator('.rep-no')).toContainText('2of 2');
  await betweenTaps(page);
  await clean(page).click();
  await expect(page.getByText('Drill set done')).toBeVisible();
  const [x, y] = [where.x + where.width / 2, where.y + where.height / 2];
  const under = await page.evaluate(
    ([x, y]) => document.elementFromPoint(x!, y!)!.closest('a, button') === null,
    [x, y],
  );
  expect(under).toBe(true);
  await expect(page.getByRole('list', { name: 'What was done' })).toContainText('2 clean of 2');
});

test('pain is one tap, also without network; it bars until somebody clears it, and leaving leads back', async ({
  signedIn: page,
}) => {
  const [a, b] = (await firstThree(page)) as [string, string];
  await runWith(page, 'Stops', [a, b]);
  await expect(up(page)).toHaveText(a);
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Pain' }).click();
  await expect(up(page)).toHaveText(b);
  await page.getByRole('link', { name: 'Leave' }).click();
  await expect(page.getByRole('heading', { name: 'Run', exact: true })).toBeVisible();
  const kept = page.getByRole('listitem').filter({ hasText: 'Stops' });
  await kept.getByRole('link', { name: /^(Go on|Run|Resume)$/ }).click();
  await expect(up(page)).toHaveText(b);
  await expect(page.getByText(/was stopped by pain; nothing until cleared\./)).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect(page.getByText('all sent')).toBeVisible();

  await page.setViewportSize({ width: 1280, height: 800 });
  await goTo(page, '/athletes');
  await page.getByRole('link', { name: new RegExp(`^${a} `) }).click();
  const panel = page.getByRole('region', { name: 'Restrictions' });
  await expect(panel).toContainText('stopped by pain');
  await expect(panel).toContainText('Stopped in Stops');
  await panel.getByRole('button', { name: 'Clear' }).click();
  await expect(panel.getByText('None.')).toBeVisible();
});

test('on a laptop the keys answer, mark, log and take back', async ({ signedIn: page }) => {
  const [a, b] = (await firstThree(page)) as [string, string];
  await runWith(page, 'Keys', [a, b]);
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(up(page)).toHaveText(a);
  await page.keyboard.press('c');
  await expect(up(page)).toHaveText(b);
  await page.keyboard.press('1');
  await expect(page.getByRole('button', { name: 'Log the fault' })).toBeVisible();
  // What is marked is not lost to a slip of the finger.
  await page.keyboard.press('c');
  await expect(up(page)).toHaveText(b);
  await page.keyboard.press('l');
  await expect(up(page)).toHaveText(a);
  await page.keyboard.press('u');
  await expect(up(page)).toHaveText(b);
  await page.keyboard.press('s');
  await expect(up(page)).toHaveText(a);
  await expect(page.getByText('all sent')).toBeVisible();
});

test('a proxy that finds a batch too long is no missing network: less is sent at once, until all is there', async ({
  signedIn: page,
}) => {
  const [a, b] = (await firstThree(page)) as [string, string];
  await runWith(page, 'Proxy', [a, b]);
  await expect(up(page)).toHaveText(a);
  const sizes: number[] = [];
  await page.route('**/api/reps', async (route) => {
    const { reps } = route.request().postDataJSON() as { reps: unknown[] };
    sizes.push(reps.length);
    if (reps.length < 2) await route.continue();
    else await route.fulfill({ status: 413, contentType: 'text/html', body: '<h1>Too large</h1>' });
  });
  await page.context().setOffline(true);
  for (const next of [b, a, b]) {
    await clean(page).click();
    await expect(up(page)).toHaveText(next);
    await betweenTaps(page);
  }
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect(page.getByText('all sent')).toBeVisible();
  expect(Math.max(...sizes)).toBeGreaterThan(1);

  // What something on the way refuses is told as that, and waits.
  await page.unrouteAll();
  await page.route('**/api/reps', (route) =>
    route.fulfill({ status: 403, contentType: 'text/html', body: '<h1>No</h1>' }),
  );
  await clean(page).click();
  await expect(page.getByText(/Something between here and the server refused this/)).toBeVisible();
  await page.unrouteAll();
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect(page.getByText('all sent')).toBeVisible();
});
