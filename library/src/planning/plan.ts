import { otherFoot, type Foot } from '@gravek/core/feet';
import { spanM, usualM, type Body } from '@gravek/core/layout/body';
import { layOut, LAYOUT_VERSION, type LayoutChoices } from '@gravek/core/layout/layOut';
import type { Part } from '@gravek/core/layout/part';
import { runLength, type RunAsk } from '@gravek/core/layout/runUp';
import { pathOf } from '@gravek/core/layout/sequence';
import { countSteps, stepFalls, type Layout } from '@gravek/core/layout/shape';
import type { Side } from '@gravek/core/session/repLog';
import {
  SOLVER_VERSION,
  solveStraight,
  type StraightInput,
} from '@gravek/core/runup/solveStraight';
import { closableFraction } from '@gravek/core/runup/stepCounts';
import type { StepModel } from '@gravek/core/runup/stepModel';
import type {
  Choices,
  Outline,
  SequenceChoices,
  Solved,
  StraightChoices,
} from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Drill, Movement, MovementPhase } from '@gravek/contract/movement';
import { racingARunner, usualFront } from './givingGround';
import { drillOf } from '../movement/byCode';
import { asDrilled } from '../movement/asDrilled';
import { basesAt, gapsAt, givenBy } from './onGround';
import { inOwnSlides } from './laneSlides';
import { inWeek, usualCadence } from './steadyCadence';
import { bySchools, forBody, sequenceOf, waysOf } from '../movement/schools';
import { inPlace, onSpotSide } from './place';
import { isMirrored, toldTo } from '../movement/sides';

export type PlanChoices = Partial<
  Pick<
    SequenceChoices,
    | 'reads'
    | 'schools'
    | 'drill'
    | 'speedFraction'
    | 'speeds'
    | 'bar'
    | 'arc'
    | 'inFront'
    | 'cadence'
    | 'ground'
    | 'spot'
  >
> & {
  side?: Side;
  run?: RunAsk;
};

/** Every way through the reads of a movement, the chosen one first. */
const ways = (
  phases: readonly MovementPhase[],
  chosen: Readonly<Record<string, string>>,
): Record<string, string>[] =>
  phases.reduce<Record<string, string>[]>(
    (all, { code, read }) =>
      read
        ? all.flatMap((way) => {
            const first = chosen[code];
            const options = read.options.map((option) => option.code);
            const order = first === undefined ? options : [first, ...options];
            return order.map((option) => ({ ...way, [code]: option }));
          })
        : all,
    [{}],
  );

/**
 * The exits and the part of a drill as it is taught: the exit that it forces, or else the first way on
 * which its part lies; of a part whose end a way of teaching leaves out, what is left of it.
 */
const drilled = (
  written: Movement,
  taught: Movement,
  drill: Drill,
  chosen: Readonly<Record<string, string>>,
): { reads: Record<string, string>; part: Part } => {
  const forcing = taught.phases.find((phase) =>
    phase.read?.options.some((option) => option.code === drill.force),
  );
  const reads = forcing && drill.force !== null ? { [forcing.code]: drill.force } : {};
  const asked = { ...chosen, ...reads };
  const { part } = drill;
  if (part.kind !== 'phases') return { reads: asked, part };
  const order = written.phases.map((phase) => phase.code);
  const named = order.slice(order.indexOf(part.from), order.indexOf(part.to) + 1);
  const paths = ways(taught.phases, asked)
    .filter((way) => !forcing || way[forcing.code] === drill.force)
    .map((way) => ({ way, path: pathOf(taught.phases, way).map((phase) => phase.code) }));
  const whole = paths.find(({ path }) => path.includes(part.from) && path.includes(part.to));
  if (whole) return { reads: whole.way, part };
  for (const { way, path } of paths) {
    const left = path.filter((code) => named.includes(code));
    if (left.length > 0) {
      return { reads: way, part: { kind: 'phases', from: left[0]!, to: left.at(-1)! } };
    }
  }
  return { reads: asked, part };
};

