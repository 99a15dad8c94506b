import type { Foot } from '../feet';

/** On which foot the movement is done: as the athlete does it, or seen in a mirror. */
export type Side = 'own' | 'other';

export const OUTCOMES = [
  'clean',
  'fault',
  'again',
  'skip',
  'done',
  'void',
  'in',
  'out',
  'pain',
] as const;
/**
 * `again`: the finish mark was missed, the rep is done once more; `skip`: the athlete passed this
 * turn; `done`: a round of a warm-up, at which nobody looks for faults; `void`: takes an earlier row back;
 * `in`: the athlete came late and joins the drill set; `out`: the athlete is put out for the rest of
 * the session; `pain`: so too, since something hurt.
 */
export type Outcome = (typeof OUTCOMES)[number];

/** Which rep is meant: by its values, never by its place in a list that may be changed. */
export type TurnKey = {
  drillSetId: string;
  athleteId: string;
  /** from 1 */
  set: number;
  side: Side;
  /** what differs from the plan, as `variantKey` has it; empty where nothing does */
  variant: string;
  /** from 1 */
  rep: number;
};

/** Where a row stands in the order of logging. */
export type LogPlace = {
  /** what logged it */
  device: string;
  /** the device's own running number */
  deviceNo: number;
  /** when the server took it, counted in its session; null while it waits on the device */
  arrival: number | null;
};

/** A row of the log, as far as order and standing go. */
export type LogRow = TurnKey &
  LogPlace & {
    id: string;
    outcome: Outcome;
    /** whether it was made, where makes count */
    made: boolean | null;
    /** whether somebody watched it: of a row on call only a few are */
    watched: boolean;
    /** id of the row that a void takes back */
    voids: string | null;
  };

/** What was asked of a rep, besides its turn: reps are compared within and between these. */
export type Condition = {
  movement: string;
  /** code of the drill whose part was run; null for the whole */
  part: string | null;
  side: Side;
  /** the foot that goes first; null where no plan says */
  leadFoot: Foot | null;
  /** asked speed, whole percent of full; null where no plan says */
  speedPct: number | null;
  /** how far up its ladder it was run; null where no plan says */
  rung: string | null;
  /** the exit that was asked, as `phase:option`; null where none was */
  exit: string | null;
};

/** By which ways it was taught, each as `school:way`; null on rows of before, which do not say. */
export type Taught = { ways: readonly string[] | null };

/** What reps put on a body: feet that land, take-offs, throws, metres run fast. */
export type BodyLoad = { contacts: number; jumps: number; throws: number; sprintM: number };
export const LOAD_KINDS = [
  'contacts',
  'jumps',
  'throws',
  'sprintM',
] as const satisfies (keyof BodyLoad)[];
export type LoadKind = (typeof LOAD_KINDS)[number];

/** A row as it is counted. */
export type CountedRow = LogRow &
  Condition &
  Taught & {
    sessionId: string;
    faults: readonly string[];
    /** the fault that the athlete's one cue was for */
    cue: string | null;
    /** the athlete's how-manieth turn of the drill set */
    turn: number;
    /** moment of logging, ISO 8601 */
    at: string;
    /** account that logged it; null where nobody knows any more */
    loggedBy: string | null;
    /** what it put on the body; null where that is not known */
    load: BodyLoad | null;
    /** the exit that was taken; null where nobody said */
    taken: string | null;
    /** whether that answers the exit that was asked; null where nothing was asked or nobody said */
    right: boolean | null;
    /** seconds held, where seconds count */
    heldS: number | null;
    /** seconds from the call until the athlete moved; null where not timed */
    lateS: number | null;
    /** what has timed that; null on rows of before, which a coach's tap has */
    lateBy: string | null;
    /** where on the ground, by the coach's name for it; null where no spot was named */
    spot: string | null;
    /** moments of touches, seconds from the go or from the first; null where touches do not count */
    touchS: readonly number[] | null;
    /** metres and seconds run, where those count and are known */
    ranM: number | null;
    ranS: number | null;
    /** codes of the faults that it could show, as `couldShow` has them */
    could: readonly string[];
  };

/**
 * Names a turn; two rows with the same key are about the same rep.
 *
 * @example
 * turnKey({ drillSetId: 's1', athleteId: 'ana', set: 1, side: 'own', variant: '', rep: 2 })
 * // 's1/ana/1/own/2/'
 */
export const turnKey = (turn: TurnKey): string =>
  `${turn.drillSetId}/${turn.athleteId}/${turn.set}/${turn.side}/${turn.rep}/${turn.variant}`;

/**
 * Groups of a list by a key, in the order in which the keys first come.
 *
 * @example
 * [...groupBy(['ana', 'bo', 'cy'], (name) => name.length)] // [[3, ['ana']], [2, ['bo', 'cy']]]
 */
export const groupBy = <T>(list: readonly T[], keyOf: (item: T) => string): Map<string, T[]> => {
  const groups = new Map<string, T[]>();
  for (const item of list) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
};

