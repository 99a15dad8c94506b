import { wrap, type Remote } from 'comlink';
import type { LoadsWork } from './loads.worker';

let worker: Remote<LoadsWork> | undefined;

/** The worker that reckons loads beside the interface. */
export const loadsWork = (): Remote<LoadsWork> =>
  (worker ??= wrap<LoadsWork>(
    new Worker(new URL('./loads.worker.ts', import.meta.url), { type: 'module' }),
  ));
