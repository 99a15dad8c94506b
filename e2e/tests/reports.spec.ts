import { readFile } from 'node:fs/promises';
import type { Download, Page } from '@playwright/test';
import { axeFinds } from '../src/axe';
import { startApp } from '../src/app';
import { openAthlete, PHONE } from '../src/field';
import { LONG, expect, goTo, test } from '../src/test';

/** What goes out on paper, for a spreadsheet, for another Gravek and to an athlete, and what comes in. */

const open = (page: Page, path: string): Promise<unknown> => goTo(page, path);

const textOf = async (download: Download): Promise<string> =>
  readFile((await download.path())!, 'utf8');

test('an athlete’s sheet holds stand, cue, curve and marks, on one page, and says the same as the ledger', async ({
  signedIn: page,
}) => {
  await open(page, '/athletes');
  await page.getByRole('link', { name: 'Odran Vask', exact: true }).click();
  const cue = (await page.locator('.cue-words').first().textContent())!;
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('link', { name: 'Sheet to print' }).click();
  const part = page.getByRole('region', { name: 'Straight run-up' });
  await expect(part.getByText(cue)).toBeVisible();
  const marks = page.getByRole('region', { name: 'Marks' });
  await expect(marks.getByRole('row', { name: /Long jump, 14 steps.*27\.\d\d m/ })).toBeVisible();
  // The curve ends where the table stands.
  const chart = part.getByRole('img', { name: /of reps, between/ });
  const [, name, now] = /^(.+): (\d+) %/.exec((await chart.getAttribute('aria-label'))!)!;
  const row = part.getByRole('row').filter({ hasText: name! });
  await expect(row.getByRole('cell').nth(1)).toHaveText(`${now} %`);
  await page.emulateMedia({ media: 'print' });
  const pdf = (await page.pdf({ format: 'A4' })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1);
});

test('the season of a squad is summed up, squad by squad', async ({ signedIn: page }) => {
  await open(page, '/faults');
  await page.getByRole('link', { name: 'The season so far' }).click();
  const lines = page.getByRole('region', { name: 'Athlete by athlete' }).getByRole('row');
  await expect(lines.nth(1)).toBeVisible();
  const all = await lines.count();
  await page.getByRole('button', { name: 'Athletics', exact: true }).click();
  expect(await lines.count()).toBeLessThan(all);
  await expect(page.getByText(/Straight run-up, Athletics: \d+ athletes, \d+ reps/)).toBeVisible();
});

test(
  'reps go out as CSV, and the whole club as one file that an empty Gravek takes in',
  LONG,
  async ({ signedIn: page }) => {
    await open(page, '/club');
    const panel = page.getByRole('region', { name: 'Out and in' });
    const take = async (name: string): Promise<Download> => {
      const coming = page.waitForEvent('download');
      await panel.getByRole('link', { name }).or(panel.getByRole('button', { name })).click();
      return coming;
    };
    const csv = await textOf(await take('Reps'));
    expect(csv.split('\r\n').length).toBeGreaterThan(3_000);
    expect(csv).toContain('Odran Vask');
    const archive = await take('The whole club as one file');
    const file = (await archive.path())!;
    await expect(panel.getByText('An archive for this club')).toBeHidden();

    const empty = await startApp('empty');
    try {
      const browser = page.context().browser()!;
      const other = await (await browser.newContext()).newPage();
      await other.goto(empty.address);
      await other.getByLabel('Club').fill('Tarn Valley');
      await other.getByLabel('Your name').fill('Edda Brook');
      await other.getByLabel('E-mail').fill('edda@tarn.invalid');
      await other.getByLabel('Password').fill('long enough for Edda');
      await other.getByRole('button', { name: 'Make the club' }).click();
      await expect(other.getByText('Nothing is planned for today.')).toBeVisible();
      await open(other, '/club');
      const restore = other.getByRole('region', { name: 'Out and in' });
      await restore.getByLabel('An archive for this club').setInputFiles({
        ...{ name: 'broken.json', mimeType: 'application/json' },
        buffer: Buffer.from('{"format": "gravek-'),
      });
      await restore.getByRole('button', { name: 'Restore it here' }).click();
      await expect(restore.getByText('cannot be read as JSON')).toBeVisible();
      await restore.getByLabel('An archive for this club').setInputFiles(file);
      await restore.getByRole('button', { name: 'Restore it here' }).click();
      // However far it is, it goes on without the page.
      const reading = restore.getByRole('progressbar', { name: 'Reading the archive in' });
      await expect(reading).toBeVisible();
      await other.reload();
      await expect(reading).toBeVisible();
      await expect(other.getByText('The club is restored.')).toBeVisible({ timeout: 120_000 });
      await expect(other.getByText('Aldo Penhale')).toBeVisible();
      await expect(restore.getByText('An archive for this club')).toBeHidden();
      await open(other, '/faults/season');
      await open(page, '/faults/season');
      const season = (page: Page) => page.getByRole('region', { name: 'Athlete by athlete' });
      await expect(season(other)).toHaveText((await season(page).textContent())!);
    } finally {
      await empty.remove();
    }
  },
);

