import type { Ground, GroundInput } from '@gravek/contract/ground';
import type { Selectable } from 'kysely';
import type { Tables, Trx } from '../database/connect';

/** A ground out of its row. */
export const asGround = ({
  id,
  document,
  version,
  archived_at,
}: Pick<Selectable<Tables['ground']>, 'id' | 'document' | 'version'> & {
  archived_at: unknown;
}): Ground => ({ ...document, id, version, archived: archived_at !== null });

/** The club's grounds by name; those put away are among them. */
export const grounds = async (
  trx: Trx,
  which: { ids: readonly string[] } | 'all' = 'all',
): Promise<Ground[]> => {
  let query = trx.selectFrom('ground').selectAll();
  if (which !== 'all') query = query.where('id', 'in', which.ids);
  const rows = await query.execute();
  return rows
    .map(asGround)
    .sort((a, b) => a.name.localeCompare(b.name) || a.id.localeCompare(b.id));
};

export const ground = async (trx: Trx, id: string): Promise<Ground | undefined> =>
  (await grounds(trx, { ids: [id] }))[0];

export const groundColumns = ({ id, ...document }: GroundInput) => ({
  id,
  document: JSON.stringify(document),
});
