import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { overlaps } from '../src/overlaps';
import { expect, LONG, test, seen } from '../src/test';

const goTo = async (page: Page, place: string): Promise<void> => {
  await page.goto(new URL(place, page.url()).toString());
};

const CROWDED = ['post-footwork', 'close-and-shorten', 'give-ground', 'goal-arc', 'wall-switches'];

for (const [width, height] of [
  [1280, 800],
  [390, 844],
] as const) {
  test(`no label lies over another at ${width}, in metres or feet, for adult, child and left-hander`, async ({
    signedIn: page,
  }) => {
    await page.setViewportSize({ width, height });
    for (const code of CROWDED) {
      await goTo(page, `/movements/${code}`);
      await seen(page.locator('svg.plan-view'));
      if (width < 700) await page.getByText('For whom, which way, which part').click();
      for (const name of ['Bram Solheide', 'Tilde Marchbank', 'Roland Quist']) {
        await page.getByLabel('Lengths of').selectOption({ label: name });
        expect(
          await overlaps(page.locator('svg.plan-view').first(), 'text.plan-tag'),
          `${code}, ${name}`,
        ).toEqual([]);
      }
    }
    await page.evaluate(() =>
      localStorage.setItem(
        'gravek.settings',
        JSON.stringify({ state: { unit: 'imperial' }, version: 0 }),
      ),
    );
    await goTo(page, '/movements/give-ground');
    await expect(page.getByText('3 ft', { exact: true })).toBeVisible();
    expect(await overlaps(page.locator('svg.plan-view').first(), 'text.plan-tag')).toEqual([]);
  });
}

test('the body from the side stands at each contact, moves with play, and is another by another school', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/first-two-steps');
  const side = page.getByRole('region', { name: 'From the side' });
  await expect(side.getByText('foot 4.0 cm behind the hip')).toBeVisible();
  await side.getByRole('button', { name: 'Show contact 4' }).click();
  await expect(side.getByText('Rise, contact 4')).toBeVisible();
  await expect(side.getByText(/ahead of the hip/)).toBeVisible();
  // To the athlete's own size.
  await page.getByLabel('Lengths of').selectOption({ label: 'Tilde Marchbank' });
  await expect(side.getByText(/foot 3\.\d cm behind the hip/)).toBeVisible();
  const body = side.getByRole('img');
  const shape = () => body.locator('.side-bone').first().getAttribute('points');
  const before = await shape();
  await page.getByRole('button', { name: 'Quarter' }).click();
  await page.getByRole('button', { name: 'Play' }).click();
  await expect.poll(shape).not.toBe(before);
  await page.getByLabel('Full extension or quick release?').selectOption({ index: 1 });
  await expect(side.getByRole('img')).toBeVisible();

  // The club holds it otherwise.
  await page.getByRole('button', { name: 'Copy and change' }).click();
  await expect(page.getByText('Kind of step')).toBeVisible();
  await page.getByRole('button', { name: 'Push out', exact: true }).click();
  const trunk = page.getByLabel('Trunk, from upright').first();
  await expect(trunk).toHaveValue('44');
  await trunk.fill('60');
  await trunk.press('Tab');
  await seen(page.getByText('trunk 60°'));
  // Saved, it shows the movement.
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page).toHaveURL(/\/movements\/[0-9a-f-]{36}$/);
  await expect(
    page.getByRole('region', { name: 'From the side' }).getByText('trunk 60°'),
  ).toBeVisible();
});

test('another exit or school is laid over the way that is drawn', async ({ signedIn: page }) => {
  await goTo(page, '/movements/give-ground');
  await page.getByLabel('Lay over it').selectOption('Open at once');
  await expect(page.getByText(/dashed: \d+ steps in \d\.\d s/)).toBeVisible();
  await expect(page.locator('.plan-over')).toBeVisible();
  await page.getByLabel('Lay over it').selectOption('nothing');
  await expect(page.locator('.plan-over')).toBeHidden();
});

