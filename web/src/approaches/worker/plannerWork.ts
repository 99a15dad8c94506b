import { wrap, type Remote } from 'comlink';
import type { PlannerWork } from './planner.worker';

let worker: Remote<PlannerWork> | undefined;

/** The worker that computes beside the interface; one for all planners. */
export const plannerWork = (): Remote<PlannerWork> =>
  (worker ??= wrap<PlannerWork>(
    new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' }),
  ));
