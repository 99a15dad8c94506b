import { inLogOrder, isAnswer, lastOf, standing, wasRun, type Outcome } from '@gravek/core/repLog';
import {
  runState,
  together,
  turnOrder,
  type LoggedRep,
  type RunState,
  type Turn,
} from '@gravek/core/runOrder';
import { keptVariants, variantFrom, type Variant } from '@gravek/core/variants';
import { isSequence } from '@gravek/contract/choices';
import type { Movement } from '@gravek/contract/movement';
import type { RunAthlete, RunBundle, RunCue, RunPlan } from '@gravek/contract/run';
import { runSetOf, WARM_UP, type DrillSet } from '@gravek/contract/drillSet';
import { PLAIN_REP, type Rep, type StoredRep } from '@gravek/contract/session';
import { outcomeOf } from '@gravek/library/field/outcome';
import { viewOfRep } from '@gravek/library/field/shows';
import { askedSpeed } from '@gravek/library/pace';
import { cameTo, leftBy, passedOver, repsFor, whyLeft } from '@gravek/library/restrictions';
import { atOnce } from '@gravek/library/sessionTime';
import {
  asVaried,
  demandOfSet,
  fieldBase,
  fieldRun,
  movementCode,
  type Base,
} from '@gravek/library/work';
import { useQuery } from '@tanstack/react-query';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { tell } from '../controls/toasts';
import { useMember, useTapper } from '../member/member';
import { documentOf, fetchDocuments } from '../movements/documents';
import { deviceId, logOf, queue, waitingOf, type NewRep, type QueuedRep } from '../phone/store';
import { fetchBundle, fetchLog, logReps } from '../phone/sync';

/** A session for the field screen; without network, as it was when last seen. */
export const useBundle = (sessionId: string) =>
  useQuery({
    queryKey: ['run', sessionId],
    retry: false,
    queryFn: async () => {
      const bundle = await fetchBundle(sessionId, true);
      await fetchDocuments(bundle.plans.flatMap((plan) => plan.movement ?? []));
      return bundle;
    },
  });

const NONE: readonly never[] = [];

/** Movements by their codes, those that the session brought along among them. */
const movementIn =
  (own: readonly Movement[]) =>
  (code: string): Movement => {
    const found = documentOf(code, own);
    if (!found) throw new RangeError(`movement must be known to the phone, got ${code}`);
    return found;
  };

/** A row of the log on this phone: as the server has it, or waiting to be sent. */
export type PhoneRow = Rep & LoggedRep;

const asRow = (rep: StoredRep | QueuedRep): PhoneRow => ({
  // What was kept before reps said more of themselves.
  ...PLAIN_REP,
  ...rep,
  arrival: 'arrival' in rep ? rep.arrival : null,
  atMs: Date.parse(rep.at),
});

/**
 * All rows of a session: what the server has, what waits on this phone, and what was tapped on this page,
 * which is shown before the phone's database has it.
 */
const useLog = (
  sessionId: string,
  tapped: readonly PhoneRow[],
): { log: PhoneRow[]; waiting: readonly QueuedRep[] } => {
  useQuery({
    queryKey: ['log', sessionId],
    queryFn: async () => {
      await fetchLog(sessionId);
      return null;
    },
  });
  const stored = useLiveQuery(() => logOf(sessionId), [sessionId]) ?? NONE;
  const waiting = useLiveQuery(() => waitingOf(sessionId), [sessionId]) ?? NONE;
  const log = useMemo(() => {
    const rows = new Map(tapped.map((row) => [row.id, row]));
    for (const rep of waiting) {
      // What the server would not take counts for nothing.
      if (rep.refused) rows.delete(rep.id);
      else rows.set(rep.id, asRow(rep));
    }
    for (const rep of stored) rows.set(rep.id, asRow(rep));
    return [...rows.values()];
  }, [stored, waiting, tapped]);
  return { log, waiting };
};

/**
 * Who was stopped by pain in another session on this phone, which the server does not know yet, by
 * athlete; from then on the restriction that it leaves says so.
 */
const usePainElsewhere = (clubId: string, sessionId: string): ReadonlyMap<string, PhoneRow> => {
  const queued =
    useLiveQuery(
      () =>
        queue
          .where('clubId')
          .equals(clubId)
          .filter((rep) => !rep.refused && rep.sessionId !== sessionId)
          .toArray(),
      [clubId, sessionId],
    ) ?? NONE;
  return useMemo(
    () => new Map([...leftBy(queued.map(asRow))].filter(([, row]) => row.outcome === 'pain')),
    [queued],
  );
};

/** What a drill set is, apart from its log. */
type SetWork = { set: DrillSet; plan: RunPlan | undefined; base: Base | null };

