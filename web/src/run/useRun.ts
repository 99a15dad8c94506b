import {
  lastOf,
  runState,
  type LoggedRep,
  type Outcome,
  type RunState,
  type Turn,
} from '@gravek/core';
import type { DrillSet, Rep, RunBundle, RunPlan, StoredRep } from '@gravek/contract';
import { leftBy, passedOver, repsFor, whyLeft } from '@gravek/library';
import { useQuery } from '@tanstack/react-query';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { v7 as uuid } from 'uuid';
import { useMember } from '../member/member';
import { deviceId, logOf, waitingOf, type QueuedRep } from '../phone/store';
import { fetchBundle, fetchLog, logRep } from '../phone/sync';

/** A session for the field screen; without network, as it was when last seen. */
export const useBundle = (sessionId: string) =>
  useQuery({
    queryKey: ['run', sessionId],
    retry: false,
    queryFn: () => fetchBundle(sessionId, true),
  });

const NONE: readonly never[] = [];

/** A row of the log on this phone: as the server has it, or waiting to be sent. */
export type PhoneRow = Rep & LoggedRep;

const asRow = (rep: StoredRep | QueuedRep): PhoneRow => ({
  ...rep,
  arrival: 'arrival' in rep ? rep.arrival : null,
  atMs: Date.parse(rep.at),
});

/** All rows of a session: what the server has, and what waits on this phone. */
const useLog = (sessionId: string): { log: PhoneRow[]; waiting: readonly QueuedRep[] } => {
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
    const rows = new Map<string, PhoneRow>();
    // What the server would not take counts for nothing.
    for (const rep of waiting) if (!rep.refused) rows.set(rep.id, asRow(rep));
    for (const rep of stored) rows.set(rep.id, asRow(rep));
    return [...rows.values()];
  }, [stored, waiting]);
  return { log, waiting };
};

/** One drill set of the session, where it stands and what it is of. */
export type SetRun = {
  set: DrillSet;
  plan: RunPlan | undefined;
  state: RunState;
  /** the row that undo takes back here */
  last: PhoneRow | null;
  /** why athletes of the set do not take part, by athlete */
  away: ReadonlyMap<string, string>;
  /** the rows with which some of them have left, by athlete: taken back, they are in again */
  left: ReadonlyMap<string, PhoneRow>;
  /** reps a side and set of those who may do fewer */
  fewer: ReadonlyMap<string, number>;
};

export type Run = {
  sets: SetRun[];
  log: PhoneRow[];
  waiting: readonly QueuedRep[];
  answer: (
    plan: RunPlan,
    turn: Turn,
    outcome: Exclude<Outcome, 'void'>,
    faults: string[],
    cue: string | null,
  ) => Promise<void>;
  undo: (last: PhoneRow) => Promise<void>;
};

/**
 * A session under way, worked out anew from its log on every change.
 *
 * @param first who is brought forward on this device
 */
export const useRun = (bundle: RunBundle, first: string | null): Run => {
  const { club, today } = useMember();
  const { session, athletes, plans } = bundle;
  const { log, waiting } = useLog(session.id);
  const device =
    useQuery({ queryKey: ['device'], queryFn: deviceId, staleTime: Infinity }).data ?? '';

  const left = useMemo(() => leftBy(log), [log]);
  const sets = useMemo(
    () =>
      session.drillSets.map((set): SetRun => {
        const plan = plans.find((plan) => plan.id === set.approachId && plan.pace === set.pace);
        const away = passedOver(set.athleteIds, athletes, plan?.loads ?? [], today);
        for (const [id, row] of left) {
          const name = athletes.find((one) => one.id === id)?.name ?? 'An athlete';
          if (set.athleteIds.includes(id)) away.set(id, whyLeft(name, row));
        }
        const fewer = new Map(
          athletes.flatMap(({ id, restrictions }) => {
            const reps = repsFor(set.reps, restrictions, today);
            return reps < set.reps && set.athleteIds.includes(id) ? [[id, reps] as const] : [];
          }),
        );
        const rows = log.filter((row) => row.drillSetId === set.id);
        return {
          set,
          plan,
          away,
          left,
          fewer,
          state: runState({ ...set, drillSetId: set.id }, rows, new Set(away.keys()), fewer, first),
          last: lastOf(rows, device),
        };
      }),
    [session, athletes, plans, today, log, left, device, first],
  );

  const sessionId = session.id;
  return {
    sets,
    log,
    waiting,
    answer: (plan, turn, outcome, faults, cue) => {
      const outlines = plan.outlines.find((outline) => outline.athleteId === turn.athleteId);
      return logRep(club.id, {
        ...turn,
        id: uuid(),
        sessionId,
        movement: plan.movement,
        part: plan.part,
        leadFoot: outlines?.[turn.side]?.firstFoot ?? null,
        speedPct: plan.speedPct,
        outcome,
        voids: null,
        faults,
        cue,
        at: new Date().toISOString(),
      });
    },
    undo: ({ atMs: _atMs, arrival: _arrival, device: _device, deviceNo: _no, ...row }) =>
      logRep(club.id, {
        ...row,
        id: uuid(),
        outcome: 'void',
        voids: row.id,
        faults: [],
        cue: null,
        at: new Date().toISOString(),
      }),
  };
};
