import { wrap, type Remote } from 'comlink';
import type { FileWork } from './file.worker';

let worker: Remote<FileWork> | undefined;

/** The worker that reads files of devices beside the interface. */
export const fileWork = (): Remote<FileWork> =>
  (worker ??= wrap<FileWork>(
    new Worker(new URL('./file.worker.ts', import.meta.url), { type: 'module' }),
  ));
