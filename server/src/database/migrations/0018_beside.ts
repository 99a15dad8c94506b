import { sql, type Kysely } from 'kysely';

/**
 * What was measured of a rep says of each figure what was planned there; what was kept before says nothing of
 * it. The newest of an athlete are found without a look at all reps.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    update rep set measured = measured || jsonb_build_object(
      'perMinute', false,
      'steps', (select coalesce(jsonb_agg(step
          || '{"n": null, "plannedM": null, "plannedS": null}' order by i), '[]')
        from jsonb_array_elements(measured -> 'steps') with ordinality as steps(step, i)),
      'course', (select coalesce(jsonb_agg(moment
          || '{"plannedSpm": null, "plannedMps": null}' order by i), '[]')
        from jsonb_array_elements(measured -> 'course') with ordinality as moments(moment, i)))
      where measured is not null;
    create index rep_measured on rep (club_id, athlete_id, at desc) where measured is not null;
    -- Steady runs are few among them, and of a whole season.
    create index rep_steady on rep (club_id, athlete_id, at desc)
      where (measured ->> 'perMinute')::boolean;
  `.execute(db);
};
