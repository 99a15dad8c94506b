import { chromium } from '@playwright/test';
import lighthouse, { type Flags } from 'lighthouse';
import { LAUNCH } from './browser';
import { freePort } from './startCommand';

/**
 * How soon pages are there on a phone of the middle range and a slow 4G network, as the general audit of web
 * pages tells it: `audit.ts ADDRESS [RUNS]`; the median of so many runs a page.
 */
const [address = '', times = '5'] = process.argv.slice(2);
const RUNS = Number(times);

const port = await freePort();
const browser = await chromium.launch({
  ...LAUNCH,
  args: [...LAUNCH.args, `--remote-debugging-port=${port}`],
});

type Seen = Record<
  | 'score'
  | 'accessibility'
  | 'firstPaintS'
  | 'largestPaintS'
  | 'usableS'
  | 'blockedMs'
  | 'shift'
  | 'kB'
  | 'errors'
  | 'machine',
  number
>;

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;

const audit = async (name: string, place: string): Promise<void> => {
  const flags: Flags = {
    port,
    output: 'json',
    onlyCategories: ['performance', 'accessibility', 'best-practices'],
    logLevel: 'error',
  };
  const seen: Seen[] = [];
  for (let run = 0; run < RUNS; run += 1) {
    const result = await lighthouse(`${address}${place}`, flags);
    if (!result) throw new Error(`${name} could not be looked at`);
    const { audits, categories } = result.lhr;
    const numeric = (id: string): number => audits[id]?.numericValue ?? NaN;
    seen.push({
      score: Math.round((categories['performance']?.score ?? NaN) * 100),
      accessibility: Math.round((categories['accessibility']?.score ?? NaN) * 100),
      firstPaintS: numeric('first-contentful-paint') / 1_000,
      largestPaintS: numeric('largest-contentful-paint') / 1_000,
      usableS: numeric('interactive') / 1_000,
      blockedMs: numeric('total-blocking-time'),
      shift: numeric('cumulative-layout-shift'),
      kB: numeric('total-byte-weight') / 1_000,
      errors:
        (audits['errors-in-console']?.details as { items?: unknown[] } | undefined)?.items
          ?.length ?? 0,
      machine: result.lhr.environment.benchmarkIndex,
    });
  }
  const of = (key: keyof Seen): number => median(seen.map((one) => one[key]));
  process.stdout.write(
    `${name}: ${of('score')} of 100 (${seen.map(({ score }) => score).join(', ')}), first paint ${of('firstPaintS').toFixed(1)} s, largest ${of('largestPaintS').toFixed(1)} s, usable ${of('usableS').toFixed(1)} s, blocked ${of('blockedMs').toFixed(0)} ms, shift ${of('shift').toFixed(3)}, ${of('kB').toFixed(0)} kB, ${of('errors')} errors; accessibility ${of('accessibility')}; this machine ${of('machine').toFixed(0)}\n`,
  );
};

await audit('sign-in', '/');

// Whoever comes back has signed in before: the cookie and who it was are kept, files are not.
const context = browser.contexts()[0] ?? (await browser.newContext());
const over = await chromium.connectOverCDP(`http://127.0.0.1:${port}`);
const page = await (over.contexts()[0] ?? context).newPage();
await page.goto(address);
await page.getByRole('button', { name: 'Open the demo club' }).click();
await page.getByRole('region', { name: 'One cue each' }).waitFor();
const session = await page
  .getByRole('link', { name: 'Change the session' })
  .first()
  .getAttribute('href');
await page.close();
await audit('Today', '/');
await audit('a session', session ?? '/sessions');
await audit('the field screen', (session ?? '').replace('/sessions/', '/run/'));
await browser.close();
process.exit(0);
