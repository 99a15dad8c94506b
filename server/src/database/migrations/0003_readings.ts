import { sql, type Kysely } from 'kysely';

/** Tests beside the measured run; plans with pinned steps and with choices for every kind of path. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table measurement drop constraint measurement_kind_check;
    alter table measurement add constraint measurement_kind_check check (kind in ('trial', 'reading'));
    update approach set choices = case
      when choices ->> 'kind' = 'sequence'
        then '{"bar": null, "cushion": null, "arc": null, "cadence": null}'::jsonb || choices
      else '{"pins": []}'::jsonb || choices end;
  `.execute(db);
};
