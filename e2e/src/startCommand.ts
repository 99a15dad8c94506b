import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const START = fileURLToPath(new URL('../../tools/start.mjs', import.meta.url));
const UP_MS = 120_000;

export type Started = { code: number | null; said: string };

/** Runs the start command to its end, or until it prints its address. */
export const runStart = (
  args: readonly string[],
  env: Record<string, string>,
): { child: ChildProcess; up: Promise<string>; ended: Promise<Started>; said: () => string } => {
  const child = spawn(process.execPath, [START, ...args], { env: { ...process.env, ...env } });
  let said = '';
  const up = new Promise<string>((resolve, reject) => {
    const hear = (part: unknown): void => {
      said += String(part);
      const address = /^http:\/\/127\.0\.0\.1:\d+$/m.exec(said);
      if (address) resolve(address[0]);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', (code) =>
      reject(new Error(`the start command ended with ${code}:\n${said}`)),
    );
    setTimeout(() => reject(new Error(`not up in time:\n${said}`)), UP_MS).unref();
  });
  up.catch(() => undefined);
  const ended = once(child, 'exit').then(([code]) => ({ code: code as number | null, said }));
  return { child, up, ended, said: () => said };
};

export const freePort = async (): Promise<number> => {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port } = probe.address() as { port: number };
  probe.close();
  return port;
};

/** A data folder that the postgres user can reach. */
export const dataFolder = (): string => {
  const folder = mkdtempSync(path.join(tmpdir(), 'gravek-e2e-'));
  chmodSync(folder, 0o755);
  return folder;
};
