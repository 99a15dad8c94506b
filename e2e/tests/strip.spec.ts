import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { parseMidi } from 'midi-file';
import { overlaps } from '../src/overlaps';
import { expect, goTo, test, seen } from '../src/test';

const openPlan = async (page: Page, name: string): Promise<void> => {
  await goTo(page, '/approaches');
  await page.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('region', { name: 'Step by step' })).toBeVisible();
};

const strip = (page: Page) => page.getByRole('img', { name: /steps over/ });
const lengths = async (page: Page): Promise<number[]> =>
  (await page.getByRole('slider', { name: /^Length of step/ }).all()).length === 0
    ? []
    : Promise.all(
        (await page.getByRole('slider', { name: /^Length of step/ }).all()).map(async (locator) =>
          Number(await locator.getAttribute('aria-valuenow')),
        ),
      );

test('a typed length is pinned and the rest is solved around it; undo, redo and let go', async ({
  signedIn: page,
}) => {
  await openPlan(page, 'Long jump, 14 steps');
  await page.getByLabel('Start', { exact: true }).selectOption('fixed');
  const total = async (): Promise<number> => (await lengths(page)).reduce((a, b) => a + b, 0);
  const before = await total();
  const step = page.getByLabel('Step 5', { exact: true });
  await step.fill('1.80 m');
  await expect(page.getByRole('button', { name: 'Let step 5 go' })).toBeVisible();
  await expect.poll(async () => (await lengths(page))[4]).toBe(1.8);
  expect(await total()).toBeCloseTo(before, 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Let step 5 go' })).toBeHidden();
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(page.getByRole('button', { name: 'Let step 5 go' })).toBeVisible();

  for (const n of [1, 2, 3, 4, 6])
    await page.getByLabel(`Step ${n}`, { exact: true }).fill('0.9 m');
  await expect(page.getByText(/6 steps are pinned; .* too far/)).toBeVisible();
  // A field that is worked on stays as it is, though all around it is solved anew meanwhile.
  const worked = page.getByLabel('Step 9', { exact: true });
  await worked.selectText();
  await page
    .getByRole('button', { name: 'Let go of the pinned steps' })
    .evaluate((button: HTMLElement) => button.click());
  await expect(page.getByText('That cannot be run.')).toBeHidden();
  await expect.poll(total).toBeCloseTo(before, 1);
  await page.keyboard.insertText('2.35 m');
  await expect(worked).toHaveValue('2.35 m');
  await page.getByRole('button', { name: 'Let step 9 go' }).click();
});

test('a print is dragged with the mouse and nudged by key; a reload keeps the pin; saved, it stays', async ({
  signedIn: page,
}) => {
  await goTo(page, '/approaches/new');
  await page.getByLabel('Name of the approach').fill('Pinned by hand');
  await page.getByLabel('Start', { exact: true }).selectOption('fixed');
  const print = page.getByRole('slider', { name: 'Length of step 6' });
  const before = Number(await print.getAttribute('aria-valuenow'));
  const box = (await print.boundingBox())!;
  await page.mouse.move(box.x + 15, box.y + 15);
  await page.mouse.down();
  await page.mouse.move(box.x + 19, box.y + 15);
  await page.mouse.move(box.x + 22, box.y + 15, { steps: 3 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Let step 6 go' })).toBeVisible();
  const dragged = Number(await print.getAttribute('aria-valuenow'));
  expect(dragged).toBeGreaterThan(before + 0.05);
  await print.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(print).toHaveAttribute(
    'aria-valuenow',
    (dragged - 0.01).toFixed(3).replace(/0$/, ''),
  );
  await page.reload();
  await expect(page.getByRole('button', { name: 'Let step 6 go' })).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).first().click();
  await expect(page.getByText('Pinned by hand is saved')).toBeVisible();
  await page.reload();
  await print.focus();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: 'Let step 6 go' })).toBeHidden();
  await page.locator('body').press('ControlOrMeta+z');
  await expect(page.getByRole('button', { name: 'Let step 6 go' })).toBeVisible();
});

test('one step, thirty steps, a target nearer than a step: explained, nothing breaks', async ({
  signedIn: page,
}) => {
  const broken: string[] = [];
  page.on('pageerror', (error) => broken.push(error.message));
  await goTo(page, '/approaches/new');
  const steps = page.getByLabel('Steps', { exact: true });
  await steps.fill('30');
  await expect(strip(page)).toHaveAccessibleName(/^30 steps/);
  await page.getByLabel('Ending').selectOption({ index: 0 });
  await steps.fill('1');
  await page.getByLabel('Check marks').fill('');
  await expect(strip(page)).toHaveAccessibleName(/^1 steps? over/);
  await page.getByLabel('Start', { exact: true }).selectOption('fixed');
  await page.getByLabel('Start mark, from the target').fill('40 cm');
  await expect(page.getByText(/1 steps need at least .* too short/)).toBeVisible();
  await page.getByRole('button', { name: 'Nearer' }).click();
  await page.getByRole('button', { name: 'Play' }).isVisible();
  expect(broken).toEqual([]);
});