/** One drill set of the session, where it stands and what it is of. */
export type SetRun = SetWork & {
  /** everybody of it, latecomers last */
  people: readonly string[];
  state: RunState;
  /** who goes now: one, or all that go at once */
  now: Turn[];
  /** the row that undo takes back here */
  last: PhoneRow | null;
  /** why athletes of the set do not take part, by athlete */
  away: ReadonlyMap<string, string>;
  /** the rows with which some of them have left, by athlete: taken back, they are in again */
  left: ReadonlyMap<string, PhoneRow>;
  /** reps of a combination and round of those who may do fewer */
  fewer: ReadonlyMap<string, number>;
  athleteOf: (id: string) => RunAthlete;
  /** what is run in a combination */
  movementOf: (variant: Variant) => Movement | null;
  /** what an athlete has made of a turn's combination in its round so far */
  madeSoFar: (turn: Turn) => { made: number; tried: number };
};

/** What was seen of a turn; `exit` is the one that a read asked for. */
export type Seen = {
  turn: Turn;
  outcome: Exclude<Outcome, 'void'>;
  faults?: string[];
  cue?: string | null;
} & Partial<
  Pick<Rep, 'made' | 'heldS' | 'exit' | 'taken' | 'lateS' | 'note' | 'measured' | 'watched'>
>;

export type Run = {
  sets: SetRun[];
  log: PhoneRow[];
  waiting: readonly QueuedRep[];
  /** what this device calls itself */
  device: string;
  answer: (at: SetRun, seen: readonly Seen[]) => Promise<void>;
  undo: (rows: readonly PhoneRow[]) => Promise<void>;
};

/** The exit that a turn is asked for; null where the athlete reads it. */
export const askedExit = (base: Base | null, variant: Variant): string | null => {
  if (variant.exit !== null) return variant.exit;
  const choices = base?.choices;
  const [read] = choices && isSequence(choices) ? Object.entries(choices.reads) : [];
  return read ? read.join(':') : null;
};

/** A rep says by itself what it was, from the plan as the set runs it. */
const rowOf = (
  { set, plan, base }: SetWork,
  athlete: RunAthlete,
  seen: Seen,
): Omit<NewRep, 'sessionId' | 'at'> => {
  const { key: _key, ...turn } = seen.turn;
  const variant = variantFrom(turn.variant, turn.side);
  const run =
    base?.movement && base.choices
      ? asVaried({ movement: base.movement, choices: base.choices }, variant)
      : null;
  const varied = run && !('why' in run) ? run : null;
  const own = plan && base ? fieldRun(plan, base, variant, athlete) : null;
  const counts = seen.outcome === 'clean' || seen.outcome === 'fault' || seen.outcome === 'again';
  const exit = seen.exit ?? askedExit(base, variant);
  const view =
    base && wasRun(seen)
      ? viewOfRep(
          base,
          variant,
          {
            ...{ exit, asked: seen.exit ?? null, taken: seen.taken ?? null },
            faults: seen.outcome === 'fault' ? (seen.faults ?? []) : [],
          },
          athlete.body ?? undefined,
        )
      : { could: [], right: null, faults: [] };
  return {
    ...PLAIN_REP,
    ...turn,
    id: uuid(),
    movement: (base && movementCode(base, variant)) ?? WARM_UP,
    part: varied && isSequence(varied.choices) ? varied.choices.drill : null,
    leadFoot: own?.outline?.firstFoot ?? variant.leadFoot,
    speedPct: varied
      ? Math.max(1, Math.round(askedSpeed(varied.movement, varied.choices) * 100))
      : null,
    rung: varied?.choices.rung ?? null,
    exit,
    load: counts ? (own?.load ?? null) : null,
    taken: seen.taken ?? null,
    right: view.right,
    lateS: seen.lateS ?? null,
    made: seen.made ?? null,
    heldS: seen.heldS ?? null,
    measured: counts ? (seen.measured ?? null) : null,
    note: seen.note ?? '',
    outcome: wasRun(seen)
      ? outcomeOf(set, { faults: view.faults, heldS: seen.heldS ?? null })
      : seen.outcome,
    voids: null,
    faults: view.faults,
    watched: seen.watched ?? true,
    could: view.could,
    cue: seen.cue ?? null,
  };
};

/**
 * The fault that an athlete's one cue is for: what was cued last in this session, on whichever phone, else
 * what was chosen before it.
 */
export const cueIn = (
  log: readonly PhoneRow[],
  athleteId: string,
  movement: string,
  own: Pick<RunCue, 'fault'> | undefined,
): string | null => {
  const mine = log.filter(
    (row) => row.athleteId === athleteId && row.movement === movement && isAnswer(row),
  );
  const last = inLogOrder(mine).at(-1);
  return last ? last.cue : (own?.fault ?? null);
};

/** The rows that one press has logged: those of one device with one moment. */
export const pressOf = (log: readonly PhoneRow[], last: PhoneRow): PhoneRow[] =>
  standing(log).filter(
    (row) => row.device === last.device && row.at === last.at && row.drillSetId === last.drillSetId,
  );

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

/**
 * A session under way, worked out anew from its log on every change.
 *
 * @param first who is brought forward on this device
 */
