import { cushion, runnerForwardM, type CushionInput } from '@gravek/core/cushion';
import { bodyOf, spanM, type Body } from '@gravek/core/layout/body';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement } from '@gravek/contract/movement';

type Chosen = NonNullable<SequenceChoices['cushion']>;

/** A usual reaction, and how long the race is looked at, seconds. */
const REACTION_S = 0.2;
export const HORIZON_S = 2.5;
/** How hard runners set off, m/s²: with the top speed it gives the time constant where none was timed. */
const SET_OFF_MPS2 = 6.4;
/** How far aside a runner who must go round goes, and at which angle. */
const ROUND = { sideM: 0.9, releaseDeg: 35 };
/** A body's breadth. */
const KEEP_M = 0.3;
/** Where defenders line up, as a part of their height. */
const ALIGNED_OF_HEIGHT = 1.1;

const topOf = ({ model, sprint }: Body): Pick<Chosen, 'runnerTopMps' | 'runnerTauS'> => {
  const topMps = sprint?.topSpeedMps ?? (model.topLengthM * model.topCadenceSpm) / 60;
  return {
    runnerTopMps: Number(topMps.toFixed(2)),
    runnerTauS: Number((sprint?.tauS ?? topMps / SET_OFF_MPS2).toFixed(2)),
  };
};

/** What is reckoned with while giving ground when nothing was chosen: a runner as fast as the defender. */
export const usualCushion = (movement: Movement, body: Body): Chosen | null => {
  const give = movement.phases.find((phase) => phase.steps.kind === 'give-ground')?.steps;
  if (give?.kind !== 'give-ground') return null;
  return {
    depthM: Number((ALIGNED_OF_HEIGHT * body.heightM).toFixed(2)),
    ...topOf(body),
    stepM: Number(spanM(give.step, body).toFixed(2)),
    cadenceSpm: give.cadenceSpm,
    turnS: 0.2,
    keepM: KEEP_M,
  };
};

/** An athlete as the runner of a race: own sprint times, or what the own steps come to. */
export const runnerTimes = (
  athlete: Parameters<typeof bodyOf>[0],
): Pick<Chosen, 'runnerTopMps' | 'runnerTauS'> => topOf(bodyOf(athlete));

/** The race between runner and defender as the core solves it. */
export const cushionInput = (chosen: Chosen, body: Body): CushionInput => {
  // Against nobody in particular a defender who was never timed is as fast as the runner.
  const own = chosen.runnerId || body.sprint ? topOf(body) : chosen;
  return {
    depthM: chosen.depthM,
    attacker: { topSpeedMps: chosen.runnerTopMps, tauS: chosen.runnerTauS, ...ROUND },
    defender: {
      reactionS: body.reactionS ?? REACTION_S,
      stepM: chosen.stepM,
      cadenceSpm: chosen.cadenceSpm,
      turnS: chosen.turnS,
      topSpeedMps: own.runnerTopMps,
      tauS: own.runnerTauS,
    },
    keepM: chosen.keepM,
    horizonS: HORIZON_S,
  };
};

/** Most short steps that are laid out before the turn. */
const MOST_STEPS = 12;

/** Coming straight ahead over so much ground by a moment. */
const straightOn = (wayM: number, byS: number) => ({
  ahead: { value: wayM, of: 'm' as const },
  aside: { value: 0, of: 'm' as const },
  speedMps: Math.max(0.1, wayM / Math.max(0.05, byS)),
});

/** The runner as the race has it: lined up so deep, and where the race has them when the turn begins. */
const racing = (
  { others, phases }: Movement,
  body: Body,
  input: CushionInput,
  steps: number,
): Movement['others'] => {
  const { reactionS, cadenceSpm, stepM } = input.defender;
  const turnsS = reactionS + (steps * 60) / cadenceSpm;
  return others.map((other) => {
    if (other.kind !== 'opponent' || !other.comes) return other;
    // They are set out from where the first foot of the turn lands.
    const first = phases.find((phase) => phase.code === other.from)?.steps;
    const stepS = first && 'intervalS' in first ? first.intervalS : 0;
    // The first foot of a slide lands when the other begins to follow.
    const atS = turnsS + (first?.kind === 'shuffle' ? stepS / 2 : stepS);
    const wayM = runnerForwardM(input, atS);
    /** How long the runner takes for so much more. */
    const goesOnS = (forM: number): number => {
      let s = atS;
      while (runnerForwardM(input, s) - wayM < forM && s < atS + 4) s += 0.02;
      return s - atS;
    };
    const linedUpM = input.depthM + steps * stepM;
    if (!other.moves) {
      // Who stops does so where the movement has them, come from where they lined up.
      const wayThereM = Math.max(0.1, linedUpM - spanM(other.ahead, body));
      return {
        ...other,
        comes: { ...other.comes, ...straightOn(wayThereM, atS) },
      };
    }
    const onM = Math.hypot(other.moves.ahead.value, other.moves.aside.value);
    return {
      ...other,
      ahead: { value: Math.max(0.3, linedUpM - wayM), of: 'm' },
      comes: { ...other.comes, ...straightOn(wayM, atS) },
      moves: { ...other.moves, speedMps: onM / Math.max(0.1, goesOnS(onM)), afterS: 0 },
    };
  });
};

/**
 * The movement as a chosen race has it: reaction, as many short steps as there is time for before the
 * turn, as long and as quick as chosen, and the runner from where they line up.
 */
export const turningInTime = (
  movement: Movement,
  body: Body,
  chosen: SequenceChoices['cushion'] | undefined,
): Movement => {
  if (!chosen) return movement;
  const input = cushionInput(chosen, body);
  const { stepsBeforeOpen } = cushion(input);
  const steps = Math.max(0, Math.min(MOST_STEPS, stepsBeforeOpen ?? 0));
  const { reactionS, stepM, cadenceSpm } = input.defender;
  return {
    ...movement,
    phases: movement.phases.map((phase) => {
      if (phase.steps.kind === 'trigger') {
        return { ...phase, steps: { ...phase.steps, intervalS: Math.max(0.05, reactionS) } };
      }
      return phase.steps.kind === 'give-ground' && phase.read
        ? {
            ...phase,
            steps: { ...phase.steps, steps, cadenceSpm, step: { value: stepM, of: 'm' as const } },
          }
        : phase;
    }),
    others: racing(movement, body, input, steps),
  };
};
