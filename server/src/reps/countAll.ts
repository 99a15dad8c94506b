import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { refreshStandings } from '../faults/queries';
import { recount } from './queries';

const SESSIONS = 20;
const ATHLETES = 50;

/** Counts the whole log of the transaction's club: after it was loaded, or first kept with counts. */
export const countAll = async (trx: Trx): Promise<void> => {
  const ofClub = sql<boolean>`club_id = gravek_club()`;
  const sessions = await trx.selectFrom('session').select('id').where(ofClub).execute();
  for (let i = 0; i < sessions.length; i += SESSIONS) {
    await recount(trx, { sessionIds: sessions.slice(i, i + SESSIONS).map((row) => row.id) });
  }
  const athletes = await trx.selectFrom('athlete').select('id').where(ofClub).execute();
  for (let i = 0; i < athletes.length; i += ATHLETES) {
    await refreshStandings(trx, {
      athleteIds: athletes.slice(i, i + ATHLETES).map((row) => row.id),
    });
  }
};
