import { bodyOf } from '@gravek/core/layout/body';
import { movementOf } from '@gravek/library/movement/movements';
import { sequenceStart, straightStart } from '@gravek/library/planning/planStart';
import { solve } from '@gravek/library/planning/solvePlan';
import { Kysely, Migrator, PostgresDialect, sql } from 'kysely';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { expect, it } from 'vitest';
import { approaches, summaries } from '../src/approaches/queries';
import { connect, inClub } from '../src/database/connect';
import * as foundation from '../src/database/migrations/0001_foundation';
import * as movements from '../src/database/migrations/0002_movements';
import * as readings from '../src/database/migrations/0003_readings';
import * as beside from '../src/database/migrations/0018_beside';
import { faultsOf } from '../src/faults/queries';
import { clubMovement } from '../src/movements/queries';
import { migrate } from '../src/operator/migrate';
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

    expect(await migrate(ownerUrl)).toBe(30);
    expect(await migrate(ownerUrl)).toBe(0);
    const { rows } = await sql<{ id: string; choices: Record<string, unknown> }>`
      select id, choices from approach`.execute(db);
    const choicesOf = (id: string) => rows.find((row) => row.id === id)!.choices;
    expect(choicesOf(strip)).toEqual({ ...straight, pins: [] });
    expect(choicesOf(sequence)).toEqual({
      ...other,
      bar: null,
      inFront: null,
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

it('reps and plans that were kept before say from then on what they are, and are counted', async () => {
  const { ownerUrl, appUrl } = await emptyDatabase();
  const db = new Kysely<unknown>({
    dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: ownerUrl, max: 1 }) }),
  });
  try {
    const before = new Migrator({
      db,
      provider: {
        getMigrations: () =>
          Promise.resolve({
            '0001_foundation': foundation,
            '0002_movements': movements,
            '0003_readings': readings,
          }),
      },
    });
    expect((await before.migrateToLatest()).error).toBeUndefined();
    const [club, athlete, plan, gaps, session, set] = Array.from({ length: 6 }, () => uuid());
    await sql`select set_config('gravek.club', ${club}, false)`.execute(db);
    await sql`insert into club (id, name, unit, cue_school, time_zone)
      values (${club}, 'Before', 'metric', 'root-cause', 'UTC')`.execute(db);
    await sql`insert into athlete (club_id, id, name, squad, hand, takeoff_foot)
      values (${club}, ${athlete}, 'Somebody', 'Squad', 'left', 'left')`.execute(db);
    const body = bodyOf({
      hand: 'left',
      takeoffFoot: 'left',
      trials: [],
      heightM: null,
      legM: null,
      shoeM: null,
    });
    const runUp = { ...straightStart(movementOf('straight-run-up'))!, speedFraction: 0.9 };
    const cadence = { baselineSpm: 164, increasePct: 6, weeks: 6, speedMps: 3 };
    const sequence = { ...sequenceStart(), drill: 'one-contact', cadence };
    for (const [id, movement, choices] of [
      [plan, 'straight-run-up', runUp],
      [gaps, 'gaps', sequence],
    ] as const) {
      await sql`insert into approach (club_id, id, name, movement, choices)
        values (${club}, ${id}, ${movement}, ${movement}, ${JSON.stringify(choices)}::jsonb)`.execute(
        db,
      );
      const { layout, straight } = solve(
        movementOf(movement),
        { ...choices, ...('drill' in choices ? { drill: null } : {}) } as never,
        body,
      );
      await sql`insert into athlete_approach
          (club_id, approach_id, athlete_id, position, model, model_source, result, solver_version)
        values (${club}, ${id}, ${athlete}, 0, ${JSON.stringify(body.model)}, 'estimate',
          ${JSON.stringify(straight ?? layout)}, 1)`.execute(db);
    }
    await sql`insert into session (club_id, id, day, title) values (${club}, ${session}, '2031-05-01', 'S')`.execute(
      db,
    );
    await sql`insert into drill_set (club_id, id, session_id, position, approach_id, sets, reps, sides, rest_s, set_rest_s)
      values (${club}, ${set}, ${session}, 0, ${plan}, 2, 3, '{own,other}', 0, 0)`.execute(db);
    const rep = async (n: number, side: string, outcome: string, voids: string | null = null) => {
      const id = uuid();
      await sql`insert into rep (club_id, id, session_id, drill_set_id, athlete_id, set_no, side, rep_no, outcome, voids, at)
        values (${club}, ${id}, ${session}, ${set}, ${athlete}, 2, ${side}, ${n}, ${outcome}, ${voids},
          ${new Date(1_935_000_000_000 + n * 1000 + (voids ? 500 : 0))})`.execute(db);
      return id;
    };
    const faulty = await rep(1, 'own', 'fault');
    await sql`insert into rep_fault (club_id, rep_id, fault) values (${club}, ${faulty}, 'reaches')`.execute(
      db,
    );
    await rep(2, 'other', 'clean');
    // A copy of a built-in movement, from when a fault hung on one phase.
    const { phases, faults, ...rest } = movementOf('give-ground');
    const document = {
      ...{ ...rest, phases },
      faults: [
        ...faults.map(({ phases: [phase], read: _, ...fault }) => ({ ...fault, phase })),
        { ...faults[0]!, code: 'our-own', phases: undefined, phase: 'sit' },
      ],
    };
    const copy = uuid();
    await sql`insert into movement (club_id, id, based_on_code, based_on_revision, document)
      values (${club}, ${copy}, 'give-ground', 4, ${JSON.stringify(document)}::jsonb)`.execute(db);
    await rep(3, 'own', 'void', await rep(3, 'own', 'clean'));

    expect(await migrate(ownerUrl)).toBe(29);
    const sets = await sql<Record<'spots' | 'ways', unknown>>`
      select document -> 'vary' -> 'spots' as spots, document -> 'vary' -> 'ways' as ways
      from drill_set`.execute(db);
    expect(sets.rows).toEqual([{ spots: [], ways: [] }]);
    const { rows } = await sql<Record<string, unknown>>`
      select movement, part, turn, speed_pct, device_no, arrival, outcome from rep order by arrival`.execute(
      db,
    );
    expect(rows).toEqual([
      {
        movement: 'straight-run-up',
        part: null,
        turn: 7,
        speed_pct: 90,
        device_no: 1,
        arrival: 1,
        outcome: 'fault',
      },
      {
        movement: 'straight-run-up',
        part: null,
        turn: 11,
        speed_pct: 90,
        device_no: 2,
        arrival: 2,
        outcome: 'clean',
      },
      {
        movement: 'straight-run-up',
        part: null,
        turn: 9,
        speed_pct: 90,
        device_no: 3,
        arrival: 3,
        outcome: 'clean',
      },
      {
        movement: 'straight-run-up',
        part: null,
        turn: 9,
        speed_pct: 90,
        device_no: 4,
        arrival: 4,
        outcome: 'void',
      },
    ]);
    const app = connect(appUrl);
    await inClub(app.db, { clubId: club!, accountId: uuid() }, async (trx) => {
      const { movement } = (await clubMovement(trx, copy))!;
      expect(movement.faults.slice(0, -1)).toEqual(faults);
      expect(movement.faults.at(-1)!.phases).toEqual(['sit']);
      expect(await faultsOf(trx, [athlete!])).toMatchObject([
        { reps: 2, sessions: 1, faults: [{ code: 'reaches', seen: 1 }] },
      ]);
      const list = await summaries(trx, { after: null, limit: 9 });
      const { straight } = solve(movementOf('straight-run-up'), runUp, body);
      if (!straight?.feasible) throw new Error('should fit');
      expect(list.find((approach) => approach.id === plan)).toMatchObject({
        steps: straight.steps.length,
        startM: { from: straight.distanceM, to: straight.distanceM },
      });
      const kept = (await approaches(trx, [gaps!]))[0]!;
      expect(kept.solved[0]!.layout!.footfalls.length).toBeGreaterThan(3);
      expect(kept.athleteIds).toEqual([athlete]);
      // A baseline that nobody had set follows the athlete from now on.
      expect(kept.choices).toMatchObject({ cadence: { baselineSpm: null, weeks: 6 } });
    });
    await app.db.destroy();
  } finally {
    await db.destroy();
  }
});

