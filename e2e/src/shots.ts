import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { LAUNCH } from './browser';
import { PHONE, runAthletics } from './field';

/** Takes the pictures of docs/screenshots from the demo: `shots.ts ADDRESS FOLDER [NAME …]`. */
const [address = '', folder = '', ...only] = process.argv.slice(2);

const LAPTOP = { width: 1280, height: 800 };

type Shot = { name: string; size?: typeof LAPTOP; go: (page: Page) => Promise<void> };

const open = (place: string) => async (page: Page) => {
  await page.goto(address + place);
};

const follow = (place: string, link: string) => async (page: Page) => {
  await page.goto(address + place);
  await page.getByRole('main').getByRole('link', { name: link, exact: true }).click();
};

const SHOTS: Shot[] = [
  { name: 'today', go: open('/') },
  { name: 'athletes', go: open('/athletes') },
  {
    name: 'athlete',
    go: async (page) => {
      await follow('/athletes', 'Odran Vask')(page);
      await page.getByText('Holding the causes').waitFor({ state: 'detached' });
    },
  },
  {
    name: 'film',
    go: async (page) => {
      await follow('/film', 'Mirela Dussault')(page);
      await page.getByRole('slider', { name: 'Frame' }).fill('143');
      const tools = page.getByRole('group', { name: 'What to do with the film' });
      await tools.getByRole('button', { name: 'Result' }).click();
      await page.getByRole('button', { name: 'Accept: Reaches on the last step' }).click();
      await page.waitForTimeout(500);
    },
  },
  { name: 'planner', go: follow('/approaches', 'Long jump, 14 steps') },
  { name: 'movements', go: open('/movements?find=stops+dead') },
  { name: 'movement', go: open('/movements/curved-run-up') },
  {
    name: 'movement-editor',
    go: async (page) => {
      await page.goto(`${address}/movements/give-ground`);
      await page.getByRole('button', { name: 'Copy and change' }).click();
      // The page of the movement has its phases to press as well.
      await page.waitForURL(/edit$/);
      await page.getByLabel('Name of the movement').waitFor();
      await page.getByRole('button', { name: 'Short steps back', exact: true }).click();
    },
  },
  { name: 'sequence-planner', go: open('/approaches/new?movement=post-footwork') },
  {
    name: 'holds',
    go: async (page) => {
      await follow('/approaches', 'Long jump, 14 steps')(page);
      const holds = page.getByRole('region', { name: 'How well will it hold' });
      await holds.getByLabel('A step varies by').fill('2');
      await holds.getByRole('img', { name: /The spread grows/ }).waitFor();
      await page.waitForTimeout(900);
      await page
        .getByRole('region', { name: 'Step by step' })
        .evaluate((panel) => panel.scrollIntoView());
    },
  },
  {
    name: 'squad',
    go: async (page) => {
      await follow('/approaches', 'Long jump, 14 steps')(page);
      await page.getByRole('link', { name: 'Squad sheet' }).click();
      await page.getByLabel('For whom').selectOption('Athletics');
      await page.getByLabel('Most that a mark may move').fill('25 cm');
      await page.getByText(/marks for \d+ athletes/).waitFor();
    },
  },
  { name: 'curve', go: open('/approaches/new?movement=curved-run-up') },
  { name: 'chains', go: open('/movements/chains?move=jab-cross&end=floater') },
  { name: 'sessions', go: open('/sessions') },
  {
    name: 'session',
    go: async (page) => {
      await nextTraining(page);
      await page.getByText('Bring').waitFor();
      await page.getByText('reckoning').waitFor({ state: 'detached' });
    },
  },
  { name: 'faults', go: open('/faults') },
  { name: 'club', go: open('/club') },
  {
    name: 'run',
    size: PHONE,
    go: async (page) => {
      await page.goto(address);
      await runAthletics(page);
    },
  },
  {
    name: 'row',
    size: PHONE,
    go: async (page) => {
      await nextTraining(page);
      await page
        .getByRole('main')
        .getByRole('link', { name: /^(Run|Resume)$/ })
        .click();
      await page.locator('.run-sets button', { hasText: 'Wall switches' }).click();
      await page.getByRole('button', { name: 'Call', exact: true }).click();
      await page.locator('.call-word', { hasText: 'hold' }).waitFor();
      for (const [name, nth] of [
        ['Roland', 1],
        ['Dario', 0],
      ] as const) {
        await page.locator('.row-key', { hasText: name }).click();
        const shown = page.getByRole('group', { name: `What ${name} showed` });
        await shown.getByRole('button').nth(nth).click();
      }
    },
  },
];

/** The handball training that comes next, which has a set of every kind. */
const nextTraining = async (page: Page): Promise<void> => {
  await page.goto(`${address}/sessions`);
  const card = page.getByRole('link', { name: /Handball: run-ins.*Band: squats/s });
  await page.locator('.session-card').first().waitFor();
  if ((await card.count()) === 0) await page.getByRole('button', { name: 'Week after' }).click();
  await card.first().click();
};

const browser = await chromium.launch(LAUNCH);
const context = await browser.newContext({
  viewport: LAPTOP,
  serviceWorkers: 'block',
  // Pictures show no browser's name.
  userAgent: 'for pictures',
});
const page = await context.newPage();
await page.goto(address);
await page.getByRole('button', { name: 'Open the demo club' }).click();
await page.getByRole('navigation').getByRole('link', { name: 'Athletes' }).waitFor();
for (const { name, size, go } of SHOTS) {
  if (only.length > 0 && !only.includes(name)) continue;
  await page.setViewportSize(size ?? LAPTOP);
  await go(page);
  await page.getByRole('heading', { level: 1 }).or(page.getByLabel('Athlete')).first().waitFor();
  await page.waitForLoadState('networkidle').catch(() => undefined);
  await page
    .getByRole('status')
    .filter({ hasText: '…' })
    .waitFor({ state: 'detached' })
    .catch(() => undefined);
  await page.waitForTimeout(350);
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
  process.stdout.write(`${name}.png\n`);
}
await browser.close();
