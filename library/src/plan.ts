import {
  layOut,
  pathOf,
  runLength,
  solveStraight,
  type Body,
  type Foot,
  type Layout,
  type LayoutChoices,
  type RunAsk,
  type Side,
  type StraightResult,
} from '@gravek/core';
import {
  bySchools,
  isSequence,
  sequenceOf,
  straightAsk,
  usualM,
  type Choices,
  type Movement,
  type MovementPhase,
  type SequenceChoices,
  type StraightChoices,
} from '@gravek/contract';
import { drillOf } from './movements';

export type PlanChoices = Partial<
  Pick<SequenceChoices, 'reads' | 'schools' | 'drill' | 'speedFraction' | 'bar'>
> & {
  side?: Side;
  run?: RunAsk;
};

/** The exits taken when a drill forces one of them. */
const forced = (movement: Movement, exit: string | null): Record<string, string> => {
  const phase = movement.phases.find((one) =>
    one.read?.options.some((option) => option.code === exit),
  );
  return phase && exit !== null ? { [phase.code]: exit } : {};
};

/**
 * A movement laid out for an athlete as the coach has chosen: schools, exits, a drill's part and speed.
 *
 * @throws {RangeError} naming what is out of range
 */
export const laidOut = (movement: Movement, athlete: Body, choices: PlanChoices = {}): Layout => {
  const taught = bySchools(movement, choices.schools);
  const drill = choices.drill ? drillOf(movement, choices.drill) : undefined;
  const asked: LayoutChoices = {
    side: choices.side,
    reads: { ...choices.reads, ...forced(taught, drill?.force ?? null) },
    speedFraction: (choices.speedFraction ?? 1) * (drill?.speedFraction ?? 1),
    part: drill?.part,
    run: choices.run,
    bar: choices.bar ? { ...choices.bar, apron: choices.bar.apron ?? undefined } : undefined,
  };
  return layOut(sequenceOf(taught), athlete, {
    ...asked,
    speedFraction: Math.max(0.2, Math.min(1.1, asked.speedFraction!)),
  });
};

/** Where another exit of a read leads: the way of the body from the read on. */
export type Branch = { name: string; points: Layout['track'] };

/** The exits that are not taken, of every read on the way. */
export const branchesOf = (
  movement: Movement,
  athlete: Body,
  choices: PlanChoices = {},
): Branch[] => {
  // A drill's part or forced exit has no other ways.
  if (choices.drill) return [];
  const path = phasesOn(movement, choices);
  return path.flatMap((phase) => {
    const options = phase.read?.options ?? [];
    const taken = path[path.indexOf(phase) + 1]?.code;
    return options
      .filter((option) => option.to !== taken)
      .map((option): Branch => {
        const other = laidOut(movement, athlete, {
          ...choices,
          reads: { ...choices.reads, [phase.code]: option.code },
        });
        const readS = other.phases.find((one) => one.code === phase.code)?.toS ?? 0;
        return {
          name: option.name,
          points: other.track.filter((point) => point.timeS >= readS - 1e-9),
        };
      });
  });
};

/** The phases that are gone through under some choices. */
export const phasesOn = (
  movement: Movement,
  choices: Pick<PlanChoices, 'reads' | 'schools'> = {},
): MovementPhase[] => pathOf(bySchools(movement, choices.schools).phases, choices.reads);

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

export const sequenceStart = (): SequenceChoices => ({
  kind: 'sequence',
  reads: {},
  schools: {},
  drill: null,
  speedFraction: 1,
  ruleSet: null,
  bar: null,
  cushion: null,
  arc: null,
  cadence: null,
});

/**
 * What a plan comes to for an athlete: the run-up solved, or the sequence laid out.
 *
 * @param side other: all of it seen in a mirror, feet swapped
 */
export const solvePlan = (
  movement: Movement,
  choices: Choices,
  athlete: Body,
  side: Side = 'own',
): StraightResult | Layout =>
  isSequence(choices)
    ? laidOut(movement, athlete, { ...choices, side })
    : solveStraight(straightAsk(choices, athlete, athlete.model, side));

/** What every screen tells of a plan, whatever its kind. */
export type Outline = {
  firstFoot: Foot;
  lastFoot: Foot;
  /** start mark to target, metres; null for a sequence that runs at no target */
  startM: number | null;
  totalTimeS: number;
  /** feet that land together are one step */
  steps: number;
  contacts: { foot: Foot; timeS: number; special: boolean }[];
  checkMarks: { stepsOut: number; toTargetM: number }[];
};

/** The outline of a plan, or null when it cannot be run. */
export const outlineOf = (result: StraightResult | Layout): Outline | null => {
  if ('footfalls' in result) {
    const falls = result.footfalls.filter((fall) => fall.n > 0);
    const [first, last] = [falls[0], falls.at(-1)];
    if (!first || !last) return null;
    return {
      firstFoot: first.foot,
      lastFoot: last.foot,
      startM: null,
      totalTimeS: result.totalTimeS,
      steps: last.n,
      contacts: falls.map((fall) => ({
        foot: fall.foot,
        timeS: fall.timeS,
        special: fall.contact !== 'step',
      })),
      checkMarks: [],
    };
  }
  if (!result.feasible) return null;
  return {
    firstFoot: result.startFoot,
    lastFoot: result.steps.at(-1)!.foot,
    startM: result.distanceM,
    totalTimeS: result.totalTimeS,
    steps: result.steps.length,
    contacts: result.steps.map((step) => ({
      foot: step.foot,
      timeS: step.timeS,
      special: step.role !== 'build',
    })),
    checkMarks: result.checkMarks,
  };
};
