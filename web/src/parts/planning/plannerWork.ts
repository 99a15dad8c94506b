import { wrap, type Remote } from 'comlink';
import { ownScript } from '../../api/ownScript';
import workerUrl from './planner.worker.ts?worker&url';
import type { PlannerWork } from './planner.worker';

let worker: Remote<PlannerWork> | undefined;

/** The worker that computes beside the interface; one for all planners. */
export const plannerWork = (): Remote<PlannerWork> =>
  (worker ??= wrap<PlannerWork>(new Worker(ownScript(workerUrl), { type: 'module' })));
