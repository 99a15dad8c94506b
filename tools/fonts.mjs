import { copyFileSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import subsetFont from 'subset-font';
import { ROOT } from './run.mjs';
import { runMain, say } from './say.mjs';

/** As heavy and as wide as the look sets anything; see `web/src/look/_fonts.scss`. */
const AXES = { wght: { min: 400, max: 800 }, wdth: { min: 78, max: 100 } };

/** Characters from one number to another, both included. */
const range = (from, to) =>
  String.fromCodePoint(...Array.from({ length: to - from + 1 }, (_, i) => from + i));

/** What every page shows; more of western Europe; other languages that are written in Latin letters. */
const FILES = {
  basic: range(0x20, 0x7e) + '\u00a0°±²·×–—‘’“”…−',
  latin: range(0xa1, 0xff) + range(0x2b9, 0x2dd) + range(0x2000, 0x206f) + '€™↑↓∕ıŒœ',
  'latin-ext': range(0x100, 0x2ff) + range(0x1e00, 0x1eff) + range(0x20a0, 0x20c0),
};

/** Makes the fonts of the pages: the characters and the range of weights and widths that the look uses. */
await runMain(async () => {
  const from = path.join(ROOT, 'node_modules/@fontsource-variable/archivo');
  const to = path.join(ROOT, 'web/src/look/fonts');
  copyFileSync(path.join(from, 'LICENSE'), path.join(to, 'LICENSE'));
  for (const [name, text] of Object.entries(FILES)) {
    const source = name === 'basic' ? 'latin' : name;
    const whole = readFileSync(path.join(from, `files/archivo-${source}-wdth-normal.woff2`));
    const part = await subsetFont(whole, text, { targetFormat: 'woff2', variationAxes: AXES });
    writeFileSync(path.join(to, `archivo-${name}.woff2`), part);
    say(`archivo-${name}: ${whole.length} bytes before, ${part.length} after`);
  }
});
