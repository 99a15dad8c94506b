import { type Body, spanM } from '@gravek/core/layout/body';
import { layOut } from '@gravek/core/layout/layOut';
import type { LayoutChoices } from '@gravek/core/layout/layoutChoices';
import type { Part } from '@gravek/core/layout/part';
import { pathOf } from '@gravek/core/layout/sequence';
import type { Layout } from '@gravek/core/layout/shape';
import type { RunAsk } from '@gravek/core/layout/straightRun';
import type { Side } from '@gravek/core/session/repLog';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Drill, Movement, MovementPhase } from '@gravek/contract/movement';
import { asDrilled } from '../movement/asDrilled';
import { drillOf } from '../movement/byCode';
import { bySchools, forBody, sequenceOf, waysOf } from '../movement/schools';
import { isMirrored, toldTo } from '../movement/sides';
import { inOwnSlides } from './laneSlides';
import { basesAt, gapsAt, givenBy } from './onGround';
import { inPlace, onSpotSide } from './place';
import { racingARunner } from './runnerRace';
import { inWeek } from './steadyCadence';

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
  const readChoices = { ...chosen, ...reads };
  const { part } = drill;
  if (part.kind !== 'phases') return { reads: readChoices, part };
  const order = written.phases.map((phase) => phase.code);
  const drillPhases = order.slice(order.indexOf(part.from), order.indexOf(part.to) + 1);
  const paths = ways(taught.phases, readChoices)
    .filter((way) => !forcing || way[forcing.code] === drill.force)
    .map((way) => ({ way, path: pathOf(taught.phases, way).map((phase) => phase.code) }));
  const whole = paths.find(({ path }) => path.includes(part.from) && path.includes(part.to));
  if (whole) return { reads: whole.way, part };
  for (const { way, path } of paths) {
    const left = path.filter((code) => drillPhases.includes(code));
    if (left.length > 0) {
      return { reads: way, part: { kind: 'phases', from: left[0]!, to: left.at(-1)! } };
    }
  }
  return { reads: readChoices, part };
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

/**
 * How fast a keeper moves to the wide ball, as the movement has it.
 *
 * @example wideSpeedMps(goalArc, body) // 2.2
 */
export const wideSpeedMps = (movement: Movement, body: Body): number | null => {
  const wide = movement.phases.find((phase) => phase.steps.kind === 'arc-move')?.steps;
  return wide?.kind === 'arc-move' ? (spanM(wide.step, body) * wide.cadenceSpm) / 60 : null;
};

/** The movement with the wide ball gone for as fast as it is asked. */
const wideAt = (
  movement: Movement,
  body: Body,
  arc: SequenceChoices['arc'] | undefined,
): Movement =>
  arc
    ? {
        ...movement,
        phases: movement.phases.map((phase) =>
          phase.steps.kind === 'arc-move'
            ? {
                ...phase,
                steps: {
                  ...phase.steps,
                  cadenceSpm: (60 * arc.speedMps) / spanM(phase.steps.step, body),
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
  const barGround = givenBy(movement).bar ? ground : null;
  const uprightGapM = barGround?.uprightGapM ?? bar?.uprightGapM;
  const apron = barGround?.apron ?? bar?.apron ?? undefined;
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