test('what is written in feet is planned in metres, to the same place', async ({
  signedIn: page,
}) => {
  await openPlan(page, 'Long jump, 14 steps');
  await page.getByLabel('Write lengths in').selectOption({ label: 'Feet and inches' });
  await page.getByLabel('Step 3', { exact: true }).fill(`5' 8 1/2"`);
  await page.getByLabel('Step 3', { exact: true }).blur();
  await page.getByLabel('Write lengths in').selectOption({ label: 'Metres' });
  await expect(page.getByLabel('Step 3', { exact: true })).toHaveValue('1.74 m');
});

test('the rhythm is played with the runner, and saved as sound and as notes', async ({
  signedIn: page,
}) => {
  await openPlan(page, 'Long jump, 14 steps');
  await page.getByRole('button', { name: 'Count in' }).click();
  await page.getByRole('button', { name: 'Half' }).click();
  await page.getByRole('button', { name: 'Play' }).click();
  const now = page.locator('.phase-now');
  await expect(now).toContainText('start');
  await expect(now).toContainText(/step \d+, (left|right)/);
  await page.getByRole('button', { name: 'Stop' }).click();

  const save = async (item: string): Promise<Buffer> => {
    const coming = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Beat as a file' }).click();
    await page.getByRole('button', { name: item }).click();
    return readFileSync(await (await coming).path());
  };
  const wav = await save('as sound (WAV)');
  expect(wav.subarray(0, 4).toString()).toBe('RIFF');
  const seconds = (wav.length - 44) / 2 / 44_100;
  const midi = parseMidi(await save('as notes (MIDI)'));
  let ticks = 0;
  const notes = midi.tracks[0]!.flatMap((event) => {
    ticks += event.deltaTime;
    return event.type === 'noteOn' ? [{ at: ticks / 960, note: event.noteNumber }] : [];
  });
  expect(notes).toHaveLength(4 + 14);
  const steps = notes.slice(4);
  expect(new Set(steps.map((step) => step.note)).size).toBe(2);
  steps.slice(1).forEach((step, i) => expect(step.note).not.toBe(steps[i]!.note));
  // The plan's own rhythm: it speeds up, and half as fast it lasts twice as long.
  const gaps = steps.slice(1).map((step, i) => step.at - steps[i]!.at);
  expect(gaps[0]!).toBeGreaterThan(gaps[8]! * 1.05);
  const label = await page
    .getByRole('img', { name: /^The rhythm: 14 contacts/ })
    .getAttribute('aria-label');
  const true_ = Number(/in ([\d.]+) seconds/.exec(label!)![1]);
  expect(notes.at(-1)!.at - steps[0]!.at + gaps[0]!).toBeGreaterThan(true_ * 1.8);
  expect(seconds).toBeGreaterThan(notes.at(-1)!.at);
});

test('the sheet runs on from one datum, prints on one page, and saves as table and drawing', async ({
  signedIn: page,
}) => {
  await openPlan(page, 'Long jump, 14 steps');
  const sheet = page.getByRole('region', { name: 'Setting out' });
  await sheet.getByLabel('every print').check();
  await expect(sheet.getByRole('listitem')).toHaveCount(14);
  const saved = async (item: string): Promise<string> => {
    const coming = page.waitForEvent('download');
    await sheet.getByRole('button', { name: 'As a file' }).click();
    await page.getByRole('button', { name: item }).click();
    return readFileSync(await (await coming).path(), 'utf8');
  };
  const rows = (await saved('as a table (CSV)'))
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => Number(line.trim().split(',').at(-1)));
  expect(rows).toHaveLength(14);
  for (const m of rows) expect(Math.abs(m * 100 - Math.round(m * 100))).toBeLessThan(1e-6);
  expect([...rows].sort((a, b) => a - b)).toEqual(rows);
  expect(await saved('as a drawing (SVG)')).toMatch(/^<svg .*Mirela.*<\/svg>$/s);

  await page.emulateMedia({ media: 'print' });
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'gravek-sheet-')), 'sheet.pdf');
  await page.pdf({ path: file, format: 'A4', printBackground: true });
  expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toMatch(/Pages:\s+1\n/);
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  expect(text).toContain('Mirela Dussault');
  const start = rows.at(-1)!.toFixed(2).replace('.', '\\.');
  expect(text).toMatch(new RegExp(`${start}\\s*m\\s+Start`));
  expect(text).not.toContain('Step counts compared');
});

