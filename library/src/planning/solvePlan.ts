import { type Foot, otherFoot } from '@gravek/core/feet';
import type { Body } from '@gravek/core/layout/body';
import { LAYOUT_VERSION } from '@gravek/core/layout/layOut';
import { countSteps, type Layout, stepFalls } from '@gravek/core/layout/shape';
import { SOLVER_VERSION, solveStraight } from '@gravek/core/runup/solveStraight';
import { closableFraction } from '@gravek/core/runup/stepCounts';
import type { StepModel } from '@gravek/core/runup/stepModel';
import type { StraightInput } from '@gravek/core/runup/straightPlan';
import type { Side } from '@gravek/core/session/repLog';
import type { Choices, SequenceChoices, StraightChoices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Movement } from '@gravek/contract/movement';
import type { Outline, Solved } from '@gravek/contract/plan';
import { isMirrored } from '../movement/sides';
import { usualFront } from './givingGround';
import { laidOut, type PlanChoices } from './plan';
import { usualCadence } from './steadyCadence';

/**
 * What the straight solver is asked for one athlete. Check marks beyond the start drop out.
 *
 * @param model the athlete's steps, measured or estimated
 * @param side other: the whole run-up seen in a mirror, feet swapped
 * @example
 * straightAsk(straightStart(straightRunUp), leftHander, estimateStepModel(1.75)).takeoffFoot // 'right'
 */
export const straightAsk = (
  choices: StraightChoices,
  athlete: Pick<Body, 'takeoffFoot' | 'brakeMps2'>,
  model: StepModel,
  side: Side = 'own',
): StraightInput => {
  const seen = (foot: Foot): Foot => (side === 'own' ? foot : otherFoot(foot));
  const takeoff = choices.takeoffFoot === 'own' ? athlete.takeoffFoot : choices.takeoffFoot;
  const ask: StraightInput = {
    model,
    takeoffFoot: seen(takeoff),
    startFoot: choices.startFoot ? seen(choices.startFoot) : undefined,
    steps: choices.steps,
    distanceM: choices.distanceM ?? undefined,
    ending: choices.ending,
    absorb: choices.absorb,
    tolerance: choices.tolerance,
    speedFraction: choices.speedFraction,
    checkMarks: choices.checkMarks.filter((mark) => mark < choices.steps),
    pins: choices.pins,
  };
  // A run that shortens closes no faster than can be braked in its zone.
  return { ...ask, speedFraction: closableFraction(ask, athlete.brakeMps2) };
};

/** A run-up to a target on the ground of its movement, footfall by footfall. */
const runLaidOut = (
  movement: Movement,
  body: Body,
  { takeoffFoot, model: _model, startFoot, ...ask }: StraightInput,
  side: Side,
  ground: PlanChoices['ground'],
): Layout => {
  // A movement is laid as it is written and mirrored afterwards.
  const mirrored = isMirrored(movement, body, side);
  const written = (foot: Foot): Foot => (mirrored ? otherFoot(foot) : foot);
  return laidOut(movement, body, {
    side,
    ground,
    speedFraction: ask.speedFraction ?? 1,
    run: {
      ...ask,
      takeoffFoot: written(takeoffFoot),
      startFoot: startFoot && written(startFoot),
    },
  });
};

/** The choices of a plan with what is usual for a body where nothing was chosen: when a defender turns. */
export const asPlanned = (
  movement: Movement,
  choices: SequenceChoices,
  body: Body,
): SequenceChoices => ({
  ...choices,
  inFront: choices.inFront ?? usualFront(movement, body),
  cadence: choices.cadence ?? usualCadence(movement, body),
});

/**
 * What a plan comes to for an athlete: the one answer that every screen, sheet and stored plan has.
 *
 * @param body own measures, as `bodyOf` gives them
 * @param side other: all of it seen in a mirror, feet swapped
 * @throws {RangeError} naming what is out of range
 * @example
 * // layout: where each foot lands; straight: start mark, check marks, brake of the run-up
 * solve(straightRunUp, straightStart(straightRunUp), body).straight.feasible // true
 */
export const solve = (
  movement: Movement,
  choices: Choices,
  body: Body,
  side: Side = 'own',
): Solved => {
  if (isSequence(choices)) {
    const layout = laidOut(movement, body, { ...asPlanned(movement, choices, body), side });
    return { layout, straight: null };
  }
  const ask = straightAsk(choices, body, body.model, side);
  const straight = solveStraight(ask);
  const bodyOnFoot: Body = {
    ...body,
    takeoffFoot: choices.takeoffFoot === 'own' ? body.takeoffFoot : choices.takeoffFoot,
  };
  return {
    layout: straight.feasible ? runLaidOut(movement, bodyOnFoot, ask, side, choices.ground) : null,
    straight,
  };
};

/**
 * The version of what solves such choices; stored with every plan.
 *
 * @example solverVersion(gaps) // 1
 */
export const solverVersion = (choices: Choices): number =>
  isSequence(choices) ? LAYOUT_VERSION : SOLVER_VERSION;

/**
 * The outline of a plan, or null when it cannot be run.
 *
 * @example outlineOf(solve(gaps, sequenceStart(), body)).firstFoot // 'right'
 */
export const outlineOf = ({ layout, straight }: Solved): Outline | null => {
  if (straight?.feasible) {
    return {
      firstFoot: straight.startFoot,
      lastFoot: straight.steps.at(-1)!.foot,
      startM: straight.distanceM,
      totalTimeS: straight.totalTimeS,
      steps: straight.steps.length,
      contacts: straight.steps.map((step) => ({
        foot: step.foot,
        timeS: step.timeS,
        special: step.role !== 'build',
      })),
      checkMarks: straight.checkMarks.map(({ stepsOut, toTargetM }) => ({ stepsOut, toTargetM })),
    };
  }
  const falls = straight ? [] : (layout?.footfalls ?? []).filter((fall) => fall.n > 0);
  const [first, last] = [falls[0], falls.at(-1)];
  if (!layout || !first || !last) return null;
  return {
    // The lead foot is that of the first step that the drill is about.
    firstFoot: (stepFalls(layout)[0] ?? first).foot,
    lastFoot: last.foot,
    startM: null,
    totalTimeS: layout.totalTimeS,
    steps: countSteps(layout),
    contacts: falls.map((fall) => ({
      foot: fall.foot,
      timeS: fall.timeS,
      special: fall.contact !== 'step',
    })),
    checkMarks: [],
  };
};

/**
 * The same outline run on the other side.
 *
 * @example mirrorOutline(outlineOf(solve(gaps, sequenceStart(), body))).firstFoot // 'left'
 */
export const mirrorOutline = (outline: Outline): Outline => ({
  ...outline,
  firstFoot: otherFoot(outline.firstFoot),
  lastFoot: otherFoot(outline.lastFoot),
  contacts: outline.contacts.map((contact) => ({ ...contact, foot: otherFoot(contact.foot) })),
});