test('what is set in a panel moves the plan: a runner of the club, a cadence week, a keeper’s lanes', async ({
  signedIn: page,
}) => {
  const drawn = page.locator('svg.plan-view').first();
  const prints = () =>
    drawn
      .locator('.foot-print')
      .evaluateAll((all) => all.map((one) => one.getAttribute('transform')).join());
  await goTo(page, '/approaches/new?movement=give-ground');
  const race = page.getByRole('region', { name: 'In front of the runner' });
  await expect(race.getByText('Holds for 2 s')).toBeVisible();
  await race.getByRole('combobox', { name: 'The runner' }).selectOption({ label: 'Bram Solheide' });
  await expect(race.getByText(/from (measured steps|sprint times)/)).toBeVisible();
  const near = await prints();
  await race.getByLabel('Head to head at').fill('3');
  await expect.poll(prints).not.toBe(near);
  await seen(page.getByText('Short steps back'));
  await page.getByLabel('Name of the approach').fill('Giving ground to Bram');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Giving ground to Bram is saved')).toBeVisible();
  await page.reload();
  await expect(
    race.getByRole('combobox', { name: 'The runner' }).locator('option:checked'),
  ).toHaveText('Bram Solheide');

  await goTo(page, '/approaches/new?movement=steady-cadence');
  const now = await prints();
  await page.getByLabel('Week that is drawn and sounded').selectOption('6');
  await expect.poll(prints).not.toBe(now);

  await goTo(page, '/approaches/new?movement=goal-arc');
  const lanes = page.getByRole('region', { name: 'To set out' }).getByRole('row', { name: /lane/ });
  await expect(lanes).toHaveCount(5);
  await page
    .getByRole('region', { name: 'Lanes and the wide move' })
    .getByRole('slider', { name: 'Lanes' })
    .fill('7');
  await expect(lanes).toHaveCount(7);
});

const MOVEMENTS = readdirSync(new URL('../../library/data/movements', import.meta.url)).map(
  (file) => path.basename(file, '.json'),
);

/** In turn over the kinds: adult, child and left-hander, in metres and in feet on the paper of either. */
const ON_PAPER = (['metric', 'imperial'] as const).flatMap((unit) =>
  ['Bram Solheide', 'Tilde Marchbank', 'Roland Quist'].map((name) => ({ unit, name })),
);

test(
  'every kind of plan prints on one page: drawing, marks, three things to look at, nothing to press',
  LONG,
  async ({ signedIn: page }) => {
    const folder = mkdtempSync(path.join(tmpdir(), 'gravek-print-'));
    const { items } = (await (
      await page.request.get(new URL('/api/athletes', page.url()).toString())
    ).json()) as { items: { id: string; name: string }[] };
    const places = MOVEMENTS.map((code, i) => {
      const { unit, name } = ON_PAPER[i % ON_PAPER.length]!;
      const athlete = items.find((item) => item.name === name)!;
      return { at: `/approaches/new?movement=${code}&athlete=${athlete.id}`, unit, name };
    });
    places.push(
      { at: '/movements/post-footwork', unit: 'metric', name: '' },
      { at: '/movements/curved-run-up', unit: 'imperial', name: '' },
    );
    for (const { at, unit, name } of places) {
      await page.evaluate(
        (state) => localStorage.setItem('gravek.settings', JSON.stringify({ state, version: 0 })),
        { unit, sun: false, skipped: {}, groundId: null },
      );
      await goTo(page, at);
      const [, athlete] = /athlete=(.+)$/.exec(at) ?? [];
      // Not the plan before, and all of this one.
      if (athlete) await expect(page.getByLabel('Athlete', { exact: true })).toHaveValue(athlete);
      await seen(page.locator('svg.plan-view, svg.strip'));
      await expect(page.getByText('Opening …')).toHaveCount(0);
      await page.emulateMedia({ media: 'print' });
      for (const control of await page.locator('input, select, .slider-grid').all()) {
        const kind = await control.getAttribute('aria-label');
        // The name of a plan and of its athlete are fields on the screen and words on paper.
        if (kind === 'Name of the approach' || kind === 'Athlete') continue;
        await expect(control, `${at}: ${kind}`).toBeHidden();
      }
      const file = path.join(folder, 'plan.pdf');
      await page.pdf({
        path: file,
        format: unit === 'metric' ? 'A4' : 'Letter',
        printBackground: true,
      });
      expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' }), at).toMatch(/Pages:\s+1\n/);
      const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
      expect(text, at).toContain('Look at');
      expect(text, at).toMatch(/\n\s*3\.\s/);
      expect(text, at).toContain(name);
      await page.emulateMedia({ media: 'screen' });
    }
  },
);

