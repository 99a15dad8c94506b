import { wrap, type Remote } from 'comlink';
import { Unreachable } from '../../api/client';
import { ownScript } from '../../api/ownScript';
import workerUrl from './session.worker.ts?worker&url';
import type { SessionWork } from './session.worker';

type Running = { work: Remote<SessionWork>; broken: Promise<never> };
let running: Running | undefined;

const start = (): Running => {
  const worker = new Worker(ownScript(workerUrl), { type: 'module' });
  const broken = new Promise<never>((_, reject) => {
    worker.addEventListener('error', () => {
      running = undefined;
      reject(new Unreachable());
    });
  });
  broken.catch(() => undefined);
  return { work: wrap<SessionWork>(worker), broken };
};

/** Loads what reckons beside the interface, before there is anything to ask it. */
export const beginWork = (): void => {
  running ??= start();
};

/**
 * Asks what reckons beside the interface; one worker for all that is of sessions.
 *
 * @throws {Unreachable} when it could not be loaded; the next question tries again
 */
export const askWork = <Answer>(
  ask: (work: Remote<SessionWork>) => Promise<Answer>,
): Promise<Answer> => {
  running ??= start();
  return Promise.race([ask(running.work), running.broken]);
};