it('what was measured before plans were kept with it says nothing of a plan', async () => {
  const { ownerUrl } = await emptyDatabase();
  const db = new Kysely<unknown>({
    dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: ownerUrl, max: 1 }) }),
  });
  try {
    await migrate(ownerUrl);
    await sql`drop index rep_measured, rep_steady`.execute(db);
    const [club, athlete, session, set] = Array.from({ length: 4 }, () => uuid());
    await sql`select set_config('gravek.club', ${club}, false)`.execute(db);
    await sql`insert into club (id, name, unit, cue_school, time_zone)
      values (${club}, 'Before', 'metric', 'root-cause', 'UTC')`.execute(db);
    await sql`insert into athlete (club_id, id, name, squad, hand, takeoff_foot)
      values (${club}, ${athlete}, 'Somebody', 'Squad', 'left', 'left')`.execute(db);
    await sql`insert into session (club_id, id, day, title) values (${club}, ${session}, '2031-05-01', 'S')`.execute(
      db,
    );
    await sql`alter table rep drop constraint rep_club_id_drill_set_id_fkey`.execute(db);
    const measured = {
      ...{ by: 'pod', simulated: false, steps: [{ lengthM: 1.2, intervalS: 0.3 }] },
      course: [1, 2].map((atS) => ({ atS, cadenceSpm: 170, speedMps: null })),
    };
    for (const [n, own] of [measured, { ...measured, steps: [], course: [] }, null].entries()) {
      await sql`insert into rep (club_id, id, session_id, drill_set_id, athlete_id, set_no, side, rep_no, outcome, at,
          movement, turn, device, device_no, arrival, measured)
        values (${club}, ${uuid()}, ${session}, ${set}, ${athlete}, 1, 'own', ${n + 1}, 'clean', now(),
          'gaps', ${n + 1}, ${uuid()}, 1, ${n + 1}, ${own && JSON.stringify(own)}::jsonb)`.execute(
        db,
      );
    }
    await beside.up(db);
    const { rows } = await sql<{ measured: unknown }>`
      select measured from rep order by rep_no`.execute(db);
    expect(rows.map((row) => row.measured)).toEqual([
      {
        ...measured,
        perMinute: false,
        steps: [{ lengthM: 1.2, intervalS: 0.3, n: null, plannedM: null, plannedS: null }],
        course: measured.course.map((one) => ({ ...one, plannedSpm: null, plannedMps: null })),
      },
      { ...measured, perMinute: false, steps: [], course: [] },
      null,
    ]);
  } finally {
    await db.destroy();
  }
});
