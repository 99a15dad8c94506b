import { sql } from 'kysely';
import { athlete, isTrial, measurements, restrictions } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { notFound } from '../http/problem';
import { repsOfAthlete } from '../reps/queries';

/** Tables with rows of an athlete that are given as they stand, each under its name, in its order. */
const TABLES = {
  plans: { from: 'athlete_approach', by: 'approach_id' },
  counts: { from: 'rep_count', by: 'session_id' },
  cues: { from: 'cue_choice', by: 'made_at' },
  rungs: { from: 'rung_choice', by: 'made_at' },
  reviews: { from: 'review', by: 'taken_on' },
  ownCounts: { from: 'own_count', by: 'at' },
} as const;

type Rows = Record<keyof typeof TABLES | 'approaches' | 'sessions', Record<string, unknown>[]>;

/** Rows of those tables, and what the athlete's plans and sessions are called, in one statement. */
const rowsOf = async (trx: Trx, athleteId: string): Promise<Rows> => {
  const tables = Object.entries(TABLES).map(
    ([name, { from, by }]) => sql`(select coalesce(json_agg(t order by t.${sql.ref(by)}), '[]')
      from ${sql.table(from)} t
      where t.club_id = gravek_club() and t.athlete_id = ${athleteId}) as ${sql.ref(name)}`,
  );
  const { rows } = await sql<Rows>`
    select ${sql.join(tables)},
      (select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name, 'movement', p.movement)
          order by p.id), '[]')
        from approach p where p.club_id = gravek_club() and p.id in
          (select approach_id from athlete_approach s
            where s.club_id = p.club_id and s.athlete_id = ${athleteId})) as approaches,
      (select coalesce(json_agg(json_build_object('id', s.id, 'name', s.title, 'day', s.day,
          'place', coalesce(g.document ->> 'name', s.place)) order by s.day, s.id), '[]')
        from session s left join ground g on g.club_id = s.club_id and g.id = s.ground_id
        where s.club_id = gravek_club() and s.id in
          (select session_id from rep r where r.club_id = s.club_id and r.athlete_id = ${athleteId}
            union select d.session_id from drill_set_athlete x
              join drill_set d on d.club_id = x.club_id and d.id = x.drill_set_id
              where x.club_id = s.club_id and x.athlete_id = ${athleteId})) as sessions`.execute(
    trx,
  );
  return rows[0]!;
};

/** A row that says whether it was taken out. */
const withTakenOut = <R extends object>({ row, removed }: { row: R; removed: boolean }) => ({
  ...row,
  takenOut: removed,
});

/**
 * Everything that is held about one athlete, put away or not: measures, restrictions, plans with the
 * names they have, sessions, every row of the log with its faults, and what was counted from them.
 */
export const everythingOf = async (trx: Trx, athleteId: string) => {
  const stored = await athlete(trx, athleteId);
  if (!stored) throw notFound('athlete');
  const { trials: _trials, readings: _readings, restrictions: _restrictions, ...person } = stored;
  const tests = (await measurements(trx, { athleteId })).map(withTakenOut);
  return {
    athlete: person,
    trials: tests.filter(isTrial),
    readings: tests.filter((test) => !isTrial(test)),
    restrictions: (await restrictions(trx, { athleteId })).map(withTakenOut),
    ...(await rowsOf(trx, athleteId)),
    reps: await repsOfAthlete(trx, athleteId),
  };
};
