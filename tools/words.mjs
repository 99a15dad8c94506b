import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/**
 * Speaks the words of the calls into web/src/hearing/words/, one WAV file each, with Debian's espeak-ng.
 * They are kept in the repository; run this when a word is added: node tools/words.mjs
 */
const SAID = {
  ready: 'Ready',
  marks: 'On your marks',
  set: 'Set',
  go: 'Go!',
  hold: 'Hold',
  left: 'Left',
  right: 'Right',
  change: 'Change',
  'last-minute': 'Last minute',
  stop: 'Stop',
  one: 'One',
  two: 'Two',
  three: 'Three',
  four: 'Four',
  five: 'Five',
  six: 'Six',
  seven: 'Seven',
  eight: 'Eight',
  nine: 'Nine',
  ten: 'Ten',
  eleven: 'Eleven',
  twelve: 'Twelve',
  thirteen: 'Thirteen',
  fourteen: 'Fourteen',
  fifteen: 'Fifteen',
  sixteen: 'Sixteen',
  seventeen: 'Seventeen',
  eighteen: 'Eighteen',
  nineteen: 'Nineteen',
  twenty: 'Twenty',
};
const folder = fileURLToPath(new URL('../web/src/hearing/words/', import.meta.url));
mkdirSync(folder, { recursive: true });
for (const [word, text] of Object.entries(SAID)) {
  execFileSync('espeak-ng', [
    '-v',
    'en',
    '-s',
    '190',
    '-a',
    '180',
    '-w',
    `${folder}${word}.wav`,
    text,
  ]);
}
console.log(`${Object.keys(SAID).length} words in ${folder}`);
