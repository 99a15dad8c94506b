import { inFront, type InFront, type InFrontInput } from '@gravek/core/curve/inFront';
import { type Body, bodyOf, spanM } from '@gravek/core/layout/body';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement, MovementPhase } from '@gravek/contract/movement';
import { bySchools } from '../movement/schools';

/** What is chosen for giving ground. */
export type FrontChoice = NonNullable<SequenceChoices['inFront']>;

export const TURNS = ['slide', 'open'] as const;
/** How a defender turns: one slide with the runner first, or the hips opened at once. */
export type Turn = (typeof TURNS)[number];

/** A usual reaction, seconds. */
const REACTION_S = 0.2;
/** How long a race is looked at, seconds. */
export const HORIZON_S = 3;
/** How hard runners set off, m/s²: with the top speed it gives the time constant where none was timed. */
const SET_OFF_MPS2 = 6.4;
/** A body's breadth for somebody of this height, metres. */
const KEEP_M = 0.3;
const GROWN_M = 1.75;
/** Head to head so far for the grown, one body height for a child, metres. */
const DEPTH_M = 1.6;
const DALLY_MPS = 1.2;
/** The way round a defender who stands, and what a slide adds to it, metres; the angle off straight ahead. */
const ROUND_M = 0.9;
const SLIDE_WIDENS_M = 0.5;
const RELEASE_DEG = 35;
/** What a turn takes and what ground it gains, by the way of turning. */
const TURN_USUALLY: Record<Turn, { turnS: number; backM: number }> = {
  slide: { turnS: 0.45, backM: 0.25 },
  open: { turnS: 0.25, backM: 0.35 },
};
/** Who cannot even be held at this part of top speed is drawn at it all the same. */
const SLOWEST_DRAWN = 0.2;

const rounded = (value: number): number => Number(value.toFixed(2));

const topOf = ({ model, sprint }: Body): Pick<FrontChoice, 'runnerTopMps' | 'runnerTauS'> => {
  const topMps = sprint?.topSpeedMps ?? (model.topLengthM * model.topCadenceSpm) / 60;
  return {
    runnerTopMps: rounded(topMps),
    runnerTauS: rounded(sprint?.tauS ?? topMps / SET_OFF_MPS2),
  };
};

/** The phase in which ground is given, with the read that ends it; undefined where a movement has none. */
export const giving = ({ phases }: Movement): MovementPhase | undefined =>
  phases.find((phase) => phase.steps.kind === 'give-ground' && phase.read);

/**
 * What is reckoned with while giving ground when nothing was chosen: a runner as fast as the defender.
 *
 * @example usualFront(giveGround, body).steps // 4
 */
export const usualFront = (movement: Movement, body: Body): FrontChoice | null => {
  const give = giving(movement)?.steps;
  if (give?.kind !== 'give-ground') return null;
  const size = body.heightM / GROWN_M;
  return {
    depthM: rounded(Math.min(DEPTH_M, body.heightM)),
    runnerId: null,
    ...topOf(body),
    dallySpeedMps: DALLY_MPS,
    steps: give.steps,
    stepM: rounded(spanM(give.step, body)),
    cadenceSpm: give.cadenceSpm,
    slideS: TURN_USUALLY.slide.turnS,
    slideBackM: rounded(TURN_USUALLY.slide.backM * size),
    openS: TURN_USUALLY.open.turnS,
    openBackM: rounded(TURN_USUALLY.open.backM * size),
    keepM: KEEP_M,
  };
};

/**
 * An athlete as the runner of a race: own sprint times, or what the own steps come to.
 *
 * @example
 * runnerTimes({ trials: [], heightM: 1.75, legM: null, shoeM: null, hand: 'right', takeoffFoot: 'left' }).runnerTopMps
 * // 7.68
 */
export const runnerTimes = (
  athlete: Parameters<typeof bodyOf>[0],
): Pick<FrontChoice, 'runnerTopMps' | 'runnerTauS'> => topOf(bodyOf(athlete));

/**
 * How a movement turns, as it is taught.
 *
 * @example turnOf(giveGround) // 'slide'
 */
export const turnOf = (taught: Pick<Movement, 'phases'>): Turn =>
  taught.phases.some(({ steps }) => steps.kind === 'shuffle') ? 'slide' : 'open';

/**
 * The school that decides how a defender turns, with the way that slides and the way that opens; undefined where a movement has but one.
 *
 * @example turningSchool(giveGround) // { school: 'turn', slide: 'slide', open: 'open' }
 */
export const turningSchool = (
  movement: Movement,
): ({ school: string } & Record<Turn, string>) | undefined => {
  for (const { code, options } of movement.schools) {
    const of = (turn: Turn): string | undefined =>
      options.find((option) => turnOf(bySchools(movement, { [code]: option.code })) === turn)?.code;
    const [slide, open] = [of('slide'), of('open')];
    if (slide !== undefined && open !== undefined) return { school: code, slide, open };
  }
  return undefined;
};

