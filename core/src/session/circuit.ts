import { number, whole } from '../check';

/** Groups that go round stations, all by one clock. */
export type CircuitPlan = {
  /** how many stations, 1–12: as many rounds */
  stations: number;
  /** at a station, 0–120, above 0 */
  minutes: number;
  /** from station to station, seconds 0–900 */
  changeS: number;
};

/**
 * What somebody did to the clock. `of` names the act that an `undo` takes back, and the stretch that a `change`
 * ends, as `stretchName` has it: two coaches who press at once do not skip the next.
 */
export type ClockAct = {
  id: string;
  kind: 'start' | 'hold' | 'resume' | 'more' | 'change' | 'end' | 'undo';
  /** when, milliseconds since 1970 by the server's clock */
  atMs: number;
  of?: string | null | undefined;
};

/** Where the clock stands. */
export type ClockStand = {
  /** from 1; while they change the round that has ended; 0 before the start, the last one at the end */
  round: number;
  changing: boolean;
  /** of the round or the change; before the start until it, 0 where nobody has started it */
  leftS: number;
  held: boolean;
  /** the start lies in the past, and the last round has not ended */
  running: boolean;
  over: boolean;
};

/** What "one minute more" adds to a round or a change, seconds. */
export const MORE_S = 60;

type Stretch = { round: number; changing: boolean; lengthS: number };

/**
 * What a round or a change is called by an act.
 *
 * @example stretchName({ round: 2, changing: true }) // 'change 2'
 */
export const stretchName = ({ round, changing }: Pick<ClockStand, 'round' | 'changing'>): string =>
  `${changing ? 'change' : 'round'} ${round}`;

/** Rounds and the changes between them, in order. */
const stretchesOf = ({ stations, minutes, changeS }: CircuitPlan): Stretch[] => {
  whole('stations', stations, { min: 1, max: 12 });
  number('minutes', minutes, { above: 0, max: 120 });
  number('changeS', changeS, { min: 0, max: 900 });
  return Array.from({ length: stations }, (_, i) => i + 1).flatMap((round) => [
    { round, changing: false, lengthS: 60 * minutes },
    ...(round < stations && changeS > 0 ? [{ round, changing: true, lengthS: changeS }] : []),
  ]);
};

/**
 * How long groups need to go round all stations, seconds.
 *
 * @throws {RangeError} naming what is out of range
 * @example circuitS({ stations: 3, minutes: 8, changeS: 60 }) // 1560
 */
export const circuitS = (plan: CircuitPlan): number =>
  stretchesOf(plan).reduce((sum, { lengthS }) => sum + lengthS, 0);

/**
 * At which station a group is in a round.
 *
 * @param group place in the list of groups, from 0
 * @param round from 1
 * @returns place in the list of stations, from 0
 * @example stationOf(2, 2, 3) // 0: the third group has gone on to the first station
 */
export const stationOf = (group: number, round: number, stations: number): number =>
  (group + round - 1) % stations;

/**
 * Where a clock stands that several people may start, hold and change. All phones work it out from the same
 * acts, in the order of their times, so that none can be in a state of its own.
 *
 * @param acts in any order; those after `atMs` have not happened yet
 * @throws {RangeError} naming what is out of range
 * @example
 * const start = { id: 'a', kind: 'start', atMs: 0 };
 * clockStand({ stations: 2, minutes: 5, changeS: 30 }, [start], 310_000)
 * // { round: 1, changing: true, leftS: 20, held: false, running: true, over: false }
 */
