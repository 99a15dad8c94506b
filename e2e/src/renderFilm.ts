import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { filmScene, FILM_SIZE } from '@gravek/demo/film';
import { chromium } from '@playwright/test';
import { LAUNCH } from './browser';

/**
 * Renders the film that ships, with Debian's ffmpeg, into web/public/film/, and writes down the truth
 * behind it for the tests: npm run film
 */
const at = (file: string): string => fileURLToPath(new URL(`../../${file}`, import.meta.url));
const FILM = at('web/public/film/run-up.webm');
const TRUTH = at('demo/data/film.json');

const { frames, truth } = filmScene();
const folder = mkdtempSync(path.join(tmpdir(), 'film-'));
const browser = await chromium.launch(LAUNCH);
const page = await browser.newPage({ viewport: FILM_SIZE });
await page.setContent(`<canvas width="${FILM_SIZE.width}" height="${FILM_SIZE.height}"></canvas>`);
const list: string[] = [];
for (const [i, { atS, shapes }] of frames.entries()) {
  const picture = await page.evaluate((drawn) => {
    const canvas = document.querySelector('canvas')!;
    const pen = canvas.getContext('2d')!;
    pen.lineCap = 'round';
    pen.lineJoin = 'round';
    for (const shape of drawn) {
      pen.beginPath();
      if (shape.kind === 'disc') pen.arc(shape.at.x, shape.at.y, shape.radius, 0, 7);
      else shape.points.forEach(({ x, y }, n) => (n === 0 ? pen.moveTo(x, y) : pen.lineTo(x, y)));
      if (shape.kind === 'line') {
        pen.strokeStyle = shape.stroke;
        pen.lineWidth = shape.width;
        pen.stroke();
      } else {
        pen.fillStyle = shape.fill;
        pen.fill();
      }
    }
    return canvas.toDataURL('image/png').split(',')[1]!;
  }, shapes);
  const file = path.join(folder, `${String(i).padStart(4, '0')}.png`);
  writeFileSync(file, Buffer.from(picture, 'base64'));
  const next = frames[i + 1]?.atS ?? atS + 1 / 60;
  list.push(`file '${file}'`, 'option framerate 1000', `duration ${(next - atS).toFixed(3)}`);
}
await browser.close();
writeFileSync(path.join(folder, 'list.txt'), ['ffconcat version 1.0', ...list].join('\n'));
execFileSync(
  'ffmpeg',
  [
    ...[
      '-y',
      '-loglevel',
      'error',
      '-f',
      'concat',
      '-safe',
      '0',
      '-i',
      path.join(folder, 'list.txt'),
    ],
    // Each frame keeps its own moment; keyframes often enough to step back fast.
    ...['-fps_mode', 'passthrough', '-enc_time_base', '1:1000', '-c:v', 'libvpx', '-b:v', '4M'],
    ...['-crf', '8', '-g', '12', '-pix_fmt', 'yuv420p', '-an', FILM],
  ],
  { stdio: 'inherit' },
);
const film = {
  name: path.basename(FILM),
  bytes: statSync(FILM).size,
  frames: frames.length,
  durationS: frames.at(-1)!.atS,
  ...FILM_SIZE,
};
writeFileSync(TRUTH, `${JSON.stringify({ film, ...truth }, null, 1)}\n`);
rmSync(folder, { recursive: true });
