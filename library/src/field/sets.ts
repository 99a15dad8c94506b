import { lastOf, standing, type TurnKey } from '@gravek/core/session/repLog';
import {
  retriesMissed,
  type RunSet,
  runState,
  type RunState,
  together,
  type Turn,
  turnOrder,
} from '@gravek/core/session/runOrder';
import { seriesStand } from '@gravek/core/session/seriesNext';
import {
  keptVariants,
  struckKey,
  type Variant,
  variantFrom,
  variantKey,
} from '@gravek/core/session/variants';
import { runSetOf, type TargetKind } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import type { RunAthlete, RunBundle } from '@gravek/contract/run';
import { fieldBase } from '../session/fieldRun';
import { cameTo, leftBy, passedOver, repsFor, whyLeft } from '../session/restrictions';
import { atOnce } from '../session/sessionTime';
import { sideWords, variantWords } from '../session/setWords';
import { asVaried, type Base, demandOfSet } from '../session/work';
import type { FieldRow, SetWork } from './log';

/** One drill set of the session, where it stands and what it is of. */
export type SetRun = SetWork & {
  /** everybody of it, latecomers last */
  people: readonly string[];
  state: RunState;
  /** who goes now: one, or all that go at once */
  now: Turn[];
  /** the row that undo takes back here */
  last: FieldRow | null;
  /** why athletes of the set do not take part, by athlete */
  away: ReadonlyMap<string, string>;
  /** why others are not here just now, by athlete: their group is at another station */
  elsewhere: ReadonlyMap<string, string>;
  /** the rows with which some of them have left, by athlete: taken back, they are in again */
  left: ReadonlyMap<string, FieldRow>;
  /** reps of a combination and round of those who may do fewer */
  fewer: ReadonlyMap<string, number>;
  athleteOf: (id: string) => RunAthlete;
  /** what is run in a combination */
  movementOf: (variant: Variant) => Movement | null;
  /** whether a turn is of a combination that still lacked makes when it was done last before the session */
  isOwed: (turn: Turn) => boolean;
  /** what an athlete has made of a turn's combination in its round so far */
  madeSoFar: (turn: Turn) => { made: number; tried: number };
  /** combinations that an athlete has not made often enough in a round, whether or not they come again; none where makes do not count */
  stillToMake: (athleteId: string, round: number) => StillToMake[];
};

/** A combination that lacks makes, in words. */
export type StillToMake = { what: string; made: number };

/** Somebody of the club of whom the phone knows no more than the name. */
const stranger = (id: string, name: string): RunAthlete => ({
  id,
  name,
  hand: 'right',
  takeoffFoot: 'left',
  shoeM: null,
  archived: false,
  restrictions: [],
  body: null,
});

/** All who may run in a session: its athletes, and those of the club who may come late. */
export const fieldAthletes = ({
  athletes,
  latecomers,
}: Pick<RunBundle, 'athletes' | 'latecomers'>): RunAthlete[] => [
  ...athletes,
  ...latecomers.map(({ id, name }) => stranger(id, name)),
];

/**
 * What the drill sets of a session are of.
 *
 * @param movementOf every movement that the session names, by its code
 */
export const setWorks = (
  { session, plans }: Pick<RunBundle, 'session' | 'plans'>,
  movementOf: (code: string) => Movement,
): SetWork[] =>
  session.drillSets.map((set) => {
    const plan = plans.find((plan) => plan.drillSetId === set.id);
    return { set, plan, base: plan ? fieldBase(plan, movementOf) : null };
  });

/** Everybody of a drill set, latecomers last, and their turns in order. */
export type SetOrder = {
  run: RunSet;
  people: string[];
  turns: Turn[];
  /** combinations that lacked makes last time, by athlete */
  owed: ReadonlyMap<string, readonly string[]>;
};

/** Who came late to a drill set, in the order in which they came. */
export const latecomersOf = (log: readonly FieldRow[], drillSetId: string): string[] => [
  ...cameTo(log, drillSetId).keys(),
];

/**
 * The order of turns of a drill set; it changes only when somebody comes late.
 *
 * @param missed what athletes still owed of its makes last time: they begin there
 */
export const setOrder = (
  { set }: Pick<SetWork, 'set'>,
  late: readonly string[],
  missed: RunBundle['missed'] = [],
): SetOrder => {
  const people = [...new Set([...set.athleteIds, ...late])];
  const run = { ...runSetOf(set), athleteIds: people };
  const owed = new Map(
    missed.flatMap(({ drillSetId, athleteId, variants }) =>
      drillSetId === set.id ? [[athleteId, variants] as const] : [],
    ),
  );
  // A set of which all is struck out has nothing to do.
  return { run, people, turns: keptVariants(run).length > 0 ? turnOrder(run, owed) : [], owed };
};

const COUNTED_ALONE: readonly TargetKind[] = ['makes', 'touches', 'seconds'];

/**
 * Whether a coach looks at one athlete at a time, since makes, touches or seconds of each count.
 *
 * @example
 * const set = { target: 'makes' };
 * isCountedAlone({ set, base: { movement: giveGround } }) // true
 */
export const isCountedAlone = ({ set, base }: Pick<SetWork, 'set' | 'base'>): boolean =>
  base !== null && base.movement !== null && COUNTED_ALONE.includes(set.target);