test('a keeper is found by the word, approaches by athlete; one is copied, a squad goes on at once', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements');
  await page.getByLabel('Find a movement').fill('keeper');
  await expect(page.locator('.movement-row, .row-link').first()).toHaveText(/Goal-arc/);

  await goTo(page, '/approaches');
  await page.getByLabel('Search approaches').fill('long jump 14');
  await expect(page.getByRole('row')).toHaveCount(2);
  await page.getByLabel('Search approaches').fill('zzz');
  await expect(page.getByText('No approach matches.')).toBeVisible();
  await page.getByLabel('Search approaches').fill('long jump');
  // The first answer is lost after the server has stored the copy; asked again, it is the same one.
  let lost = false;
  await page.route('**/api/approaches', async (route) => {
    if (route.request().method() !== 'POST' || lost) return route.continue();
    lost = true;
    await route.fetch({ maxRetries: 2 });
    return route.abort();
  });
  await page.getByRole('button', { name: 'Copy Long jump, 14 steps' }).click();
  await expect(page.getByLabel('Name of the approach')).toHaveValue('Long jump, 14 steps, copy');
  expect(lost).toBe(true);
  const athlete = page.getByRole('combobox', { name: 'Athlete' });
  const on = () => athlete.locator('optgroup[label="On this approach"] option').count();
  const before = await on();
  await page.getByLabel('Put a whole squad on it').selectOption('Handball youth');
  await expect.poll(on).toBe(before + 4);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Long jump, 14 steps, copy is saved')).toBeVisible();
  await page.reload();
  await expect.poll(on).toBe(before + 4);
  await goTo(page, '/approaches');
  await expect(page.getByRole('link', { name: 'Long jump, 14 steps, copy' })).toHaveCount(1);
});

test('on a phone a bar at the bottom holds the field, and a movement opens at its drawing', async ({
  signedIn: page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await goTo(page, '/');
  const bar = page.getByRole('navigation', { name: 'Places in the field' });
  await bar.getByRole('link', { name: 'Faults' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Faults' })).toBeVisible();
  await bar.getByRole('button', { name: 'More' }).click();
  await bar.getByRole('link', { name: 'Movements' }).click();
  await expect(bar.getByRole('link', { name: 'Movements' })).toBeHidden();
  await page.getByRole('link', { name: 'Give-ground mirror' }).click();
  const drawing = page.locator('svg.plan-view').first();
  await expect(drawing).toBeInViewport({ ratio: 0.7 });
  await expect(page.getByLabel('Lengths of')).toBeHidden();
  await page.getByText('What goes wrong', { exact: true }).click();
  await expect(page.getByText('What goes wrong, and what it brings about')).toBeHidden();
  await seen(page.getByText(/^Drill:/));
});

test('every place explains itself on ?, but not while somebody types', async ({
  signedIn: page,
}) => {
  for (const [place, question] of [
    ['/', 'What is on now'],
    ['/athletes', 'Who are they'],
    ['/movements', 'Which movement is it'],
    ['/movements/gaps', 'Where do the feet go'],
    ['/movements/chains', 'what joins them'],
    ['/approaches', 'Which plans are there'],
    ['/approaches/new', 'How many steps'],
    ['/sessions', 'What is on this week'],
    ['/sessions/new', 'Who runs what how often'],
    ['/run', 'Which session'],
    ['/faults', 'Who most deserves the next session'],
    ['/club', 'Who coaches here'],
  ] as const) {
    await goTo(page, place);
    await expect(
      page.getByRole('heading', { level: 1 }).or(page.locator('.plan-name')).first(),
    ).toBeVisible();
    // A page that has only just been drawn may not hear keys yet.
    await expect(async () => {
      await page.keyboard.press('?');
      await expect(page.getByRole('dialog')).toContainText(question, { timeout: 5_000 });
    }).toPass();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
  }
  await goTo(page, '/athletes');
  await page.getByLabel('Search athletes').press('?');
  await expect(page.getByLabel('Search athletes')).toHaveValue('?');
  await expect(page.getByRole('dialog')).toBeHidden();
});
