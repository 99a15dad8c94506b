import { chromium } from '@playwright/test';
import lighthouse, { type Flags } from 'lighthouse';
import { LAUNCH } from './browser';
import { freePort } from './startCommand';

/**
 * How soon pages are there on a phone of the middle range and a slow 4G network, as the general audit of web
 * pages tells it: `audit.ts ADDRESS [RUNS]`; the median of so many runs a page, once as the audit makes any
 * machine slower, and once as it advises for a machine that is slower itself.
 */
const [address = '', times = '5'] = process.argv.slice(2);
const RUNS = Number(times);

/** How many times slower than the machine that audits a phone is taken to be. */
const USUAL_SLOWING = 4;
/**
 * The index of a machine for which that makes a phone of the middle range. The audit warns below half of it, and
 * advises to slow a slower machine down by less.
 */
const INDEX_FOR_IT = 2_000;

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

const look = async (url: string, slowing: number): Promise<Seen> => {
  const flags: Flags = {
    port,
    output: 'json',
    onlyCategories: ['performance', 'accessibility', 'best-practices'],
    logLevel: 'error',
    throttling: { cpuSlowdownMultiplier: slowing },
  };
  const result = await lighthouse(url, flags);
  if (!result) throw new Error(`${url} could not be looked at`);
  const { audits, categories } = result.lhr;
  const numeric = (id: string): number => audits[id]?.numericValue ?? NaN;
  return {
    score: Math.round((categories['performance']?.score ?? NaN) * 100),
    accessibility: Math.round((categories['accessibility']?.score ?? NaN) * 100),
    firstPaintS: numeric('first-contentful-paint') / 1_000,
    largestPaintS: numeric('largest-contentful-paint') / 1_000,
    usableS: numeric('interactive') / 1_000,
    blockedMs: numeric('total-blocking-time'),
    shift: numeric('cumulative-layout-shift'),
    kB: numeric('total-byte-weight') / 1_000,
    errors:
      (audits['errors-in-console']?.details as { items?: unknown[] } | undefined)?.items?.length ??
      0,
    machine: result.lhr.environment.benchmarkIndex,
  };
};

const audit = async (name: string, place: string): Promise<void> => {
  const at = async (slowing: number): Promise<number> => {
    const seen: Seen[] = [];
    for (let run = 0; run < RUNS; run += 1) seen.push(await look(`${address}${place}`, slowing));
    const of = (key: keyof Seen): number => median(seen.map((one) => one[key]));
    process.stdout.write(
      `${name}, ${slowing.toFixed(1)} times slower: ${of('score')} of 100 (${seen.map(({ score }) => score).join(', ')}), first paint ${of('firstPaintS').toFixed(1)} s, largest ${of('largestPaintS').toFixed(1)} s, usable ${of('usableS').toFixed(1)} s, blocked ${of('blockedMs').toFixed(0)} ms, shift ${of('shift').toFixed(3)}, ${of('kB').toFixed(0)} kB, ${of('errors')} errors; accessibility ${of('accessibility')}; this machine ${of('machine').toFixed(0)}\n`,
    );
    return of('machine');
  };
  const machine = await at(USUAL_SLOWING);
  await at(Math.max(1, (USUAL_SLOWING * machine) / INDEX_FOR_IT));
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
