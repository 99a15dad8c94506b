import { MOVEMENTS } from '@gravek/library/movement/movements';
import { sequenceStart, straightStart } from '@gravek/library/planning/planStart';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { solveFor } from '../src/approaches/queries';
import { inChunks } from '../src/database/chunks';
import type { Trx } from '../src/database/connect';
import { countNew } from '../src/reps/countNew';

export type Volume = {
  squads: number;
  athletesEach: number;
  sessionsEach: number;
  /** reps of each athlete in each session */
  repsEach: number;
  /** day of the newest session, yyyy-mm-dd */
  lastDay: string;
  /** whether makes at two spots, and reads, are part of each rep */
  counted?: boolean;
};

/** Days from one session of a squad to the next. */
const EVERY_DAYS = 3;

const dayBefore = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10);

const idsOf = (count: number): string[] => Array.from({ length: count }, () => uuid());

/**
 * Fills the transaction's club with squads that have trained for long: made-up people, plans, sessions
 * and a log of which a third of the reps shows one fault or two.
 *
 * @returns ids of the newest session of each squad, and of its athletes
 */
export const fillClub = async (
  trx: Trx,
  { squads, athletesEach, sessionsEach, repsEach, lastDay, counted = false }: Volume,
): Promise<{ sessionId: string; athleteIds: string[] }[]> => {
  await sql`select setseed(0.17)`.execute(trx);
  const filled = [];
  for (let squad = 0; squad < squads; squad += 1) {
    const movement = MOVEMENTS[squad % 3]!;
    const athleteIds = idsOf(athletesEach);
    await inChunks(athleteIds, (some) =>
      trx
        .insertInto('athlete')
        .values(
          some.map((id) => ({
            id,
            name: `Runner ${id.slice(-6)}`,
            squad: `Squad ${squad}`,
            hand: 'right',
            takeoff_foot: 'left',
            shoe_m: 0.28,
            height_m: 1.75,
            leg_m: null,
            birth_year: 2008,
            positions: [],
          })),
        )
        .execute(),
    );
    const plan = {
      id: uuid(),
      movement: movement.code,
      choices: straightStart(movement) ?? sequenceStart(),
    };
    await trx
      .insertInto('approach')
      .values({ ...plan, name: `Plan ${squad}`, choices: JSON.stringify(plan.choices) })
      .execute();
    await solveFor(trx, [{ plan, athleteIds, listed: true }]);

    const sessionIds = idsOf(sessionsEach);
    await inChunks(
      sessionIds.map((id, i) => ({
        id,
        day: dayBefore(lastDay, EVERY_DAYS * (sessionsEach - 1 - i)),
        title: `Session ${i}`,
        place: '',
        log_end: athletesEach * repsEach,
      })),
      (some) => trx.insertInto('session').values(some).execute(),
    );
    const {
      id: _id,
      athleteIds: _athletes,
      ...set
    } = freshDrillSet('', { kind: 'plan', approachId: plan.id }, []);
    const makes = { target: 'makes', amount: 2, vary: { ...set.vary, spots: ['left', 'right'] } };
    const document = JSON.stringify({
      ...{ ...set, sets: 1, reps: repsEach },
      ...(counted ? makes : {}),
    });
    await sql`insert into drill_set (id, session_id, position, approach_id, document)
      select gen_random_uuid(), id, 0, ${plan.id}::uuid, ${document}::jsonb
      from session where id = any(${sessionIds}::uuid[])`.execute(trx);
    await sql`insert into drill_set_athlete (drill_set_id, athlete_id, position)
      select d.id, a.id, a.place from drill_set d,
        unnest(${athleteIds}::uuid[]) with ordinality as a (id, place)
      where d.session_id = any(${sessionIds}::uuid[])`.execute(trx);
    const faults = movement.faults.map((fault) => fault.code);
    // Half of the rows are from before rows said what they could show.
    const could = filled.length % 2 === 0 ? faults : null;
    await sql`insert into rep (id, session_id, drill_set_id, athlete_id, movement, turn, set_no, side,
        rep_no, outcome, lead_foot, speed_pct, device, device_no, arrival, at, could,
        variant, made, exit, taken, was_right)
      select gen_random_uuid(), d.session_id, d.id, x.athlete_id, ${movement.code}, n, 1, 'own',
        least(n, 50), case when random() < 0.33 then 'fault' else 'clean' end, 'left', 100,
        d.session_id, (x.position - 1) * ${repsEach} + n, (x.position - 1) * ${repsEach} + n, s.day,
        ${could}::text[],
        case when ${counted} then case when n % 2 = 0 then 'spot=left' else 'spot=right' end else '' end,
        case when ${counted} then n % 3 = 0 and n % 2 = 0 end,
        case when ${counted} then 'go:left' end, case when ${counted} then 'go:left' end,
        case when ${counted} then true end
      from drill_set d
      join session s on s.id = d.session_id
      join drill_set_athlete x on x.drill_set_id = d.id,
      generate_series(1, ${repsEach}::int) n
      where d.session_id = any(${sessionIds}::uuid[])`.execute(trx);
    await sql`insert into rep_fault (rep_id, fault)
      select distinct r.id, (${faults}::text[])[1 + floor(power(random(), 2) * ${faults.length})::int]
      from rep r, generate_series(1, 2)
      where r.session_id = any(${sessionIds}::uuid[]) and r.outcome = 'fault'`.execute(trx);
    filled.push({ sessionId: sessionIds.at(-1)!, athleteIds });
  }
  await countNew(trx);
  return filled;
};
