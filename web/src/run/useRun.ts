import type { Movement } from '@gravek/contract/movement';
import type { RunBundle } from '@gravek/contract/run';
import type { NewRep, StoredRep } from '@gravek/contract/session';
import { fieldRow, repOf, type FieldRow, type Seen } from '@gravek/library/field/log';
import {
  fieldAthletes,
  latecomersOf,
  setOrder,
  setRun,
  setWorks,
  type SetRun,
} from '@gravek/library/field/sets';
import { elsewhereAt } from '@gravek/library/field/stations';
import { voidOf } from '@gravek/library/field/takenBack';
import { leftBy } from '@gravek/library/session/restrictions';
import { lanesOfStation } from '@gravek/library/session/timeAxis';
import { useQuery } from '@tanstack/react-query';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { tell } from '../controls/toasts';
import { useMember, useTapper } from '../member/member';
import { documentOf, fetchDocuments } from '../parts/catalogue/documents';
import { deviceId, logOf, queue, waitingOf, type QueuedRep } from '../phone/store';
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
  (clubMovements: readonly Movement[]) =>
  (code: string): Movement => {
    const found = documentOf(code, clubMovements);
    if (!found) throw new RangeError(`movement must be known to the phone, got ${code}`);
    return found;
  };

/**
 * All rows of a session: what the server has, what waits on this phone, and what was tapped on this page,
 * which is shown before the phone's database has it. A read never writes: what is shown comes of these rows
 * alone, and only `keep` adds any.
 */
const useLog = (
  sessionId: string,
  tapped: readonly FieldRow[],
): { log: FieldRow[]; waiting: readonly QueuedRep[] } => {
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
      else rows.set(rep.id, fieldRow(rep));
    }
    for (const rep of stored as readonly StoredRep[]) rows.set(rep.id, fieldRow(rep));
    return [...rows.values()];
  }, [stored, waiting, tapped]);
  return { log, waiting };
};

/**
 * Who was stopped by pain in another session on this phone, which the server does not know yet, by
 * athlete; from then on the restriction that it leaves says so.
 */
const usePainElsewhere = (clubId: string, sessionId: string): ReadonlyMap<string, FieldRow> => {
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
    () => new Map([...leftBy(queued.map(fieldRow))].filter(([, row]) => row.outcome === 'pain')),
    [queued],
  );
};

export type Run = {
  sets: SetRun[];
  log: FieldRow[];
  waiting: readonly QueuedRep[];
  /** what this device calls itself */
  device: string;
  answer: (at: SetRun, seen: readonly Seen[]) => Promise<void>;
  undo: (rows: readonly FieldRow[]) => Promise<void>;
};

/**
 * A session under way, worked out anew from its log on every change.
 *
 * @param first who is brought forward on this device
 * @param round in which groups go round the stations; 0 while nobody does
 */
export const useRun = (bundle: RunBundle, first: string | null, round: number): Run => {
  const { club, today } = useMember();
  const tapper = useTapper();
  const { session, movements, lanes, missed } = bundle;
  const [tapped, setTapped] = useState<readonly FieldRow[]>(NONE);
  const { log, waiting } = useLog(session.id, tapped);
  const device =
    useQuery({ queryKey: ['device'], queryFn: deviceId, staleTime: Infinity }).data ?? '';
  const athletes = useMemo(() => fieldAthletes(bundle), [bundle]);
  const works = useMemo(() => setWorks(bundle, movementIn(movements)), [bundle, movements]);
  const painElsewhere = usePainElsewhere(club.id, session.id);
  // The order of a set changes only when somebody comes late.
  const latecomers = JSON.stringify(works.map(({ set }) => latecomersOf(log, set.id)));
  const orders = useMemo(
    () =>
      works.map((work, i) => setOrder(work, (JSON.parse(latecomers) as string[][])[i]!, missed)),
    [works, latecomers, missed],
  );
  const elsewhere = useMemo(() => elsewhereAt(session, round), [session, round]);
  const sets = useMemo(
    () =>
      works.map((work, i) =>
        setRun(work, orders[i]!, {
          ...{ athletes, log, painElsewhere, device, first, today, elsewhere },
          lanes: elsewhere.has(work.set.id) ? lanesOfStation(session, lanes) : lanes,
        }),
      ),
    [works, orders, athletes, log, painElsewhere, device, first, lanes, today, elsewhere, session],
  );

  /** Shows rows at once, and keeps them. */
  const keep = async (rows: readonly NewRep[]): Promise<void> => {
    const ids = new Set(rows.map((row) => row.id));
    setTapped((before) => [
      ...before,
      ...rows.map((row, i): FieldRow => ({
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
        seen.map((answer) =>
          repOf(work, work.athleteOf(answer.turn.athleteId), answer, {
            id: uuid(),
            sessionId: session.id,
            at,
          }),
        ),
      );
    },
    undo: (rows) =>
      keep(rows.map((row) => voidOf(row, { id: uuid(), at: new Date().toISOString() }))),
  };
};
