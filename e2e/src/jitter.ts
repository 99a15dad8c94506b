import { chromium } from '@playwright/test';
import { LAUNCH } from './browser';

/**
 * How far the sounds of a call stand from where they were planned, while the page is kept busy:
 * `jitter.ts ADDRESS`. The sounds are heard where they leave for the speaker, sample by sample.
 */
const [address = ''] = process.argv.slice(2);
/** Of every 100 ms the page is kept busy so long. */
const BUSY_MS = 60;
const SECONDS = 20;

/** Moments for which sounds were planned, each with when the first of them is heard. */
type Heard = { planned: Record<number, number>; onsets: number[]; rate: number };

const browser = await chromium.launch({
  ...LAUNCH,
  args: [...LAUNCH.args, '--autoplay-policy=no-user-gesture-required'],
});
const context = await browser.newContext({
  viewport: { width: 390, height: 844 },
  serviceWorkers: 'block',
  bypassCSP: true,
});
// What runs this file gives functions names, which pages know nothing of.
await context.addInitScript('globalThis.__name = (named) => named');
await context.addInitScript(() => {
  const heard: Heard = { planned: {}, onsets: [], rate: 0 };
  Object.assign(window, { heard });
  const listener = `registerProcessor('ear', class extends AudioWorkletProcessor {
    quiet = 1e9;
    process([[samples]]) {
      for (let i = 0; samples && i < samples.length; i += 1) {
        if (Math.abs(samples[i]) < 0.01) this.quiet += 1;
        else {
          if (this.quiet > 0.03 * sampleRate) this.port.postMessage((currentFrame + i) / sampleRate);
          this.quiet = 0;
        }
      }
      return true;
    }
  })`;
  const ears = new WeakMap<BaseAudioContext, AudioNode>();
  const Real = AudioContext;
  window.AudioContext = class extends Real {
    constructor(options?: AudioContextOptions) {
      super(options);
      heard.rate = this.sampleRate;
      const address = URL.createObjectURL(new Blob([listener], { type: 'text/javascript' }));
      void this.audioWorklet.addModule(address).then(() => {
        const ear = new AudioWorkletNode(this, 'ear');
        ear.port.onmessage = ({ data }) => heard.onsets.push(data as number);
        ear.connect(this.destination);
        ears.set(this, ear);
      });
    }
  };
  const { connect } = AudioNode.prototype;
  AudioNode.prototype.connect = function (this: AudioNode, ...args: unknown[]) {
    const ear = ears.get(this.context);
    if (args[0] instanceof AudioDestinationNode && ear && this !== ear) {
      Reflect.apply(connect, this, [ear]);
    }
    return Reflect.apply(connect, this, args) as AudioNode;
  } as typeof connect;
  const { start } = AudioBufferSourceNode.prototype;
  AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
    // A spoken word begins softly: it counts from its first sample that is heard.
    const soft = this.buffer!.getChannelData(0).findIndex((sample) => Math.abs(sample) >= 0.01);
    const at = when + soft / this.buffer!.sampleRate;
    heard.planned[when] = Math.min(at, heard.planned[when] ?? Infinity);
    Reflect.apply(start, this, [when, ...rest]);
  };
});
const page = await context.newPage();
page.setDefaultTimeout(30_000);
page.on('pageerror', (error) => console.log(error.message));
await page.goto(address);
await page.getByRole('button', { name: 'Open the demo club' }).click();
await page.getByRole('region', { name: 'One cue each' }).waitFor();
await page.goto(`${address}/run`);
await page
  .getByRole('listitem')
  .filter({ hasText: /of 726 reps/ })
  .getByRole('link')
  .click();
await page
  .getByRole('group', { name: 'Drill sets' })
  .getByRole('button', { name: /Wall switches/ })
  .click();
const off: number[] = [];
await page.waitForTimeout(2_000);
await page.evaluate((busyMs) => {
  setInterval(() => {
    const until = performance.now() + busyMs;
    while (performance.now() < until);
  }, 100);
}, BUSY_MS);
const until = Date.now() + SECONDS * 1_000;
let first = true;
while (Date.now() < until) {
  await page.getByRole('button', { name: first ? 'Call' : 'Call again', exact: true }).click();
  first = false;
  await page.waitForTimeout(9_000);
}
const { planned, onsets, rate } = await page.evaluate(
  () => (window as unknown as { heard: Heard }).heard,
);
const due = Object.values(planned);
for (const when of due) {
  const near = onsets.filter((at) => Math.abs(at - when) < 0.025);
  const [best] = near.sort((a, b) => Math.abs(a - when) - Math.abs(b - when));
  if (best !== undefined) off.push(best - when);
}
await browser.close();
const mean = off.reduce((sum, value) => sum + value, 0) / off.length;
const spread = off.map((value) => Math.abs(value - mean) * 1_000);
console.log(
  `${off.length} of ${due.length} sounds found, ${rate} Hz, the page busy ${BUSY_MS} of every 100 ms`,
);
console.log(
  `from where they were planned: ${(mean * 1_000).toFixed(2)} ms on average, ${Math.max(...spread).toFixed(3)} ms from that at most`,
);
