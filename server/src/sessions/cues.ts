import { groupBy } from '@gravek/core/session/repLog';
import { keptVariants } from '@gravek/core/session/variants';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { AthleteFaults, CueLine } from '@gravek/contract/faults';
import type { Session } from '@gravek/contract/session';
import { movementCode } from '@gravek/library/session/fieldRun';
import { baseOf, type Finds } from '@gravek/library/session/work';
import { findsOf } from '../approaches/finds';
import type { Trx } from '../database/connect';
import { type Everybody, faultsBefore, faultsOf, withCues } from '../faults/queries';
import { sessions } from './queries';

type Run = { athleteId: string; movement: string };

/** Those of the club who are not archived, by name. */
export const presentIn = async (trx: Trx): Promise<string[]> => {
  const rows = await trx
    .selectFrom('athlete')
    .select('id')
    .where('archived_at', 'is', null)
    .orderBy('name')
    .execute();
  return rows.map((row) => row.id);
};

/** Who runs what in a session, in the order of its drill sets; nobody who is archived. */
const runIn = (drillSets: readonly DrillSet[], finds: Finds, present: ReadonlySet<string>): Run[] =>
  drillSets.flatMap((set) => {
    const base = baseOf(set.work, finds);
    const codes = base
      ? new Set(keptVariants(set).flatMap((variant) => movementCode(base, variant) ?? []))
      : [];
    return set.athleteIds
      .filter((id) => present.has(id))
      .flatMap((athleteId) => [...codes].map((movement) => ({ athleteId, movement })));
  });

/**
 * The one cue of each athlete in a session, of the movements that are run there, from what was counted
 * before it.
 *
 * @param finds plans and movements of its drill sets
 * @param present those of the club who are not archived
 */
export const cuesOf = async (
  trx: Trx,
  session: Pick<Session, 'id' | 'date' | 'drillSets'>,
  {
    finds,
    present,
    everybody,
  }: Omit<DayKnown, 'sessions' | 'present'> & { present: ReadonlySet<string> },
): Promise<AthleteFaults[]> => {
  const run = runIn(session.drillSets, finds, present);
  if (run.length === 0) return [];
  const faults = await faultsBefore(
    trx,
    {
      athleteIds: [...new Set(run.map((run) => run.athleteId))],
      movements: [...new Set(run.map((run) => run.movement))],
    },
    { date: session.date, sessionId: session.id },
    everybody,
  );
  const key = (pair: { athleteId: string; movement: string }): string =>
    `${pair.athleteId}/${pair.movement}`;
  const faultsBy = new Map(faults.map((fault) => [key(fault), fault]));
  return [...groupBy(run, key)].map(
    ([at, [firstCue]]) =>
      faultsBy.get(at) ?? {
        ...firstCue!,
        reps: 0,
        sessions: 0,
        lastDay: session.date,
        faults: [],
        cue: null,
      },
  );
};

const asLine = ({ athleteId, movement, reps, faults, cue }: AthleteFaults): CueLine => ({
  athleteId,
  movement,
  reps,
  cue,
  state: faults.find((fault) => fault.code === cue?.fault)?.state ?? null,
});

/** What a day's cues rest on. */
type DayKnown = {
  /** sessions of that day */
  sessions: readonly Session[];
  /** plans and movements of their drill sets */
  finds: Finds;
  /** those of the club who are not archived, by name */
  present: readonly string[];
  /** how they stand, where that is known already */
  everybody?: Everybody | undefined;
};

/**
 * The cues of a day: of its sessions, each in the movements that are run there; of everybody in the
 * movement that each ran last on a day without a session.
 */
export const cuesOfDay = async (
  trx: Trx,
  { sessions: planned, finds, present, everybody }: DayKnown,
): Promise<CueLine[]> => {
  const sessionsLeft = planned.filter((session) => !session.archived);
  if (sessionsLeft.length > 0) {
    const cueParts = { finds, present: new Set(present), everybody };
    const cues: AthleteFaults[] = [];
    for (const session of sessionsLeft) cues.push(...(await cuesOf(trx, session, cueParts)));
    // Who runs the same thing twice on a day has one cue for it.
    return [...groupBy(cues, (cue) => `${cue.athleteId}/${cue.movement}`).values()].map(([first]) =>
      asLine(first!),
    );
  }
  const faults = everybody
    ? withCues(everybody.kept, everybody.movementOf)
    : await faultsOf(trx, present);
  const newestBy = groupBy(faults, (standing) => standing.athleteId);
  return present.flatMap((id) => {
    const [newest] = newestBy.get(id) ?? [];
    return newest ? [asLine(newest)] : [];
  });
};

/** The cues of a day, yyyy-mm-dd. */
export const cuesOn = async (trx: Trx, day: string): Promise<CueLine[]> => {
  const planned = await sessions(trx, { from: day, to: day });
  const finds = await findsOf(
    trx,
    planned.flatMap(({ drillSets }) => drillSets),
  );
  return cuesOfDay(trx, { sessions: planned, finds, present: await presentIn(trx) });
};
