import type { Layout } from '@gravek/core/layout/shape';
import type { StraightResult } from '@gravek/core/runup/straightPlan';
import { type Kysely, sql } from 'kysely';

/** Counts of the log, and what follows from them. */
export const LOG_TABLES = ['rep_count', 'fault_count', 'fault_standing'] as const;

type Solved = { layout: Layout | null; straight: StraightResult | null };
type Falls = { foot: 'left' | 'right'; timeS: number; special: boolean }[];

/** The line that lists and the field screen show of a plan as it was kept before. */
const outlineOf = ({ layout, straight }: Solved): Record<string, unknown> | null => {
  const falls = layout?.footfalls.filter((fall) => fall.n > 0) ?? [];
  if (straight ? !straight.feasible : falls.length === 0) return null;
  const contacts: Falls = straight?.feasible
    ? straight.steps.map(({ foot, timeS, role }) => ({ foot, timeS, special: role !== 'build' }))
    : falls.map(({ foot, timeS, contact }) => ({ foot, timeS, special: contact !== 'step' }));
  return {
    firstFoot: straight?.startFoot ?? contacts[0]!.foot,
    lastFoot: contacts.at(-1)!.foot,
    startM: straight?.feasible ? straight.distanceM : null,
    totalTimeS: straight?.feasible ? straight.totalTimeS : layout!.totalTimeS,
    steps: straight?.feasible ? straight.steps.length : falls.at(-1)!.n,
    contacts,
    checkMarks: straight?.feasible
      ? straight.checkMarks.map(({ stepsOut, toTargetM }) => ({ stepsOut, toTargetM }))
      : [],
  };
};

const otherFoot = (foot: unknown): string => (foot === 'left' ? 'right' : 'left');

/**
 * A rep says by itself what it was and is ordered without clocks; counts are kept beside the log; a
 * plan has one shape, whatever its movement.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table session add column log_end integer not null default 0;

    alter table rep
      add column movement text,
      add column part text,
      add column turn integer,
      add column lead_foot text check (lead_foot in ('left', 'right')),
      add column speed_pct integer,
      add column device uuid,
      add column device_no integer,
      add column arrival integer;

    -- What was logged before came, as far as is known, in the order of its clock from one device.
    with placed as (
      select r.club_id, r.id,
        row_number() over (partition by r.club_id, r.session_id order by r.at, r.id) as place,
        p.movement, p.choices ->> 'drill' as drill,
        round(100 * (p.choices ->> 'speedFraction')::numeric)::int as speed,
        (d.reps * cardinality(d.sides)) * (r.set_no - 1)
          + d.reps * (coalesce(array_position(d.sides, r.side), 1) - 1) + r.rep_no as turn
      from rep r
      join drill_set d on d.club_id = r.club_id and d.id = r.drill_set_id
      join approach p on p.club_id = d.club_id and p.id = d.approach_id
    )
    update rep set movement = placed.movement, part = placed.drill, speed_pct = placed.speed,
      turn = placed.turn, device = rep.club_id, device_no = placed.place, arrival = placed.place
    from placed where placed.club_id = rep.club_id and placed.id = rep.id;
    update session set log_end = coalesce((select max(arrival) from rep
      where rep.club_id = session.club_id and rep.session_id = session.id), 0);

    alter table rep
      alter column movement set not null,
      alter column turn set not null,
      alter column device set not null,
      alter column device_no set not null,
      alter column arrival set not null;
    drop index rep_session;
    create unique index rep_arrival on rep (club_id, session_id, arrival);
    create index rep_session_athlete on rep (club_id, session_id, athlete_id);

    create table rep_count (
      club_id uuid not null default gravek_club(),
      athlete_id uuid not null,
      session_id uuid not null,
      movement text not null,
      -- an empty text or 0 where nothing was asked: a key holds no null
      part text not null,
      side text not null,
      lead_foot text not null,
      speed_pct integer not null,
      reps integer not null check (reps > 0),
      cues text[] not null,
      primary key (club_id, athlete_id, movement, session_id, part, side, lead_foot, speed_pct),
      foreign key (club_id, athlete_id) references athlete on delete cascade,
      foreign key (club_id, session_id) references session on delete cascade
    );
    create index rep_count_session on rep_count (club_id, session_id);

    create table fault_count (
      club_id uuid not null default gravek_club(),
      athlete_id uuid not null,
      session_id uuid not null,
      movement text not null,
      part text not null,
      side text not null,
      lead_foot text not null,
      speed_pct integer not null,
      fault text not null,
      reps integer not null check (reps > 0),
      primary key (club_id, athlete_id, movement, session_id, part, side, lead_foot, speed_pct, fault),
      foreign key (club_id, athlete_id, movement, session_id, part, side, lead_foot, speed_pct)
        references rep_count on delete cascade
    );

    create table fault_standing (
      club_id uuid not null default gravek_club(),
      athlete_id uuid not null,
      movement text not null,
      reps integer not null,
      sessions integer not null,
      last_day date not null,
      last_session_id uuid not null,
      faults jsonb not null,
      -- the same as it was before the last session: what the cue of a session under way rests on
      reps_before integer not null,
      faults_before jsonb not null,
      primary key (club_id, athlete_id, movement),
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    create index fault_standing_movement on fault_standing (club_id, movement);

    -- A baseline that nobody had set was kept as the usual 164; from now on it follows the athlete.
    update approach set choices = jsonb_set(choices, '{cadence,baselineSpm}', 'null')
      where choices #>> '{cadence,baselineSpm}' = '164';

    alter table athlete_approach
      add column listed boolean not null default true,
      add column layout jsonb,
      add column straight jsonb,
      add column own jsonb,
      add column other jsonb;
  `.execute(db);

  const kept = await sql<{
    club_id: string;
    approach_id: string;
    athlete_id: string;
    result: Layout | StraightResult;
  }>`select club_id, approach_id, athlete_id, result from athlete_approach`.execute(db);
  for (const { club_id, approach_id, athlete_id, result } of kept.rows) {
    const solved: Solved =
      'footfalls' in result
        ? { layout: result, straight: null }
        : { layout: null, straight: result };
    const own = outlineOf(solved);
    const other = own && {
      ...own,
      firstFoot: otherFoot(own.firstFoot),
      lastFoot: otherFoot(own.lastFoot),
      contacts: (own.contacts as Falls).map((contact) => ({
        ...contact,
        foot: otherFoot(contact.foot),
      })),
    };
    const json = (value: unknown) => (value === null ? null : JSON.stringify(value));
    await sql`update athlete_approach
      set layout = ${json(solved.layout)}, straight = ${json(solved.straight)},
        own = ${json(own)}, other = ${json(other)}
      where club_id = ${club_id} and approach_id = ${approach_id}
        and athlete_id = ${athlete_id}`.execute(db);
  }
  await sql`alter table athlete_approach drop column result`.execute(db);

  for (const table of LOG_TABLES) {
    await sql`
      alter table ${sql.table(table)} enable row level security;
      create policy ${sql.ref(`${table}_of_club`)} on ${sql.table(table)}
        using (club_id = gravek_club()) with check (club_id = gravek_club());
      grant select, insert, update, delete on ${sql.table(table)} to gravek_app;
    `.execute(db);
  }
};
