import { repBatch, type Rep, type RepReceipt } from '@gravek/contract';
import type { Trx } from '../database/connect';
import { route } from '../http/route';
import { repColumns } from './queries';

/** Of some ids, those that a table of the club holds. */
const present = async (
  trx: Trx,
  table: 'drill_set' | 'athlete' | 'rep',
  ids: readonly string[],
): Promise<Set<string>> => {
  if (ids.length === 0) return new Set();
  const rows = await trx
    .selectFrom(table)
    .select('id')
    .where('id', 'in', [...new Set(ids)])
    .execute();
  return new Set(rows.map((row) => row.id));
};

/**
 * Stores a batch from a phone's queue. A rep that is already there counts as stored; one that cannot
 * be stored is refused by itself, so that it does not hold up the others.
 */
const store = async (trx: Trx, reps: readonly Rep[], accountId: string): Promise<RepReceipt> => {
  const sets = await trx
    .selectFrom('drill_set')
    .select(['id', 'session_id'])
    .where(
      'id',
      'in',
      reps.map((rep) => rep.drillSetId),
    )
    .execute();
  const sessionOf = new Map(sets.map((set) => [set.id, set.session_id]));
  const people = await present(
    trx,
    'athlete',
    reps.map((rep) => rep.athleteId),
  );
  const known = await present(
    trx,
    'rep',
    reps.flatMap((rep) => (rep.voids ? [rep.id, rep.voids] : [rep.id])),
  );
  const receipt: RepReceipt = { stored: [], refused: [] };
  const taken: Rep[] = [];
  for (const rep of reps) {
    const why = known.has(rep.id)
      ? null
      : sessionOf.get(rep.drillSetId) !== rep.sessionId
        ? 'Its drill set is not there any more.'
        : !people.has(rep.athleteId)
          ? 'Its athlete is not there any more.'
          : rep.outcome === 'void' && (!rep.voids || !known.has(rep.voids))
            ? 'The rep that it takes back is not there.'
            : null;
    if (why) {
      receipt.refused.push({ id: rep.id, title: why });
      continue;
    }
    receipt.stored.push(rep.id);
    if (!known.has(rep.id)) taken.push(rep);
    known.add(rep.id);
  }
  if (taken.length === 0) return receipt;
  const inserted = await trx
    .insertInto('rep')
    .values(taken.map((rep) => repColumns(rep, accountId)))
    .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
    .returning('id')
    .execute();
  const fresh = new Set(inserted.map((row) => row.id));
  const faults = taken
    .filter((rep) => fresh.has(rep.id) && rep.outcome === 'fault')
    .flatMap((rep) => rep.faults.map((fault) => ({ rep_id: rep.id, fault })));
  if (faults.length > 0) await trx.insertInto('rep_fault').values(faults).execute();
  return receipt;
};

export const repRoutes = [
  route({
    method: 'post',
    path: '/reps',
    access: 'assistant',
    body: repBatch,
    changes: 'reps',
    run: ({ trx, who, body }) => store(trx, body.reps, who.accountId),
  }),
];
