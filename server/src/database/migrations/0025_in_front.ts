import { sql, type Kysely } from 'kysely';

/**
 * Giving ground is reckoned by how long a defender stays in front: depth, runner and steps of a plan stay,
 * the number of short steps is as taught and the turn as usual.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    update approach set choices = (choices - 'cushion') || jsonb_build_object('inFront',
      case when jsonb_typeof(choices -> 'cushion') = 'object' then
        '{"slideS": 0.45, "slideBackM": 0.25, "openS": 0.25, "openBackM": 0.35, "dallySpeedMps": 1.2, "steps": 4}'::jsonb
          || ((choices -> 'cushion') - 'turnS')
      else 'null'::jsonb end)
      where choices ? 'cushion';
  `.execute(db);
};