/**
 * Rows in the order of logging: by the device's own number within a device, by arrival between devices;
 * what still waits on a device comes last. Clocks play no part. A row that arrived before an earlier row
 * of its own device counts as having arrived with that one.
 *
 * @example
 * // Number 1 comes first, although it arrived later.
 * const rows = [{ id: 'y', device: 'a', deviceNo: 2, arrival: 1 }, { id: 'x', device: 'a', deviceNo: 1, arrival: 2 }];
 * inLogOrder(rows).map(({ id }) => id) // ['x', 'y']
 */
export const inLogOrder = <R extends LogPlace & { id: string }>(rows: readonly R[]): R[] => {
  const arrived = new Map<R, number>();
  for (const deviceRows of groupBy(rows, (row) => row.device).values()) {
    let latest = 0;
    for (const row of deviceRows.sort(
      (a, b) => a.deviceNo - b.deviceNo || (a.id < b.id ? -1 : 1),
    )) {
      latest = Math.max(latest, row.arrival ?? Infinity);
      arrived.set(row, latest);
    }
  }
  const order = (a: R, b: R): number => {
    const [first, second] = [arrived.get(a)!, arrived.get(b)!];
    // Infinity minus itself is no number.
    if (first !== second) return first < second ? -1 : 1;
    if (a.device !== b.device) return a.device < b.device ? -1 : 1;
    return a.deviceNo - b.deviceNo || (a.id < b.id ? -1 : 1);
  };
  return [...rows].sort(order);
};

/**
 * Whether the athlete did the rep, so that it counts.
 *
 * @example wasRun({ outcome: 'skip' }) // false
 */
export const wasRun = ({ outcome }: { outcome: Outcome }): boolean =>
  outcome === 'clean' || outcome === 'fault';

/**
 * Whether a row answers its turn; a rep to be done again and an athlete who comes or leaves do not.
 *
 * @example isAnswer({ outcome: 'again' }) // false
 */
export const isAnswer = ({ outcome }: { outcome: Outcome }): boolean =>
  outcome === 'clean' || outcome === 'fault' || outcome === 'skip' || outcome === 'done';

/**
 * Whether with this row the athlete leaves the session.
 *
 * @example isLeaving({ outcome: 'pain' }) // true
 */
export const isLeaving = ({ outcome }: { outcome: Outcome }): boolean =>
  outcome === 'out' || outcome === 'pain';

/** The rows of one turn that stand, in order: attempts done again and leaving, then the one answer. */
const standingOfTurn = <R extends LogRow>(rows: readonly R[], voided: ReadonlySet<string>): R[] => {
  const left = rows.filter((row) => row.outcome !== 'void' && !voided.has(row.id));
  const ordered = left.length > 1 ? inLogOrder(left) : left;
  const run = ordered.filter(wasRun);
  const answer = run.find(({ watched }) => watched) ?? run[0] ?? ordered.find(isAnswer);
  return [...ordered.filter((row) => !isAnswer(row)), ...(answer === undefined ? [] : [answer])];
};

/**
 * The rows of a log that stand: the one rule that phone, server, counts and reports go by. A void takes
 * back the row of its own turn that it names. Of several answers to one turn, as two devices give them,
 * the first that was run and watched stands, else the first that was run, else the first skip; when it is
 * taken back the next one stands in.
 * Attempts to be done `again`, and rows with which an athlete leaves, stand beside it.
 *
 * @param log rows of any turns, in any order
 * @returns turn by turn, in the order in which the turns first come
 * @example
 * // Two phones answered one turn; the row that arrived first stands.
 * const turn = { drillSetId: 's', athleteId: 'ana', set: 1, side: 'own', variant: '', rep: 1 };
 * const row = { ...turn, outcome: 'clean', voids: null, watched: true, deviceNo: 1 };
 * standing([
 *   { ...row, id: 'a', device: 'phone', arrival: 2 },
 *   { ...row, id: 'b', device: 'tablet', arrival: 1 },
 * ]).map(({ id }) => id) // ['b']
 */
export const standing = <R extends LogRow>(log: readonly R[]): R[] =>
  [...groupBy(log, turnKey).values()].flatMap((rows) => {
    const voided = new Set<string>();
    for (const row of rows) if (row.outcome === 'void' && row.voids) voided.add(row.voids);
    return standingOfTurn(rows, voided);
  });

/**
 * The row that undo takes back on a device: the last one it logged itself and that stands, else, on a
 * device that has logged nothing there, the last that any device has.
 *
 * @example
 * const turn = { drillSetId: 'd', athleteId: 'a', set: 1, side: 'own', variant: '', rep: 1, watched: true, made: null };
 * const row = { ...turn, device: 'phone', deviceNo: 1, arrival: 1, outcome: 'clean', voids: null };
 * lastOf([{ ...row, id: 'x' }, { ...row, id: 'y', rep: 2, deviceNo: 2 }], 'phone').id // 'y'
 */
export const lastOf = <R extends LogRow>(log: readonly R[], device: string): R | null => {
  const stands = standing(log);
  const fromDevice = stands.filter((row) => row.device === device);
  return inLogOrder(fromDevice.length > 0 ? fromDevice : stands).at(-1) ?? null;
};

/**
 * @example shownIn({ faults: ['late', 'early'] }) // 'early,late'
 */
export const shownIn = ({ faults }: { faults: readonly string[] }): string =>
  [...faults].sort().join();