/** Whether those who are up are looked at together, also when only one of them is left. */
export const isRow = (work: Pick<SetWork, 'set' | 'base'>): boolean =>
  work.set.stand === 'row' && !isCountedAlone(work);

const madeOf = (tries: readonly FieldRow[]): { made: number; tried: number } => ({
  made: tries.filter((row) => row.made).length,
  tried: tries.length,
});

/** A combination of several in words; its side only where they differ in that. */
const combinationWords = (
  base: Base | null,
  variants: readonly Variant[],
  variant: Variant,
  athlete: RunAthlete | undefined,
): string => {
  const isOnBoth = variants.some(({ side }) => side !== variant.side);
  const side = isOnBoth
    ? sideWords(base?.movement ?? null, athlete ? [athlete] : [], variant.side)
    : '';
  const words = [...variantWords({ movement: base?.movement ?? null }, variant), side];
  return words.filter((word) => word !== '').join(', ') || 'as planned';
};

/** What holds for a whole session while it is run. */
export type FieldSession = {
  athletes: readonly RunAthlete[];
  log: readonly FieldRow[];
  /** rows of other sessions with which somebody was stopped by pain, by athlete */
  painElsewhere: ReadonlyMap<string, FieldRow>;
  /** what this device calls itself */
  device: string;
  /** who is brought forward on this device */
  first: string | null;
  /** lanes of the ground */
  lanes: number;
  /** day of the club, yyyy-mm-dd */
  today: string;
  /** who of a drill set is at another station just now and why, by drill set */
  elsewhere?: ReadonlyMap<string, ReadonlyMap<string, string>>;
};

/**
 * A drill set as it stands, worked out from its log alone: a reload, a second phone or a late row can never
 * put it in a state of its own.
 *
 * @example
 * const set = setOfWork('s', { kind: 'movement', movement: 'give-ground', drill: null }, ['ana'], giveGround);
 * const base = { name: '', movement: giveGround, choices: plainChoices(giveGround, null) };
 * const work = { set, base, plan: undefined };
 * const ana = { id: 'ana', name: 'Ana', hand: 'right', takeoffFoot: 'left', body, restrictions: [] };
 * const session = { athletes: [ana], log: [], painElsewhere: new Map(), device: '', first: null, lanes: 1, today: '' };
 * setRun(work, setOrder(work, []), session).now.map(({ athleteId }) => athleteId) // ['ana']
 */
export const setRun = (
  work: SetWork,
  { run, people, turns, owed }: SetOrder,
  { athletes, log, painElsewhere, device, first, lanes, today, elsewhere }: FieldSession,
): SetRun => {
  const { set, base } = work;
  const athleteBy = new Map(athletes.map((athlete) => [athlete.id, athlete]));
  const left = leftBy(log);
  const away = passedOver(people, athletes, base ? demandOfSet(base, set) : [], today);
  for (const [id, row] of [...painElsewhere, ...left]) {
    if (people.includes(id)) away.set(id, whyLeft(athleteBy.get(id)?.name ?? 'An athlete', row));
  }
  const fewer = new Map(
    athletes.flatMap(({ id, restrictions }) => {
      const reps = repsFor(set.reps, restrictions, today);
      return reps < set.reps && people.includes(id) ? [[id, reps] as const] : [];
    }),
  );
  const rows = log.filter((row) => row.drillSetId === set.id);
  const elsewhereHere = elsewhere?.get(set.id) ?? new Map<string, string>();
  const notHere = new Set([...away.keys(), ...elsewhereHere.keys()]);
  const state = runState(run, rows, notHere, fewer, first, turns);
  const present = people.filter((id) => !notHere.has(id)).length;
  const isAlone = ['turns', 'stations'].includes(set.stand) || isCountedAlone(work);
  const stands = standing(rows);
  const triesOf = ({ athleteId, set: round, side, variant }: Omit<TurnKey, 'rep' | 'drillSetId'>) =>
    stands.filter(
      (row) =>
        row.athleteId === athleteId &&
        row.set === round &&
        row.side === side &&
        row.variant === variant &&
        row.made !== null,
    );
  return {
    ...work,
    people,
    away,
    elsewhere: elsewhereHere,
    left,
    fewer,
    state,
    now: together(state, isAlone ? 1 : atOnce(set, present, lanes)),
    last: lastOf(rows, device),
    athleteOf: (id) => athleteBy.get(id) ?? stranger(id, 'An athlete'),
    movementOf: (variant) => {
      if (!base?.movement || !base.choices) return null;
      const varied = asVaried({ movement: base.movement, choices: base.choices }, variant);
      return 'why' in varied ? base.movement : varied.movement;
    },
    isOwed: (turn) =>
      owed.get(turn.athleteId)?.includes(struckKey(variantFrom(turn.variant, turn.side))) ?? false,
    madeSoFar: (turn) => madeOf(triesOf(turn)),
    stillToMake: (athleteId, round) => {
      if (run.makes === null) return [];
      const variants = keptVariants(run);
      const variantsDone = variants.map((variant) =>
        madeOf(
          triesOf({ athleteId, set: round, side: variant.side, variant: variantKey(variant) }),
        ),
      );
      const rules = { makes: run.makes, tries: run.reps, again: retriesMissed(run) };
      return seriesStand(rules, variantsDone).left.map((place) => ({
        what: combinationWords(work.base, variants, variants[place]!, athleteBy.get(athleteId)),
        made: variantsDone[place]!.made,
      }));
    },
  };
};
