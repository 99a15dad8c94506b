import { usualM } from '@gravek/core/layout/body';
import { runLength } from '@gravek/core/layout/straightRun';
import type { SequenceChoices, StraightChoices } from '@gravek/contract/approach';
import type { Movement } from '@gravek/contract/movement';
import { phasesOn } from './branches';

const TARGET_OF: Record<string, StraightChoices['target']> = {
  board: 'board',
  line: 'line',
  opponent: 'opponent',
  box: 'box',
  hurdle: 'hurdle',
};

/**
 * What to begin with when a movement is a run-up with a target on the ground, planned on the strip;
 * null for every other movement.
 *
 * @example straightStart(straightRunUp).steps // 14
 */
export const straightStart = (movement: Movement): StraightChoices | null => {
  const path = phasesOn(movement);
  const at = path.findIndex((phase) => phase.steps.kind === 'build-up');
  const run = at < 0 ? [] : path.slice(at, at + runLength(path, at));
  const end = run.at(-1)?.steps;
  if ((end?.kind !== 'build-up' && end?.kind !== 'short') || !end.target) return null;
  const running = run.reduce(
    (sum, { steps }) => sum + (steps.kind === 'build-up' ? steps.steps : 0),
    0,
  );
  return {
    target: TARGET_OF[end.target.name] ?? 'line',
    takeoffFoot: 'own',
    startFoot: null,
    steps: end.kind === 'short' ? running + end.steps + end.taper : running,
    distanceM: null,
    ending:
      end.kind === 'short'
        ? {
            kind: 'short',
            count: end.steps,
            taperSteps: end.taper,
            lengthM: Math.max(0.03, usualM(end.step)),
            cadenceSpm: end.cadenceSpm,
          }
        : { kind: 'penultimate', longer: end.target.longer, shorter: end.target.shorter },
    absorb: 'early',
    tolerance: 0.08,
    speedFraction: 1,
    checkMarks: [],
    pins: [],
  };
};

/**
 * @example sequenceStart().kind // 'sequence'
 */
export const sequenceStart = (): SequenceChoices => ({
  kind: 'sequence',
  reads: {},
  schools: {},
  drill: null,
  speedFraction: 1,
  speeds: {},
  ruleSet: null,
  bar: null,
  inFront: null,
  arc: null,
  cadence: null,
});
