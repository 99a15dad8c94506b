import { whole } from '../check';
import { isAnswer, standing, turnKey, wasRun, type LogRow, type TurnKey } from './repLog';
import { groupsOf } from './rotation';
import {
  keptVariants,
  slotsOf,
  struckKey,
  variantKey,
  type Slot,
  type Varied,
  type Variant,
} from './variants';

/** How people stand: one after the other, all at once on a call, in pairs, at stations, in roles. */
export const STANDS = ['turns', 'row', 'pairs', 'stations', 'roles'] as const;
export type Stand = (typeof STANDS)[number];

export type RunSet = Varied & {
  drillSetId: string;
  athleteIds: readonly string[];
  /** rounds */
  sets: number;
  /** of each combination in a round; with makes, the most tries */
  reps: number;
  /** go on to the next combination after so many makes; null where attempts count */
  makes: number | null;
  /** at the end of a round once more through what lacks its makes, with as many tries again */
  retryMissed?: boolean | undefined;
  stand: Stand;
  restS: number;
  setRestS: number;
};

export type Turn = TurnKey & {
  /** the athlete's how-manieth turn of the drill set, from 1 */
  turn: number;
  /** `turnKey` of it */
  key: string;
};

export type LoggedRep = LogRow & {
  /** when it was logged by the device's clock, milliseconds since 1970; only rest goes by it */
  atMs: number;
};

export type RunState = {
  /** null when the drill set is done */
  up: Turn | null;
  /** all that is left to do, in order */
  open: Turn[];
  /** who comes after, nearest first, one entry an athlete */
  next: string[];
  /** when the one who is up has rested, milliseconds since 1970; null when there is nothing to rest from */
  readyAtMs: number | null;
  done: number;
  total: number;
};

/** What is done of a drill set in a round, before anybody's name is put to it. */
type Slotted = { set: number; slot: Slot; athleteIds: readonly string[] };

/** Groups go round the stations, each of which is one combination. */
const atStations = (set: RunSet, round: number): Slotted[] => {
  const variants = keptVariants(set);
  const groups = groupsOf(set.athleteIds, variants.length);
  return variants.flatMap((_, shift) =>
    Array.from({ length: set.reps }, (_, i) => i + 1).flatMap((rep) =>
      groups.map((athleteIds, group) => ({
        set: round,
        slot: { variant: variants[(group + shift) % variants.length]!, rep },
        athleteIds,
      })),
    ),
  );
};

/** What comes in a round, and once more where that is wanted. */
const slotsInRound = (set: RunSet, round: number): Slot[] => {
  const slots = slotsOf(set, set.reps, round);
  if (!retriesMissed(set)) return slots;
  return [...slots, ...slots.map(({ variant, rep }) => ({ variant, rep: rep + set.reps }))];
};

/** Combinations of which athletes still owe makes from last time, by athlete, as `struckKey` has them. */
export type Missed = ReadonlyMap<string, readonly string[]>;

/** Which combination somebody does when the set comes to another: what was missed first, all others as they are listed. */
const missedFirst = (
  variants: readonly Variant[],
  missed: readonly string[],
): ReadonlyMap<string, Variant> => {
  const isMissed = (variant: Variant): boolean => missed.includes(struckKey(variant));
  const order = [...variants.filter(isMissed), ...variants.filter((variant) => !isMissed(variant))];
  return new Map(variants.map((variant, i) => [struckKey(variant), order[i]!]));
};

/**
 * Whether a set can begin at what was missed: where its makes count, and the coach has neither mixed it nor
 * put slow ones before fast ones.
 *
 * @example
 * ['blocked', 'random'].map((order) => beginsAtMissed({ makes: 5, order, stand: 'turns', vary: { paces: [] } }))
 * // [true, false]
 */
export const beginsAtMissed = ({ makes, order, stand, vary }: RunSet): boolean =>
  makes !== null && order === 'blocked' && stand !== 'stations' && vary.paces.length < 2;

/**
 * Whether a round ends with what was missed in it: where its makes count. At stations nobody can go back, since
 * the others are there.
 *
 * @example
 * [true, false].map((retryMissed) => retriesMissed({ makes: 5, stand: 'turns', retryMissed })) // [true, false]
 */
export const retriesMissed = ({ makes, stand, retryMissed }: Omit<RunSet, 'drillSetId'>): boolean =>
  retryMissed === true && makes !== null && stand !== 'stations';

/**
 * Every turn of a drill set in order: round after round, combination after combination as its order
 * says, everybody does the first rep in turn, then the second, and so on. At stations each group has a
 * combination of its own, and they change. Where what was missed comes once more, a round has the same turns a
 * second time, their reps counted on; `runState` opens only those that are needed.
 *
 * @param missed begins everybody at what they missed last time, where the set can
 * @throws {RangeError} when rounds or reps are not within 1–100
 * @example
 * // Two makes of each spot; the wing was missed last time.
 * const vary = { ...AS_PLANNED.vary, spots: ['top', 'wing'] };
 * const set = { ...AS_PLANNED, vary, drillSetId: 's', athleteIds: ['ana'], sets: 1, reps: 4, makes: 2, stand: 'turns' };
 * turnOrder(set, new Map([['ana', ['own spot=wing']]]))[0]!.variant // 'spot=wing'
 */
