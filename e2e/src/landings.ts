import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const RATE = 16_000;
/** Landings of a run, and the rest until it is heard again. */
const COUNT = 12;
const REST_S = 3;

/** Cadence at which the feet of `landings` come down, steps a minute. */
export const LANDINGS_SPM = 240;

/** A file in which feet land on a track, with noise in it, over and over: what the browser hears in place of a microphone. */
export const landings = (): string => {
  const file = path.resolve(import.meta.dirname, '../../test-results/landings.wav');
  if (existsSync(file)) return file;
  const stepS = 60 / LANDINGS_SPM;
  const length = Math.round(RATE * (COUNT * stepS + REST_S));
  const data = Buffer.alloc(44 + 2 * length);
  data.write('RIFF', 0);
  data.writeUInt32LE(36 + 2 * length, 4);
  data.write('WAVEfmt ', 8);
  data.writeUInt32LE(16, 16);
  data.writeUInt16LE(1, 20);
  data.writeUInt16LE(1, 22);
  data.writeUInt32LE(RATE, 24);
  data.writeUInt32LE(2 * RATE, 28);
  data.writeUInt16LE(2, 32);
  data.writeUInt16LE(16, 34);
  data.write('data', 36);
  data.writeUInt32LE(2 * length, 40);
  for (let i = 0; i < length; i += 1) {
    const atS = i / RATE;
    const since = atS % stepS;
    const landing = atS < COUNT * stepS ? 0.5 * Math.exp(-since / 0.02) : 0;
    // A sine that runs faster than any ear follows is noise enough.
    const noise = Math.sin(i * i * 0.37);
    data.writeInt16LE(Math.round(32_767 * (landing + 0.004) * noise), 44 + 2 * i);
  }
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileSync(file, data);
  return file;
};