test('a squad on one sheet: a line each, marks shared within what is allowed, misfits with why', async ({
  signedIn: page,
}) => {
  await openPlan(page, 'Long jump, 14 steps');
  await page.getByRole('link', { name: 'Squad sheet' }).click();
  await page.getByLabel('For whom').selectOption('Athletics');
  const table = page.getByRole('table', { name: /Start marks/ });
  const marks = table.locator('.squad-mark');
  await expect(table.getByRole('row', { name: /Liesel Tamm estimate/ })).toBeVisible();
  const apart = await marks.count();
  const people = (await table.getByRole('row').count()) - 1;
  expect(apart).toBe(people);
  await page.getByLabel('Most that a mark may move').fill('30 cm');
  await expect(page.getByText(/marks for \d+ athletes/)).toBeVisible();
  expect(await marks.count()).toBeLessThan(apart);
  for (const text of await table.getByText(/^gives/).allTextContents()) {
    expect(Number(/[\d.]+/.exec(text)![0])).toBeLessThanOrEqual(30);
  }
  await expect(page.getByRole('region', { name: 'Does not fit' })).toContainText(/may not jump/);
  await page.getByLabel('each their own count, within two').check();
  await seen(table.getByRole('row', { name: /16/ }));
});

test('how well it holds: eyes save what blind running spreads, and worse steps spread more', async ({
  signedIn: page,
}) => {
  await openPlan(page, 'Long jump, 14 steps');
  const holds = page.getByRole('region', { name: 'How well will it hold' });
  const chart = holds.getByRole('img', { name: /The spread grows/ });
  await expect(chart).toBeVisible();
  const spread = async (): Promise<[number, number]> => {
    const label = (await chart.getAttribute('aria-label'))!;
    const [, blind, eyed] = /to ([\d.]+) cm blind and ([\d.]+) cm/.exec(label)!;
    return [Number(blind), Number(eyed)];
  };
  const [blind, eyed] = await spread();
  expect(eyed).toBeLessThan(blind / 2);
  await expect(holds.getByRole('row', { name: /14 start 30 cm back/ })).toBeVisible();
  await holds.getByLabel('A step varies by').fill('3');
  await holds.getByLabel('a whole run by').fill('2');
  await expect.poll(async () => (await spread())[0]).toBeGreaterThan(blind * 1.5);
  await holds.getByLabel('steers by eye over').selectOption('0');
  await expect.poll(async () => (await spread())[1]).toBeGreaterThan(15);
  const closed = await holds.getByText(/Without eyes the sum/).textContent();
  const [, sure] = /± ([\d.]+) ?cm/.exec(closed!)!;
  expect((await spread())[0] * 1.645).toBeGreaterThan(Number(sure) * 0.95);
  expect((await spread())[0] * 1.645).toBeLessThan(Number(sure) * 1.05);
});

for (const [width, height] of [
  [1280, 800],
  [390, 844],
] as const) {
  test(`short steps stand enlarged below at ${width}: every length once, no label over another, each to be pinned`, async ({
    signedIn: page,
  }) => {
    await page.setViewportSize({ width, height });
    await goTo(page, '/approaches/new?movement=close-and-shorten');
    const enlarged = page.getByRole('img', {
      name: /^The last \d+ steps to the opponent, enlarged$/,
    });
    await expect(enlarged).toBeVisible();
    const strips = page.locator('svg.strip[role=img]');
    const written = await strips.locator('text.length').allTextContents();
    const planned = await lengths(page);
    expect(written).toHaveLength(planned.length);
    written.forEach((text, i) => expect(Math.abs(Number(text) - planned[i]!)).toBeLessThan(0.006));
    expect(await overlaps(strips)).toEqual([]);
    // The last print lies in the enlarged part, and is taken hold of there.
    const last = page.getByRole('slider', {
      name: `Length of step ${planned.length}`,
      exact: true,
    });
    const [handle, drawing] = [(await last.boundingBox())!, (await enlarged.boundingBox())!];
    expect(handle.y).toBeGreaterThan(drawing.y);
    expect(handle.y).toBeLessThan(drawing.y + drawing.height);
    await last.focus();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('button', { name: `Let step ${planned.length} go` })).toBeVisible();
  });
}
