import type { AthleteFaults, CueLine } from '@gravek/contract';
import { groupBy } from '@gravek/core';
import type { Trx } from '../database/connect';
import { faultsBefore, faultsOf } from './queries';

/** Who runs what in a session, in the order of its drill sets. */
const runIn = async (trx: Trx, sessionId: string) =>
  trx
    .selectFrom('drill_set as d')
    .innerJoin('drill_set_athlete as x', (join) =>
      join.onRef('x.club_id', '=', 'd.club_id').onRef('x.drill_set_id', '=', 'd.id'),
    )
    .innerJoin('approach as p', (join) =>
      join.onRef('p.club_id', '=', 'd.club_id').onRef('p.id', '=', 'd.approach_id'),
    )
    .innerJoin('athlete as a', (join) =>
      join.onRef('a.club_id', '=', 'x.club_id').onRef('a.id', '=', 'x.athlete_id'),
    )
    .select(['x.athlete_id as athleteId', 'p.movement'])
    .where('d.session_id', '=', sessionId)
    .where('a.archived_at', 'is', null)
    .orderBy('d.position')
    .orderBy('x.position')
    .execute();

/**
 * The one cue of each athlete in a session, of the movements that are run there, from what was counted
 * before it.
 */
export const cuesOf = async (
  trx: Trx,
  session: { id: string; date: string },
): Promise<AthleteFaults[]> => {
  const run = await runIn(trx, session.id);
  if (run.length === 0) return [];
  const faults = await faultsBefore(
    trx,
    {
      athleteIds: [...new Set(run.map((one) => one.athleteId))],
      movements: [...new Set(run.map((one) => one.movement))],
    },
    { date: session.date, sessionId: session.id },
  );
  const key = (one: { athleteId: string; movement: string }): string =>
    `${one.athleteId}/${one.movement}`;
  const faultsBy = new Map(faults.map((fault) => [key(fault), fault]));
  return [...groupBy(run, key)].map(
    ([at, [own]]) =>
      faultsBy.get(at) ?? {
        ...own!,
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
  state: faults.find((one) => one.code === cue?.fault)?.state ?? null,
});

/**
 * The cues of a day: of its sessions, each in the movements that are run there; of everybody in the
 * movement that each ran last on a day without a session.
 */
export const cuesOn = async (trx: Trx, day: string): Promise<CueLine[]> => {
  const sessions = await trx
    .selectFrom('session')
    .select(['id', 'day as date'])
    .where('day', '=', day)
    .where('archived_at', 'is', null)
    .orderBy('id')
    .execute();
  const cues: AthleteFaults[] = [];
  for (const session of sessions) cues.push(...(await cuesOf(trx, session)));
  if (sessions.length > 0) {
    // Who runs the same thing twice on a day has one cue for it.
    return [...groupBy(cues, (one) => `${one.athleteId}/${one.movement}`).values()].map(([first]) =>
      asLine(first!),
    );
  }
  const people = await trx
    .selectFrom('athlete')
    .select('id')
    .where('archived_at', 'is', null)
    .orderBy('name')
    .execute();
  const last = groupBy(
    await faultsOf(
      trx,
      people.map((person) => person.id),
    ),
    (one) => one.athleteId,
  );
  return people.flatMap(({ id }) => {
    const [newest] = last.get(id) ?? [];
    return newest ? [asLine(newest)] : [];
  });
};
