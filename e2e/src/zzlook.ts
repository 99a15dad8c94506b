import { chromium } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { LAUNCH } from './browser';
const address = process.argv[2]!;
const browser = await chromium.launch(LAUNCH);
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
const page = await context.newPage();
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
await page.goto(address);
await page.getByRole('button', { name: 'Open the demo club' }).click();
await page.getByRole('region', { name: 'One cue each' }).waitFor();
const codes = ['give-ground','close-and-shorten','stutter-read-go','corner-fielder','post-footwork','block-jump','four-step-approach','gather-right-left','goal-arc','curved-run-up','crossover-run-up','gaps','line-first-steps','jab-and-go','two-step-finish','first-two-steps','slide-close-out','wall-switches','steady-cadence','straight-run-up'];
for (const code of codes) {
  await page.goto(`${address}/movements/${code}`);
  const plan = page.getByRole('region', { name: 'The plan' });
  await plan.waitFor();
  await page.waitForTimeout(500);
  await plan.screenshot({ path: `/tmp/look/${code}.png` });
}
await page.goto(`${address}/approaches/new?movement=give-ground`);
const race = page.getByRole('region', { name: 'In front of the runner' });
await race.waitFor(); await page.waitForTimeout(600);
await race.screenshot({ path: '/tmp/look/zz-race.png' });
await page.goto(`${address}/movements/close-and-shorten`);
await page.getByRole('region', { name: 'Drills' }).screenshot({ path: '/tmp/look/zz-drills.png' });
for (let i = 0; i < codes.length; i += 4) {
  const html = `<body style="margin:0;background:#888;display:grid;grid-template-columns:1fr 1fr;gap:6px">${codes.slice(i, i + 4).map((c) => `<div><b style="color:#fff">${c}</b><br><img style="width:100%" src="file:///tmp/look/${c}.png"></div>`).join('')}</body>`;
  writeFileSync('/tmp/look/sheet.html', html);
  const sheet = await context.newPage();
  await sheet.setViewportSize({ width: 1900, height: 1100 });
  await sheet.goto('file:///tmp/look/sheet.html');
  await sheet.waitForTimeout(200);
  await sheet.screenshot({ path: `/tmp/look/sheet${i / 4}.png`, fullPage: true });
  await sheet.close();
}
await browser.close();
