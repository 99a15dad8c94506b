import { chromium, type CDPSession } from '@playwright/test';
import { LAUNCH } from './browser';

/**
 * How many frames the drawings drop while they play, by Chromium's own tracing: `frames.ts ADDRESS`.
 * A frame is dropped when the compositor reports that what it should have shown was not ready.
 */
const [address = ''] = process.argv.slice(2);
const SECONDS = 4;

type TraceEvent = {
  name: string;
  ph: string;
  args?: { frame_reporter?: { state?: string; frame_sequence: number } };
};

const trace = async (session: CDPSession, during: () => Promise<void>): Promise<TraceEvent[]> => {
  const events: TraceEvent[] = [];
  session.on('Tracing.dataCollected', ({ value }) => {
    events.push(...(value as unknown as TraceEvent[]));
  });
  const complete = new Promise((resolve) => session.once('Tracing.tracingComplete', resolve));
  await session.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['cc', 'benchmark', 'devtools.timeline.frame'] },
  });
  await during();
  await session.send('Tracing.end');
  await complete;
  return events;
};

const browser = await chromium.launch(LAUNCH);
const context = await browser.newContext({
  viewport: { width: 1280, height: 800 },
  serviceWorkers: 'block',
});
const page = await context.newPage();
await page.goto(address);
await page.getByRole('button', { name: 'Open the demo club' }).click();
await page.getByRole('link', { name: 'Athletes' }).waitFor();
const session = await browser.newBrowserCDPSession();
const movements = ['corner-fielder', 'give-ground', 'slide-close-out', 'straight-run-up'];
for (const code of movements) {
  await page.goto(`${address}/movements/${code}`);
  const play = page.getByRole('button', { name: 'Play' });
  await play.waitFor();
  await page.getByRole('button', { name: 'Quarter' }).click();
  await page.waitForTimeout(800);
  const events = await trace(session, async () => {
    await play.click();
    await page.waitForTimeout(SECONDS * 1_000);
  });
  // One frame is reported by each of its stages; it was whole if any of them says so.
  const frames = new Map<number, Set<string>>();
  for (const { name, ph, args } of events) {
    const frame = args?.frame_reporter;
    if (name !== 'PipelineReporter' || ph !== 'b' || !frame?.state) continue;
    frames.set(
      frame.frame_sequence,
      (frames.get(frame.frame_sequence) ?? new Set()).add(frame.state),
    );
  }
  const list = [...frames.values()];
  const whole = list.filter((states) => states.has('STATE_PRESENTED_ALL')).length;
  const dropped = list.filter((states) => states.has('STATE_DROPPED')).length;
  process.stdout.write(
    `${code}: of ${list.length} frames in ${SECONDS} s ${whole} shown whole (${(whole / SECONDS).toFixed(1)} a second), ${dropped} dropped\n`,
  );
}

// Dragging a print: from the move of the pointer to the page that shows the re-solved plan.
await page.goto(`${address}/approaches`);
await page.getByRole('link', { name: 'Long jump, 14 steps' }).click();
const print = page.getByRole('slider', { name: 'Length of step 6' });
await print.waitFor();
await page.waitForTimeout(1_500);
const box = (await print.boundingBox())!;
const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
await print.evaluate((slider) => {
  const spent: number[] = [];
  Object.assign(window, { spent });
  let moved = 0;
  window.addEventListener('pointermove', () => (moved = performance.now()), { capture: true });
  new MutationObserver(() => spent.push(performance.now() - moved)).observe(slider, {
    attributeFilter: ['aria-valuenow'],
  });
});
await page.mouse.move(x, y);
await page.mouse.down();
await page.evaluate(() => ((window as unknown as { spent: number[] }).spent.length = 0));
for (let i = 0; i < 240; i += 1) {
  await page.mouse.move(x + 12 * Math.sin(i / 9), y);
  await page.waitForTimeout(16);
}
await page.mouse.up();
const spent = await page.evaluate(() => (window as unknown as { spent: number[] }).spent);
spent.sort((a, b) => a - b);
const part = (share: number): string =>
  (spent[Math.floor(share * (spent.length - 1))] ?? NaN).toFixed(1);
process.stdout.write(
  `dragging a print, ${spent.length} moves: solved anew and drawn ${part(0.5)} ms median, ${part(0.95)} ms at 95 %\n`,
);
await browser.close();
