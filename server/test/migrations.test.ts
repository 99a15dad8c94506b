import { Kysely, Migrator, PostgresDialect, sql } from 'kysely';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { expect, it } from 'vitest';
import * as foundation from '../src/database/migrations/0001_foundation';
import * as movements from '../src/database/migrations/0002_movements';
import { migrate } from '../src/database/migrate';
import { emptyDatabase } from './setup';

it('plans that were saved before pins and paths go on, with nothing pinned and everything as usual', async () => {
  const { ownerUrl } = await emptyDatabase();
  const db = new Kysely<unknown>({
    dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: ownerUrl, max: 1 }) }),
  });
  try {
    const before = new Migrator({
      db,
      provider: {
        getMigrations: () =>
          Promise.resolve({ '0001_foundation': foundation, '0002_movements': movements }),
      },
    });
    expect((await before.migrateToLatest()).error).toBeUndefined();
    const [club, strip, sequence] = [uuid(), uuid(), uuid()];
    await sql`select set_config('gravek.club', ${club}, false)`.execute(db);
    await sql`insert into club (id, name, unit, cue_school, time_zone)
      values (${club}, 'Before', 'metric', 'root-cause', 'UTC')`.execute(db);
    const straight = { target: 'board', steps: 14, distanceM: null, checkMarks: [4] };
    const other = { kind: 'sequence', reads: { a: 'b' }, schools: {}, drill: null };
    for (const [id, movement, choices] of [
      [strip, 'straight-run-up', straight],
      [sequence, 'gaps', other],
    ] as const) {
      await sql`insert into approach (club_id, id, name, movement, choices)
        values (${club}, ${id}, ${movement}, ${movement}, ${JSON.stringify(choices)}::jsonb)`.execute(
        db,
      );
    }
    const athlete = uuid();
    await sql`insert into athlete (club_id, id, name, squad, hand, takeoff_foot)
      values (${club}, ${athlete}, 'Somebody', 'Squad', 'left', 'left')`.execute(db);

    expect(await migrate(ownerUrl)).toBe(1);
    expect(await migrate(ownerUrl)).toBe(0);
    const { rows } = await sql<{ id: string; choices: Record<string, unknown> }>`
      select id, choices from approach`.execute(db);
    const choicesOf = (id: string) => rows.find((row) => row.id === id)!.choices;
    expect(choicesOf(strip)).toEqual({ ...straight, pins: [] });
    expect(choicesOf(sequence)).toEqual({
      ...other,
      bar: null,
      cushion: null,
      arc: null,
      cadence: null,
    });
    const keep = (kind: string) =>
      sql`insert into measurement (club_id, id, athlete_id, kind, taken_on, source, payload)
        values (${club}, ${uuid()}, ${athlete}, ${kind}, '2031-05-01', 'other', '{}')`.execute(db);
    await keep('reading');
    await expect(keep('hearsay')).rejects.toThrow('measurement_kind_check');
  } finally {
    await db.destroy();
  }
});
