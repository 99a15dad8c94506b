import { wrap, type Remote } from 'comlink';
import { ownScript } from '../../api/ownScript';
import workerUrl from './file.worker.ts?worker&url';
import type { FileWork } from './file.worker';

let worker: Remote<FileWork> | undefined;

/** The worker that reads files of devices beside the interface. */
export const fileWork = (): Remote<FileWork> =>
  (worker ??= wrap<FileWork>(new Worker(ownScript(workerUrl), { type: 'module' })));
