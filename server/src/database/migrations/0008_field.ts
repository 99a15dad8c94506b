import { sql, type Kysely } from 'kysely';

/**
 * An athlete can leave a session, also by pain, which leaves a restriction until somebody clears it; a
 * restriction may be open-ended, and reduced volume says how much is left of it.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table rep drop constraint rep_outcome_check;
    alter table rep add constraint rep_outcome_check
      check (outcome in ('clean', 'fault', 'again', 'skip', 'void', 'out', 'pain'));

    alter table restriction alter column until_day drop not null;
    alter table restriction add column share double precision not null default 0.5;
  `.execute(db);
};