/**
 * The exits by which a phase is come to, of the reads before it; none where it lies on every way, or on none.
 *
 * @example readsTo(movementOf('post-footwork'), 'lean') // { land: 'gives' }
 */
export const readsTo = (
  { phases }: Pick<Movement, 'phases'>,
  code: string,
): Record<string, string> => {
  for (const way of ways(phases, {})) {
    const path = pathOf(phases, way);
    const at = path.findIndex((phase) => phase.code === code);
    if (at < 0) continue;
    return Object.fromEntries(
      path.slice(0, at).flatMap(({ code: read }) => (way[read] ? [[read, way[read]]] : [])),
    );
  }
  return {};
};

/** How fast a keeper moves to the wide ball, as the movement has it. */
export const wideSpeedMps = (movement: Movement, body: Body): number | null => {
  const wide = movement.phases.find((phase) => phase.steps.kind === 'arc-move')?.steps;
  return wide?.kind === 'arc-move' ? (spanM(wide.step, body) * wide.cadenceSpm) / 60 : null;
};

/** The movement with the wide ball gone for as fast as it is asked. */
const wideAt = (
  movement: Movement,
  body: Body,
  asked: SequenceChoices['arc'] | undefined,
): Movement =>
  asked
    ? {
        ...movement,
        phases: movement.phases.map((phase) =>
          phase.steps.kind === 'arc-move'
            ? {
                ...phase,
                steps: {
                  ...phase.steps,
                  cadenceSpm: (60 * asked.speedMps) / spanM(phase.steps.step, body),
                },
              }
            : phase,
        ),
      }
    : movement;

/** What is asked of a run to a bar: the coach's own figures, over them what the ground has. */
const barAsk = (
  movement: Movement,
  { bar, ground }: Pick<PlanChoices, 'bar' | 'ground'>,
): LayoutChoices['bar'] => {
  const given = givenBy(movement).bar ? ground : null;
  const uprightGapM = given?.uprightGapM ?? bar?.uprightGapM;
  const apron = given?.apron ?? bar?.apron ?? undefined;
  return bar || uprightGapM !== undefined || apron ? { ...bar, uprightGapM, apron } : undefined;
};

type Taught = {
  drill?: string | null | undefined;
  schools?: Readonly<Record<string, string>> | undefined;
  spot?: SequenceChoices['spot'];
};

/**
 * The movement with the steps and words of its drill, of the way of teaching and of the side of its place.
 *
 * @param mirrored whether the athlete does it in the mirror of how it is written
 * @example
 * asTaught(giveGround, { schools: { trigger: 'no-trigger' }, spot: null }, false).phases.length < giveGround.phases.length
 * // true
 */
export const asTaught = (
  movement: Movement,
  { drill, schools, spot }: Taught,
  mirrored: boolean,
): Movement =>
  onSpotSide(
    bySchools(asDrilled(movement, drill), schools),
    spot,
    mirrored,
    waysOf(movement, schools),
  );

/**
 * The movement as it is taught to an athlete: with its steps and words, left and right as they are the athlete's.
 *
 * @param side on which it is done; the athlete's own where nothing is said
 * @example
 * taughtTo(giveGround, { schools: { trigger: 'no-trigger' }, spot: null }, body).phases.length < giveGround.phases.length
 * // true
 */
export const taughtTo = (
  movement: Movement,
  choices: Taught,
  athlete: Pick<Body, 'hand' | 'takeoffFoot'>,
  side: Side = 'own',
): Movement =>
  toldTo(asTaught(movement, choices, isMirrored(movement, athlete, side)), athlete, side);

/**
 * A movement laid out for an athlete as the coach has chosen: schools, exits, a drill's part and speed.
 *
 * @throws {RangeError} naming what is out of range
 * @example laidOut(gaps, body).footfalls.at(-1).foot // 'right'
 */
