import { cushion, spanM, type Body, type CushionInput } from '@gravek/core';
import type { Movement, SequenceChoices } from '@gravek/contract';

type Chosen = NonNullable<SequenceChoices['cushion']>;

/** A usual reaction, and how long the race is looked at, seconds. */
const REACTION_S = 0.2;
const HORIZON_S = 2.5;
/** How hard runners set off, m/s²: with the top speed it gives the time constant where none was timed. */
const SET_OFF_MPS2 = 6.4;
/** How far aside a runner who must go round goes, and at which angle. */
const ROUND = { sideM: 0.9, releaseDeg: 35 };
/** A body's breadth. */
const KEEP_M = 0.3;
/** Where defenders line up, as a part of their height. */
const ALIGNED_OF_HEIGHT = 1.1;

/** What is reckoned with while giving ground when nothing was chosen: a runner as fast as the defender. */
export const usualCushion = (movement: Movement, body: Body): Chosen | null => {
  const give = movement.phases.find((phase) => phase.steps.kind === 'give-ground')?.steps;
  if (give?.kind !== 'give-ground') return null;
  const { topLengthM, topCadenceSpm } = body.model;
  const topMps = body.sprint?.topSpeedMps ?? (topLengthM * topCadenceSpm) / 60;
  return {
    depthM: Number((ALIGNED_OF_HEIGHT * body.heightM).toFixed(2)),
    runnerTopMps: Number(topMps.toFixed(2)),
    runnerTauS: Number((body.sprint?.tauS ?? topMps / SET_OFF_MPS2).toFixed(2)),
    stepM: Number(spanM(give.step, body).toFixed(2)),
    cadenceSpm: give.cadenceSpm,
    turnS: 0.2,
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
    tauS: body.sprint?.tauS ?? chosen.runnerTauS,
  },
  keepM: chosen.keepM,
  horizonS: HORIZON_S,
});

/** Most short steps that are laid out before the turn. */
const MOST_STEPS = 12;

/** The movement with as many short steps as there is time for before the turn, where a race was chosen. */
export const turningInTime = (
  movement: Movement,
  body: Body,
  chosen: SequenceChoices['cushion'] | undefined,
): Movement => {
  if (!chosen) return movement;
  const { stepsBeforeOpen } = cushion(cushionInput(chosen, body));
  const steps = Math.max(0, Math.min(MOST_STEPS, stepsBeforeOpen ?? 0));
  return {
    ...movement,
    phases: movement.phases.map((phase) =>
      phase.steps.kind === 'give-ground' && phase.read
        ? { ...phase, steps: { ...phase.steps, steps } }
        : phase,
    ),
  };
};
