import { sql, type Kysely } from 'kysely';

const COMMENTS: Record<string, string> = {
  'account.totp_secret': 'the secret of the second step, once it is on',
  'account.totp_step': 'the last half minute whose code was taken',
  'account.recovery': 'hashes of the recovery codes that are left',
  'membership.formerly': 'the account that an archive named in place of this one',
  'measurement.payload': 'the steps of a trial, or the reading',
  'measurement.what': "'trial', or the kind of the reading; made from the two columns",
  'athlete_approach.listed': 'on the list of the plan, not only solved because a session runs it',
  'athlete_approach.own': "what lists and the field screen show of it, on the athlete's usual side",
  'athlete_approach.other': 'the same on the other side',
  'session.log_end': 'number of the last row that arrived in its log',
  'session.counted': 'number of the last row that its counts know',
  'session.template': 'kept to begin others from',
  'drill_set.approach_id': 'the plan that it runs; null where it runs none',
  'rep.ways': 'null where the row does not say by which ways it was taught',
  'rep.could': 'faults that it could show; null in rows from before rows said it',
  'invitation.token_hash': 'null until a link is made',
  'rep_count.ways': 'ways of teaching with a space between; empty where rows do not say',
  'rep_count.could': 'faults that each of these reps could show; its hash is part of the key',
  'fault_standing.exposed': 'how many of the reps could show each fault',
  'fault_standing.reads': 'what came of all reads so far',
  'fault_standing.totals': 'makes, seconds, touches, metres and minutes so far',
  'rung_choice.drill': 'a drill of the progression instead of a rung',
};

/** What columns hold, where their names do not say it; the types made from the tables carry it too. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  for (const [column, text] of Object.entries(COMMENTS)) {
    await sql`comment on column ${sql.ref(column)} is ${sql.lit(text)}`.execute(db);
  }
};