export const turnOrder = (set: RunSet, missed: Missed = new Map()): Turn[] => {
  whole('sets', set.sets, { min: 1, max: 100 });
  whole('reps', set.reps, { min: 1, max: 100 });
  const { drillSetId } = set;
  const counted = new Map<string, number>();
  const begins = beginsAtMissed(set)
    ? new Map([...missed].map(([id, keys]) => [id, missedFirst(keptVariants(set), keys)]))
    : null;
  return Array.from({ length: set.sets }, (_, i) => i + 1).flatMap((round) => {
    const slotted: Slotted[] =
      set.stand === 'stations'
        ? atStations(set, round)
        : slotsInRound(set, round).map((slot) => ({
            set: round,
            slot,
            athleteIds: set.athleteIds,
          }));
    return slotted.flatMap(({ slot: { variant: listed, rep }, athleteIds }) =>
      athleteIds.map((athleteId) => {
        const variant = begins?.get(athleteId)?.get(struckKey(listed)) ?? listed;
        const { side } = variant;
        const key = variantKey(variant);
        const turn = (counted.get(athleteId) ?? 0) + 1;
        counted.set(athleteId, turn);
        const turnPlace = { drillSetId, athleteId, set: round, side, variant: key, rep };
        return { ...turnPlace, turn, key: turnKey(turnPlace) };
      }),
    );
  });
};

/** What an athlete does of one combination in a round. */
const bout = ({ athleteId, set, side, variant }: TurnKey): string =>
  `${athleteId}/${set}/${side} ${variant}`;

/** Whoever has made so many of a combination in a round is done with it there. */
const madeEnough = (set: RunSet, rows: readonly LogRow[]): ReadonlySet<string> => {
  if (set.makes === null) return new Set();
  const made = new Map<string, number>();
  for (const row of rows) {
    if (row.made === true && wasRun(row)) made.set(bout(row), (made.get(bout(row)) ?? 0) + 1);
  }
  return new Set([...made].flatMap(([key, many]) => (many >= set.makes! ? [key] : [])));
};

/**
 * Where a drill set stands, worked out from its log alone, so that a reload, a second phone or a late
 * row can never put it in a state of its own.
 *
 * @param log rows of this drill set, in any order
 * @param away athletes who have left the set; their open turns are passed over
 * @param most reps of a combination and round for athletes who may do fewer than the others; nothing that they
 *   missed comes once more
 * @param first who is brought forward: up before all others, as long as there is a turn to do
 * @param order `turnOrder(set)`, where it is known already
 * @example
 * const set = { ...AS_PLANNED, drillSetId: 's', athleteIds: ['ana', 'bo'], sets: 1, reps: 2, makes: null, stand: 'turns' };
 * runState(set, [], new Set(['ana'])).up!.athleteId // 'bo': Ana has left
 */
export const runState = (
  set: RunSet,
  log: readonly LoggedRep[],
  away: ReadonlySet<string> = new Set(),
  most: ReadonlyMap<string, number> = new Map(),
  first: string | null = null,
  order: readonly Turn[] = turnOrder(set),
): RunState => {
  const rows = standing(log.filter((row) => row.drillSetId === set.drillSetId));
  const answered = new Set(rows.filter(isAnswer).map(turnKey));
  const made = madeEnough(set, rows);
  const open: Turn[] = [];
  const inFirstPass = new Set<string>();
  let done = 0;
  for (const turn of order) {
    if (answered.has(turn.key)) done += 1;
    else if (
      !away.has(turn.athleteId) &&
      turn.rep <= (most.get(turn.athleteId) ?? Infinity) &&
      (made.size === 0 || !made.has(bout(turn)))
    ) {
      if (turn.rep <= set.reps) inFirstPass.add(bout(turn));
      // Whether it is missed is known only after the first tries.
      else if (inFirstPass.has(bout(turn))) continue;
      open.push(turn);
    }
  }
  const up = open.find((turn) => turn.athleteId === first) ?? open[0] ?? null;
  const next = [...new Set(open.map((turn) => turn.athleteId))].filter(
    (id) => id !== up?.athleteId,
  );
  return {
    up,
    open,
    next,
    readyAtMs: up && readyAt(set, rows, up),
    done,
    total: done + open.length,
  };
};

/**
 * Who goes together with the one who is up: of the same combination, round and rep, as many as can at
 * once, in the order of their turns.
 *
 * @example
 * const up = { set: 1, rep: 1, side: 'own', variant: '', athleteId: 'ana' };
 * const open = [up, { ...up, athleteId: 'bo' }, { ...up, athleteId: 'cy', rep: 2 }];
 * together({ up, open }, 3).map((turn) => turn.athleteId) // ['ana', 'bo']
 */
export const together = ({ up, open }: Pick<RunState, 'up' | 'open'>, atOnce: number): Turn[] =>
  up === null
    ? []
    : [
        up,
        ...open.filter(
          (turn) =>
            turn !== up &&
            turn.set === up.set &&
            turn.rep === up.rep &&
            turn.side === up.side &&
            turn.variant === up.variant,
        ),
      ].slice(0, Math.max(1, atOnce));

/** Rest after the athlete's own last rep, and after the round before. A skipped turn tires nobody. */
const readyAt = (set: RunSet, rows: readonly LoggedRep[], up: Turn): number | null => {
  let at: number | null = null;
  for (const row of rows) {
    if (!wasRun(row) && row.outcome !== 'again') continue;
    if (row.athleteId === up.athleteId) at = Math.max(at ?? 0, row.atMs + set.restS * 1000);
    if (row.set < up.set) at = Math.max(at ?? 0, row.atMs + set.setRestS * 1000);
  }
  return at;
};