/**
 * The race between runner and defender as the core solves it.
 *
 * @param turn how the defender turns
 * @param fraction how much of the runner's top speed is run
 * @param speed the part of full speed at which all of it is practised
 * @example
 * const front = usualFront(giveGround, body);
 * frontInput(front, body, 'slide').runner.fraction // 1
 */
export const frontInput = (
  chosen: FrontChoice,
  body: Body,
  turn: Turn,
  { fraction = 1, speed = 1 }: { fraction?: number; speed?: number } = {},
): InFrontInput => {
  // Against nobody in particular a defender who was never timed is as fast as the runner.
  const timed = chosen.runnerId || body.sprint ? topOf(body) : chosen;
  const size = body.heightM / GROWN_M;
  return {
    depthM: chosen.depthM,
    keepM: chosen.keepM,
    horizonS: HORIZON_S,
    runner: {
      topSpeedMps: chosen.runnerTopMps,
      tauS: chosen.runnerTauS,
      fraction,
      dallySpeedMps: chosen.dallySpeedMps * speed,
      sideM: (ROUND_M + (turn === 'slide' ? SLIDE_WIDENS_M : 0)) * size,
      releaseDeg: RELEASE_DEG,
    },
    defender: {
      reactionS: (body.reactionS ?? REACTION_S) / speed,
      steps: chosen.steps,
      stepM: chosen.stepM,
      cadenceSpm: chosen.cadenceSpm * speed,
      turnS: (turn === 'slide' ? chosen.slideS : chosen.openS) / speed,
      turnBackM: turn === 'slide' ? chosen.slideBackM : chosen.openBackM,
      topSpeedMps: timed.runnerTopMps * speed,
      tauS: timed.runnerTauS,
    },
  };
};

/** A change that would hold a faster runner for two seconds, and whom it would hold. */
export type Helps = { what: string; change: Partial<FrontChoice> | { turn: Turn }; holds: number };

/** What a coach may change, each by as much as is easily taught. */
const changesOf = (chosen: FrontChoice, turn: Turn): Omit<Helps, 'holds'>[] => {
  const [turnKey, backKey] =
    turn === 'slide' ? (['slideS', 'slideBackM'] as const) : (['openS', 'openBackM'] as const);
  return [
    turn === 'slide'
      ? { what: 'open the hips at once', change: { turn: 'open' } }
      : { what: 'slide first', change: { turn: 'slide' } },
    { what: '20 cm more room', change: { depthM: rounded(chosen.depthM + 0.2) } },
    {
      what: 'a turn 0.1 s quicker',
      change: { [turnKey]: rounded(Math.max(0.05, chosen[turnKey] - 0.1)) },
    },
    {
      what: '10 cm more ground in the turn',
      change: { [backKey]: rounded(chosen[backKey] + 0.1) },
    },
    { what: 'one short step more', change: { steps: Math.min(12, chosen.steps + 1) } },
    { what: 'one short step fewer', change: { steps: Math.max(0, chosen.steps - 1) } },
  ];
};

/**
 * The changes that help, most first, by the fastest runner who is held for two seconds.
 *
 * @returns only those that hold a runner who is faster by half a hundredth at least
 * @example
 * const front = usualFront(giveGround, body);
 * whatHelps(front, body, 'slide').length // 5
 */
export const whatHelps = (chosen: FrontChoice, body: Body, turn: Turn): Helps[] => {
  const holdsAt = (now: FrontChoice, way: Turn): number =>
    inFront(frontInput(now, body, way)).holds[1] ?? 0;
  const nowHolds = holdsAt(chosen, turn);
  return changesOf(chosen, turn)
    .map((option) => ({
      ...option,
      holds:
        'turn' in option.change
          ? holdsAt(chosen, option.change.turn)
          : holdsAt({ ...chosen, ...option.change }, turn),
    }))
    .filter(({ holds }) => holds >= nowHolds + 0.005)
    .sort((a, b) => b.holds - a.holds);
};

/** How the race comes out by one way of turning, and the runner who is drawn. */
export type Front = InFront & {
  /** the runner in the drawing, as a part of top speed: the fastest who is held to its end */
  drawn: number;
};

/**
 * How long the defender stays in front, whom they hold, and who is drawn.
 *
 * @example
 * const front = usualFront(giveGround, body);
 * frontOf(front, body, 'slide').frontS > 0 // true
 */
export const frontOf = (chosen: FrontChoice, body: Body, turn: Turn, speed = 1): Front => {
  const front = inFront(frontInput(chosen, body, turn, { speed }));
  return { ...front, drawn: front.holds[2] ?? SLOWEST_DRAWN };
};