export const useRun = (bundle: RunBundle, first: string | null): Run => {
  const { club, today } = useMember();
  const tapper = useTapper();
  const { session, plans, movements, lanes } = bundle;
  const athletes = useMemo(
    () => [...bundle.athletes, ...bundle.latecomers.map(({ id, name }) => stranger(id, name))],
    [bundle.athletes, bundle.latecomers],
  );
  const [tapped, setTapped] = useState<readonly PhoneRow[]>(NONE);
  const { log, waiting } = useLog(session.id, tapped);
  const device =
    useQuery({ queryKey: ['device'], queryFn: deviceId, staleTime: Infinity }).data ?? '';

  const works = useMemo(
    () =>
      session.drillSets.map((set): SetWork & { demand: ReturnType<typeof demandOfSet> } => {
        const plan = plans.find((one) => one.drillSetId === set.id);
        const base = plan ? fieldBase(plan, movementIn(movements)) : null;
        return { set, plan, base, demand: base ? demandOfSet(base, set) : [] };
      }),
    [session, plans, movements],
  );
  const left = useMemo(() => leftBy(log), [log]);
  const painElsewhere = usePainElsewhere(club.id, session.id);
  // The order of a set changes only when somebody comes late.
  const came = JSON.stringify(works.map(({ set }) => [...cameTo(log, set.id).keys()]));
  const orders = useMemo(
    () =>
      works.map(({ set }, i) => {
        const late = (JSON.parse(came) as string[][])[i]!;
        const people = [...new Set([...set.athleteIds, ...late])];
        const run = { ...runSetOf(set), athleteIds: people };
        // A set of which all is struck out has nothing to do.
        return { run, people, turns: keptVariants(run).length > 0 ? turnOrder(run) : [] };
      }),
    [works, came],
  );
  const sets = useMemo(
    () =>
      works.map(({ demand, ...work }, i): SetRun => {
        const { set } = work;
        const { run, people, turns } = orders[i]!;
        const away = passedOver(people, athletes, demand, today);
        for (const [id, row] of [...painElsewhere, ...left]) {
          const name = athletes.find((one) => one.id === id)?.name ?? 'An athlete';
          if (people.includes(id)) away.set(id, whyLeft(name, row));
        }
        const fewer = new Map(
          athletes.flatMap(({ id, restrictions }) => {
            const reps = repsFor(set.reps, restrictions, today);
            return reps < set.reps && people.includes(id) ? [[id, reps] as const] : [];
          }),
        );
        const rows = log.filter((row) => row.drillSetId === set.id);
        const state = runState(run, rows, new Set(away.keys()), fewer, first, turns);
        const there = people.filter((id) => !away.has(id)).length;
        // What is made or held is looked at one by one.
        const alone =
          ['turns', 'stations'].includes(set.stand) || ['makes', 'seconds'].includes(set.target);
        const many = alone ? 1 : atOnce(set, there, lanes);
        const { base } = work;
        const stands = standing(rows);
        return {
          ...work,
          people,
          away,
          left,
          fewer,
          state,
          now: together(state, many),
          last: lastOf(rows, device),
          athleteOf: (id) => athletes.find((one) => one.id === id) ?? stranger(id, 'An athlete'),
          movementOf: (variant) => {
            if (!base?.movement || !base.choices) return null;
            const varied = asVaried({ movement: base.movement, choices: base.choices }, variant);
            return 'why' in varied ? base.movement : varied.movement;
          },
          madeSoFar: (turn) => {
            const own = stands.filter(
              (row) =>
                row.athleteId === turn.athleteId &&
                row.set === turn.set &&
                row.side === turn.side &&
                row.variant === turn.variant &&
                row.made !== null,
            );
            return { made: own.filter((row) => row.made).length, tried: own.length };
          },
        };
      }),
    [works, orders, athletes, today, log, left, painElsewhere, device, first, lanes],
  );

  const sessionId = session.id;
  /** Shows rows at once, and keeps them. */
  const keep = async (rows: readonly NewRep[]): Promise<void> => {
    const ids = new Set(rows.map((row) => row.id));
    setTapped((before) => [
      ...before,
      ...rows.map((row, i): PhoneRow => ({
        ...row,
        device,
        // After all that the device has numbered.
        deviceNo: Number.MAX_SAFE_INTEGER - 1_000_000 + before.length + i,
        arrival: null,
        atMs: Date.parse(row.at),
      })),
    ]);
    try {
      await logReps(tapper, rows);
    } catch (error) {
      setTapped((before) => before.filter((row) => !ids.has(row.id)));
      tell('This phone could not keep the rep; nothing was logged.');
      throw error;
    }
  };
  return {
    sets,
    log,
    waiting,
    device,
    answer: (work, seen) => {
      // One moment for one press: undo takes back all of it.
      const at = new Date().toISOString();
      return keep(
        seen.map((one) => ({
          ...rowOf(work, work.athleteOf(one.turn.athleteId), one),
          sessionId,
          at,
        })),
      );
    },
    undo: (rows) =>
      keep(
        rows.map(({ atMs: _atMs, arrival: _arrival, device: _device, deviceNo: _no, ...row }) => ({
          ...row,
          id: uuid(),
          outcome: 'void',
          voids: row.id,
          faults: [],
          cue: null,
          load: null,
          measured: null,
          at: new Date().toISOString(),
        })),
      ),
  };
};
