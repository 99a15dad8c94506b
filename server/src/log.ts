import path from 'node:path';
import { pino, type Logger } from 'pino';
import { createStream } from 'rotating-file-stream';

/** A fault as the log keeps it: what kind and where, never its words, which may hold what was typed. */
export const whatFailed = (error: unknown): { kind: string; code?: string; at: string[] } => {
  if (!(error instanceof Error)) return { kind: typeof error, at: [] };
  const { code } = error as { code?: unknown };
  return {
    kind: error.name,
    ...(typeof code === 'string' && /^[\w-]{1,30}$/.test(code) ? { code } : {}),
    at: (error.stack ?? '')
      .split('\n')
      .filter((line) => /^\s+at /.test(line))
      .slice(0, 12)
      .map((line) => line.trim()),
  };
};

const SIZE = '5M';
const KEPT = 5;

/**
 * The server's log: to the standard output, or to a file that only its owner reads and that begins anew
 * at a size.
 *
 * @param file where it is kept; undefined for the standard output
 */
export const openLog = (level: string, file: string | undefined): Logger => {
  const options = { level, serializers: { err: whatFailed } };
  if (!file) return pino(options);
  const stream = createStream(path.basename(file), {
    path: path.dirname(file),
    size: SIZE,
    maxFiles: KEPT,
    mode: 0o600,
  });
  // A full disk costs the log, not the service.
  stream.on('error', ({ message }) =>
    process.stderr.write(`The log cannot be written: ${message}\n`),
  );
  return pino(options, stream);
};
