import { cushion, spanM, type Body, type CushionInput } from '@gravek/core';
import type { Movement, SequenceChoices } from '@gravek/contract';

type Chosen = NonNullable<SequenceChoices['cushion']>;

/** A usual reaction, and how long the race is looked at, seconds. */
const REACTION_S = 0.22;
const HORIZON_S = 2.5;
const USUAL_TAU_S = 1.1;
/** How far aside a runner who must go round goes, and at which angle. */
const ROUND = { sideM: 0.9, releaseDeg: 35 };
/** A body's breadth. */
const KEEP_M = 0.3;
/** Where defenders line up, as a part of their height. */
const ALIGNED_OF_HEIGHT = 0.95;

/** What is reckoned with while giving ground when nothing was chosen: a runner as fast as the defender. */
export const usualCushion = (movement: Movement, body: Body): Chosen | null => {
  const give = movement.phases.find((phase) => phase.steps.kind === 'give-ground')?.steps;
  if (give?.kind !== 'give-ground') return null;
  const { topLengthM, topCadenceSpm } = body.model;
  return {
    depthM: Number((ALIGNED_OF_HEIGHT * body.heightM).toFixed(2)),
    runnerTopMps: Number(
      (body.sprint?.topSpeedMps ?? (topLengthM * topCadenceSpm) / 60).toFixed(2),
    ),
    runnerTauS: Number((body.sprint?.tauS ?? USUAL_TAU_S).toFixed(2)),
    stepM: Number(spanM(give.step, body).toFixed(2)),
    cadenceSpm: give.cadenceSpm,
    turnS: 0.25,
    keepM: KEEP_M,
  };
};

/** The race between runner and defender as the core solves it. */
export const cushionInput = (chosen: Chosen, body: Body): CushionInput => ({
  depthM: chosen.depthM,
  attacker: { topSpeedMps: chosen.runnerTopMps, tauS: chosen.runnerTauS, ...ROUND },
  defender: {
    reactionS: body.reactionS ?? REACTION_S,
    stepM: chosen.stepM,
    cadenceSpm: chosen.cadenceSpm,
    turnS: chosen.turnS,
    topSpeedMps: body.sprint?.topSpeedMps ?? chosen.runnerTopMps,
    tauS: body.sprint?.tauS ?? USUAL_TAU_S,
  },
  keepM: chosen.keepM,
  horizonS: HORIZON_S,
});

/** Most short steps that are laid out before the turn. */
const MOST_STEPS = 12;

/** The movement with as many short steps as there is time for before the turn. */
export const turningInTime = (
  movement: Movement,
  body: Body,
  chosen: SequenceChoices['cushion'] | undefined,
): Movement => {
  const asked = chosen ?? usualCushion(movement, body);
  if (!asked || !movement.phases.some((phase) => phase.steps.kind === 'give-ground')) {
    return movement;
  }
  const { stepsBeforeOpen } = cushion(cushionInput(asked, body));
  const steps = Math.max(1, Math.min(MOST_STEPS, stepsBeforeOpen ?? 1));
  return {
    ...movement,
    phases: movement.phases.map((phase) =>
      phase.steps.kind === 'give-ground' && phase.read
        ? { ...phase, steps: { ...phase.steps, steps } }
        : phase,
    ),
  };
};
