import type { Page } from '@playwright/test';
import { axeFinds } from '../src/axe';
import { PHONE, plannedSessions } from '../src/field';
import { expect, goTo, test } from '../src/test';

/** The field screen on a phone in one hand: all that is needed is to be seen, and nothing moves under the thumb. */

test.use({ viewport: PHONE });

/** Opens the demo's session of seven sets. */
const openRunIns = async (page: Page): Promise<void> => {
  const sessions = await plannedSessions(page);
  await goTo(page, `/run/${sessions.find(({ drillSets }) => drillSets.length === 7)!.id}`);
};

/** What does not lie wholly on the screen, or beneath something else. */
const hidden = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('.run-now > *, .run-answers .answer, .run-answers .others')]
      .filter((element) => {
        const { left, top, right, bottom, width, height } = element.getBoundingClientRect();
        const above = document.elementFromPoint(left + width / 2, top + height / 2);
        return (
          left < 0 ||
          top < 0 ||
          right > innerWidth ||
          bottom > innerHeight + 0.5 ||
          (height > 0 && !(above && (element.contains(above) || above.contains(element))))
        );
      })
      .map((element) => element.className || element.tagName),
  );

const placesOf = (page: Page): Promise<number[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('.run-who, .cue-card, .run-rest, .answer, .others')].map(
      (element) => Math.round(element.getBoundingClientRect().top),
    ),
  );

test('every set has its prints, ready line and answers on the screen, whatever is opened', async ({
  signedIn: page,
}) => {
  await openRunIns(page);
  const sets = page.getByRole('group', { name: 'Drill sets' }).getByRole('button');
  await expect(sets).toHaveCount(7);
  let strips = 0;
  for (let i = 0; i < 7; i += 1) {
    await sets.nth(i).click();
    await expect(sets.nth(i)).toHaveAttribute('aria-pressed', 'true');
    strips += await page.locator('.print-strip').count();
    expect(await hidden(page), `set ${i + 1}`).toEqual([]);
    const other = page.getByRole('button', { name: 'Other', exact: true });
    if (await other.isVisible()) {
      await other.click();
      expect(await hidden(page), `set ${i + 1}, all faults`).toEqual([]);
      await page.getByRole('button', { name: 'Fewer', exact: true }).click();
    }
    const measure = page.getByRole('button', { name: 'Measure it' });
    if (await measure.isVisible()) {
      const before = await placesOf(page);
      await measure.click();
      await expect(page.getByRole('button', { name: 'Step pod' })).toBeVisible();
      expect(await placesOf(page), `set ${i + 1}, measured`).toEqual(before);
      await measure.click();
      // A whole movement has no drill to tell of.
      const how = page.locator('.run-how button');
      for (let times = 2 * (await how.count()); times > 0; times -= 1) {
        await how.click();
        expect(await placesOf(page), `set ${i + 1}, how it goes`).toEqual(before);
      }
    }
  }
  // All but the warm-up.
  expect(strips).toBe(6);
  expect(await axeFinds(page)).toEqual([]);
});

test('the foot that is called lights up in the strip', async ({ signedIn: page }) => {
  await openRunIns(page);
  await page.locator('.run-sets button', { hasText: 'Wall switches' }).click();
  const strip = page.locator('.print-strip');
  await expect(strip.locator('.foot-letter')).not.toHaveCount(0);
  await expect(strip.locator('.now')).toHaveCount(0);
  await page.getByRole('button', { name: 'Call', exact: true }).click();
  await expect(page.locator('.call-word')).toHaveText(/left|right/);
  const word = await page.locator('.call-word').innerText();
  await expect(strip.locator('.foot-letter.now')).toHaveText(word === 'left' ? 'L' : 'R');
});

test('by keys alone: the next athlete is said, the focus stays on the answers, the page has a name', async ({
  signedIn: page,
}) => {
  await openRunIns(page);
  await page.locator('.run-sets button', { hasText: 'Give ground' }).click();
  const first = (await page.getByRole('heading', { level: 1 }).innerText()).trim();
  await expect(page).toHaveTitle(new RegExp(`^${first} .*, Handball: run-ins · Gravek$`));
  const up = page.locator('.run > [role=status]');
  await expect(up).toHaveText(`Up: ${first}, rep 1, set 1`);
  const answer = page.locator('.run-answers .answer').first();
  await answer.focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('.run-answers .answer:focus')).toHaveCount(1);
  await page.getByRole('button', { name: 'Skip' }).focus();
  await page.keyboard.press('Enter');
  await expect(up).not.toHaveText(new RegExp(first));
  await expect(page.locator('.run-answers .answer:focus')).toHaveCount(1);
});
