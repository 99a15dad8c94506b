import type { Rep } from '@gravek/contract';
import type { Trx } from '../database/connect';

/** The whole log of a session, voids included, in the order of logging. */
export const repsOf = async (trx: Trx, sessionId: string): Promise<Rep[]> => {
  const rows = await trx
    .selectFrom('rep')
    .selectAll()
    .where('session_id', '=', sessionId)
    .orderBy('at')
    .orderBy('id')
    .execute();
  if (rows.length === 0) return [];
  const faults = await trx
    .selectFrom('rep_fault')
    .innerJoin('rep', 'rep.id', 'rep_fault.rep_id')
    .select(['rep_id', 'fault'])
    .where('rep.session_id', '=', sessionId)
    .orderBy('fault')
    .execute();
  const faultsOf = new Map<string, string[]>();
  for (const { rep_id, fault } of faults) {
    faultsOf.set(rep_id, [...(faultsOf.get(rep_id) ?? []), fault]);
  }
  return rows.map((row) => ({
    id: row.id,
    sessionId: row.session_id,
    drillSetId: row.drill_set_id,
    athleteId: row.athlete_id,
    set: row.set_no,
    side: row.side,
    rep: row.rep_no,
    outcome: row.outcome,
    voids: row.voids,
    faults: faultsOf.get(row.id) ?? [],
    cue: row.cue,
    at: row.at.toISOString(),
  }));
};

/** A rep as its row. */
export const repColumns = (rep: Rep, loggedBy: string | null) => ({
  id: rep.id,
  session_id: rep.sessionId,
  drill_set_id: rep.drillSetId,
  athlete_id: rep.athleteId,
  set_no: rep.set,
  side: rep.side,
  rep_no: rep.rep,
  outcome: rep.outcome,
  voids: rep.outcome === 'void' ? rep.voids : null,
  cue: rep.cue,
  at: rep.at,
  logged_by: loggedBy,
});