export const laidOut = (movement: Movement, athlete: Body, choices: PlanChoices = {}): Layout => {
  const mirrored = isMirrored(movement, athlete, choices.side);
  const forAthlete = forBody(
    inPlace(asTaught(movement, choices, mirrored), choices.ground, choices.spot, mirrored),
    athlete,
  );
  const drill = choices.drill ? drillOf(movement, choices.drill) : undefined;
  const speedFraction = Math.max(
    0.2,
    Math.min(1.1, (choices.speedFraction ?? 1) * (drill?.speedFraction ?? 1)),
  );
  const standing = inOwnSlides(
    basesAt(gapsAt(forAthlete, choices.ground), choices.ground),
    athlete,
    choices.ground,
  );
  const arc = choices.arc;
  const { reads, part } =
    drill && !drill.phases?.length
      ? drilled(movement, standing, drill, choices.reads ?? {})
      : { reads: choices.reads, part: undefined };
  const racing = racingARunner(standing, athlete, choices.inFront, { speed: speedFraction, reads });
  const planned = inWeek(wideAt(racing, athlete, arc), athlete, choices.cadence);
  const layoutChoices: LayoutChoices = {
    side: choices.side,
    reads,
    speedFraction,
    speeds: { ...drill?.speeds, ...choices.speeds },
    part,
    run: choices.run,
    bar: barAsk(movement, choices),
    arc: arc
      ? {
          goalM: choices.ground?.goalM ?? arc.goalM,
          depthM: arc.depthM,
          lanes: arc.lanes,
          spreadDeg: arc.spreadDeg,
          atLane: arc.fromLane,
          wideLane: arc.toLane,
        }
      : { goalM: choices.ground?.goalM ?? undefined },
    lines: choices.ground?.marks,
  };
  return layOut(sequenceOf(planned), athlete, layoutChoices);
};

/** Where another exit of a read leads: the way of the body from the read on. */
export type Branch = { name: string; points: Layout['track'] };

/**
 * The exits that are not taken, of every read on the way.
 *
 * @example branchesOf(giveGround, body).map(({ name }) => name) // ['To the left', 'He stops']
 */
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
        const readS = other.phases.find((span) => span.code === phase.code)?.toS ?? 0;
        return {
          name: option.name,
          points: other.track.filter((point) => point.timeS >= readS - 1e-9),
        };
      });
  });
};

/**
 * The phases that are gone through under some choices.
 *
 * @example phasesOn(giveGround, { reads: { give: 'left' } }).at(-1).code // 'run-left'
 */
export const phasesOn = (
  movement: Movement,
  choices: Pick<PlanChoices, 'reads' | 'schools' | 'drill'> = {},
): MovementPhase[] =>
  pathOf(bySchools(asDrilled(movement, choices.drill), choices.schools).phases, choices.reads);

/** The exits that a plan takes at its reads, by name; none where a drill forces its own. */
export const exitsOf = (movement: Movement, choices: Choices): string[] => {
  if (!isSequence(choices) || choices.drill) return [];
  return phasesOn(movement, choices).flatMap(({ code, read }) => {
    const asked = choices.reads[code];
    const exit = read?.options.find((option) => option.code === asked);
    return exit ? [exit.name] : [];
  });
};

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

/**
 * What the straight solver is asked for one athlete. Check marks beyond the start drop out.
 *
 * @param model the athlete's steps, measured or estimated
 * @param side other: the whole run-up seen in a mirror, feet swapped
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

/** The outline of a plan, or null when it cannot be run. */
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

/** The same outline run on the other side. */
export const mirrorOutline = (outline: Outline): Outline => ({
  ...outline,
  firstFoot: otherFoot(outline.firstFoot),
  lastFoot: otherFoot(outline.lastFoot),
  contacts: outline.contacts.map((contact) => ({ ...contact, foot: otherFoot(contact.foot) })),
});
