import { inFront, type InFrontInput, inFrontTracks } from '@gravek/core/curve/inFront';
import { type Body, spanM } from '@gravek/core/layout/body';
import { layOut } from '@gravek/core/layout/layOut';
import type { OtherThing } from '@gravek/core/layout/otherThings';
import { type CalledStep, pathOf, type PhaseSteps } from '@gravek/core/layout/sequence';
import type { TrackPoint } from '@gravek/core/layout/walker';
import type { Movement, MovementPhase } from '@gravek/contract/movement';
import { sequenceOf } from '../movement/schools';
import { type FrontChoice, frontInput, frontOf, giving, turnOf, usualFront } from './givingGround';

/** Moments at which the runner is drawn, seconds apart. */
const MOMENT_S = 0.1;

/** How the phases between the short steps and the run turn: what they take and gain is what the race says. */
const turned = (
  phases: readonly MovementPhase[],
  input: InFrontInput,
  speed: number,
): MovementPhase[] => {
  const give = phases.find(({ steps }) => steps.kind === 'give-ground')!;
  const turning = new Set(
    (give.read?.options ?? []).flatMap(({ code }) => {
      const path = pathOf(phases, { [give.code]: code });
      const after = path.slice(path.indexOf(give) + 1);
      const runs = after.findIndex(({ steps }) => steps.kind === 'build-up');
      return runs < 0 ? [] : [after.slice(0, runs)];
    }),
  );
  /** The turn ends with the foot that is planted; the step over it is the first of the run. */
  const changed = new Map<MovementPhase, PhaseSteps>();
  for (const way of turning) {
    const takesS = way.reduce(
      (sum, { steps }) =>
        sum +
        (steps.kind === 'shuffle'
          ? steps.steps * steps.intervalS
          : steps.kind === 'called'
            ? steps.calls[0]!.intervalS
            : 0),
      0,
    );
    const part = takesS > 0 ? (input.defender.turnS * speed) / takesS : 1;
    for (const phase of way) {
      const { steps } = phase;
      if (steps.kind === 'shuffle') {
        changed.set(phase, { ...steps, intervalS: steps.intervalS * part });
      } else if (steps.kind === 'called') {
        const [plant, ...rest] = steps.calls as [CalledStep, ...CalledStep[]];
        // Both feet stand abreast before, so the middle of the body gains half of what the foot does.
        const ahead = { value: -2 * input.defender.turnBackM, of: 'm' as const };
        changed.set(phase, {
          ...steps,
          calls: [{ ...plant, ahead, intervalS: plant.intervalS * part }, ...rest],
        });
      }
    }
  }
  return phases.map((phase) => ({ ...phase, steps: changed.get(phase) ?? phase.steps }));
};

/**
 * The runner as the race has it: head to head first, then past the side that the exit is about, at every moment
 * as far from the defender who is drawn as the race says.
 *
 * @param track of the defender, from the start on
 */
const raced = (
  other: OtherThing,
  input: InFrontInput,
  track: readonly TrackPoint[],
): OtherThing => {
  const count = Math.round(input.horizonS / MOMENT_S) + 1;
  const defenderM = (timeS: number): number => {
    const i = track.findLastIndex((point) => point.timeS <= timeS + 1e-9);
    const [from, to] = [track[Math.max(0, i)]!, track[i + 1]];
    const part = to && to.timeS > from.timeS ? (timeS - from.timeS) / (to.timeS - from.timeS) : 0;
    return from.aheadM + (to ? (to.aheadM - from.aheadM) * part : 0);
  };
  const endS = track.at(-1)!.timeS;
  const way = inFrontTracks(input, count)
    .filter(({ timeS }) => timeS <= endS + MOMENT_S)
    .map(({ timeS, gapM, runnerAsideM }) => ({
      timeS,
      ahead: { value: defenderM(timeS) + gapM, of: 'm' as const },
      aside: { value: runnerAsideM, of: 'm' as const },
    }));
  return { ...other, comes: null, moves: null, way };
};

/** Somebody who dallies, stops at an arm's length, and stays. */
const stopping = (
  other: OtherThing,
  input: InFrontInput,
  body: Body,
  sitsS: number,
): OtherThing => {
  const { defender, runner, depthM } = input;
  const goesS = (defender.steps * 60) / defender.cadenceSpm;
  const at = (timeS: number, aheadM: number) => ({
    timeS,
    ahead: { value: aheadM, of: 'm' as const },
    aside: { value: 0, of: 'm' as const },
  });
  const stopsM = spanM(other.ahead, body) - defender.steps * defender.stepM;
  return {
    ...other,
    comes: null,
    moves: null,
    way: [
      at(0, depthM),
      at(goesS, depthM - runner.dallySpeedMps * goesS),
      at(Math.max(goesS + 0.1, sitsS), Math.min(stopsM, depthM)),
    ],
  };
};

/**
 * The movement as a race has it: reaction, as many short steps as the coach teaches, the turn as long and as
 * wide as it is reckoned with, and the runner whom the defender holds, from head to head on.
 *
 * @param taught as of `bySchools`: its way of turning decides the race
 * @param chosen null for what is usual
 * @param asked the part of full speed at which it is practised, and the exits that are taken
 */
export const racingARunner = (
  taught: Movement,
  body: Body,
  chosen: FrontChoice | null | undefined,
  {
    speed = 1,
    reads = {},
  }: { speed?: number; reads?: Readonly<Record<string, string>> | undefined } = {},
): Movement => {
  const front = chosen ?? usualFront(taught, body);
  const give = giving(taught);
  if (!front || !give) return taught;
  const turn = turnOf(taught);
  const { drawn } = frontOf(front, body, turn, speed);
  const input = frontInput(front, body, turn, { fraction: drawn, speed });
  const { reactionS, stepM } = input.defender;
  const isStamped = taught.phases.some(({ steps }) => steps.kind === 'trigger');
  const phases = taught.phases.map((phase): MovementPhase => {
    const { steps } = phase;
    if (steps.kind === 'trigger') {
      return {
        ...phase,
        steps: {
          ...steps,
          // The stronger foot.
          foot: body.takeoffFoot,
          intervalS: Math.max(0.05, reactionS * speed),
        },
      };
    }
    if (phase !== give || steps.kind !== 'give-ground') return phase;
    return {
      ...phase,
      steps: {
        ...steps,
        steps: front.steps,
        cadenceSpm: front.cadenceSpm,
        step: { value: stepM, of: 'm' },
        // Who does not stamp stands for as long.
        waitS: isStamped ? 0 : reactionS * speed,
      },
    };
  });
  const { turnAtS } = inFront(input);
  const alone: Movement = { ...taught, phases: turned(phases, input, speed), others: [] };
  const { track } = layOut(sequenceOf(alone), body, { reads, speedFraction: speed });
  return {
    ...alone,
    others: taught.others.map((other) => {
      if (other.kind !== 'opponent') return other;
      const first = taught.phases.find(({ code }) => code === other.from)?.steps;
      return first?.kind === 'gather'
        ? stopping(other, input, body, turnAtS + first.intervalS / speed)
        : raced(other, input, track);
    }),
  };
};