test('athletes come from a file: columns matched, shown before they are kept, and taken back', async ({
  signedIn: page,
}) => {
  await open(page, '/athletes');
  await page.getByRole('button', { name: 'From a file' }).click();
  const dialog = page.getByRole('dialog', { name: 'Athletes from a file' });
  const put = (name: string, text: string) =>
    dialog
      .getByLabel('A table as CSV')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await put('film.csv', 'no table');
  await expect(dialog.getByText('There is no table in it')).toBeVisible();
  await put(
    'squad.csv',
    'wer;Team;Größe;Hand\nBirla Quay;Rowers;1,74;links\nOdran Vask;;;\nTane Ober;Rowers;9;left\nUlf Marr;Rowers;1,80;left\n',
  );
  await expect(dialog.getByText(/^0 athletes come into the club, 4 lines do not/)).toBeVisible();
  await dialog.getByLabel('Column wer').selectOption('name');
  await dialog.getByLabel('Column Größe').selectOption('height');
  await expect(dialog.getByText('“links” is neither left nor right.')).toBeVisible();
  await expect(dialog.getByText('The height is between 1 and 2.3 m.')).toBeVisible();
  await expect(
    dialog.getByText(/^1 athlete comes into the club, 2 lines do not, 1 name is there already/),
  ).toBeVisible();
  await dialog.getByLabel('Column Hand').selectOption('');
  await expect(dialog.getByText('Birla Quay')).toHaveCount(2);
  expect(await axeFinds(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Add 2 athletes' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText('2 athletes are in the club.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Ulf Marr' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('2 athletes are put away again.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Ulf Marr' })).toBeHidden();
});

test('an athlete sees the own page by a link, and nothing once it is taken back', async ({
  signedIn: page,
  browser,
}) => {
  await openAthlete(page, 'Mirela Dussault');
  const panel = page.getByRole('region', { name: 'Own page' });
  await panel.getByRole('button', { name: 'Give a link' }).click();
  const address = await panel.getByLabel('The link').inputValue();
  const context = await browser.newContext({ viewport: PHONE });
  const own = await context.newPage();
  await own.goto(address);
  await expect(own.getByRole('heading', { level: 1, name: 'Mirela Dussault' })).toBeVisible();
  const plan = own.getByRole('region', { name: 'Long jump, 8 steps' });
  await expect(plan.getByText('Start mark')).toBeVisible();
  await plan.getByRole('button', { name: 'Hear the rhythm' }).click();
  await expect(plan.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(own.getByRole('region', { name: 'Straight run-up' }).getByRole('img')).toBeVisible();
  expect(await own.getByText('Odran').count()).toBe(0);
  expect(await axeFinds(own)).toEqual([]);
  await panel.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('The link holds no more.')).toBeVisible();
  await own.reload();
  await expect(own.getByRole('alert')).toHaveText(/This link holds no more/);
  await context.close();

  // Somebody of fifteen needs the word of a guardian.
  await openAthlete(page, 'Liesel Tamm');
  await panel.getByRole('button', { name: 'Give a link' }).click();
  await expect(panel.getByRole('alert')).toHaveText(/A guardian must agree/);
  await panel.getByLabel('A guardian agreed').check();
  await panel.getByRole('button', { name: 'Give a link' }).click();
  await expect(panel.getByLabel('The link')).toBeVisible();
});