export const clockStand = (
  plan: CircuitPlan,
  acts: readonly ClockAct[],
  atMs: number,
): ClockStand => {
  const stretches = stretchesOf(plan);
  const undone = new Set(
    acts.flatMap(({ kind, of, atMs: ms }) => (kind === 'undo' && ms <= atMs ? [of] : [])),
  );
  const valid = acts
    .filter(({ id, kind }) => kind !== 'undo' && !undone.has(id))
    .sort((a, b) => a.atMs - b.atMs || (a.id < b.id ? -1 : 1));
  // Before the start -1, at the end the number of stretches.
  let place = -1;
  let leftMs = 0;
  let isHeld = false;
  let nowMs = 0;
  const enter = (next: number): void => {
    place = next;
    leftMs = 1000 * (stretches[next]?.lengthS ?? 0);
  };
  const isRunning = (): boolean => place >= 0 && place < stretches.length;
  const goOnTo = (ms: number): void => {
    let passedMs = isHeld ? 0 : ms - nowMs;
    nowMs = ms;
    while (isRunning() && passedMs >= leftMs) {
      passedMs -= leftMs;
      enter(place + 1);
    }
    if (isRunning()) leftMs -= passedMs;
  };
  for (const { kind, of, atMs: actMs } of valid.filter((act) => act.atMs <= atMs)) {
    goOnTo(actMs);
    if (kind === 'start' && place < 0) {
      isHeld = false;
      enter(0);
    } else if (kind === 'end') {
      isHeld = false;
      enter(-1);
    } else if (isRunning()) {
      if (kind === 'hold') isHeld = true;
      if (kind === 'resume') isHeld = false;
      if (kind === 'more') leftMs += 1000 * MORE_S;
      if (kind === 'change' && (!of || of === stretchName(stretches[place]!))) {
        isHeld = false;
        enter(place + 1);
      }
    }
  }
  goOnTo(atMs);
  if (place < 0) {
    const coming = valid.find(({ kind, atMs: ms }) => kind === 'start' && ms > atMs);
    const leftS = coming ? (coming.atMs - atMs) / 1000 : 0;
    return { round: 0, changing: false, leftS, held: false, running: false, over: false };
  }
  const at = stretches[place];
  return {
    round: at?.round ?? plan.stations,
    changing: at?.changing ?? false,
    leftS: leftMs / 1000,
    held: isHeld,
    running: at !== undefined,
    over: at === undefined,
  };
};

/**
 * Where every group is by a clock that runs without a stop: in each round at its station, while they change at
 * the one to go to.
 *
 * @param atS seconds on the same clock as `startS`
 * @returns `where` null before the start and after the last round
 * @throws {RangeError} naming what is out of range, or when there are more groups than stations
 * @example
 * circuit({ groups: ['red'], stations: ['wall', 'gaps'], minutes: 5, changeS: 30, startS: 0, atS: 310 })
 * // { round: 1, where: { red: 'gaps' }, leftS: 20, changing: true }
 */
export const circuit = ({
  groups,
  stations,
  minutes,
  changeS,
  startS,
  atS,
}: {
  groups: readonly string[];
  stations: readonly string[];
  minutes: number;
  changeS: number;
  startS: number;
  atS: number;
}): {
  round: number;
  where: Record<string, string> | null;
  leftS: number;
  changing: boolean;
} => {
  if (groups.length > stations.length)
    throw new RangeError(
      `groups must be at most as many as stations, got ${groups.length} for ${stations.length}`,
    );
  const plan = { stations: stations.length, minutes, changeS };
  const start: ClockAct = { id: '', kind: 'start', atMs: 1000 * startS };
  const { round, changing, leftS, running } = clockStand(plan, [start], 1000 * atS);
  const at = changing ? round + 1 : round;
  const where = running
    ? Object.fromEntries(
        groups.map((group, i) => [group, stations[stationOf(i, at, stations.length)]!]),
      )
    : null;
  return { round, where, leftS, changing };
};

/** A word that is called from the clock, so many seconds from now. */
export type ClockCall = { inS: number; word: 'last-minute' | 'change' | 'ready' | 'go' | 'stop' };

/** Before the clock goes on, everybody is told to be ready, seconds. */
const READY_S = 5;
const LAST_MINUTE_S = 60;

/**
 * What is called until the round or the change that runs has ended.
 *
 * @example
 * const stand = { round: 1, changing: false, leftS: 70, held: false, running: true, over: false };
 * clockCalls({ stations: 2, minutes: 5, changeS: 30 }, stand)
 * // [{ inS: 10, word: 'last-minute' }, { inS: 70, word: 'change' }]
 */
export const clockCalls = (plan: CircuitPlan, stand: ClockStand): ClockCall[] => {
  const { round, changing, leftS, held, running, over } = stand;
  if (held || over || (!running && leftS === 0)) return [];
  const isToBegin = changing || !running;
  const calls: ClockCall[] = isToBegin
    ? [
        { inS: leftS - READY_S, word: 'ready' },
        { inS: leftS, word: 'go' },
      ]
    : [
        ...(plan.minutes > 1 ? [{ inS: leftS - LAST_MINUTE_S, word: 'last-minute' as const }] : []),
        { inS: leftS, word: round === plan.stations ? 'stop' : 'change' },
        // Without time to change the next round begins at once.
        ...(plan.changeS === 0 && round < plan.stations
          ? [{ inS: leftS + 1, word: 'go' as const }]
          : []),
      ];
  return calls.filter(({ inS }) => inS > 0);
};
