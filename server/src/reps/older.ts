import { wasRun, type CountedRow } from '@gravek/core/session/repLog';
import { variantFrom } from '@gravek/core/session/variants';
import type { StoredRep } from '@gravek/contract/session';
import { outcomeOf } from '@gravek/library/field/outcome';
import { viewOfRep } from '@gravek/library/field/shows';
import { usualBody } from '@gravek/library/planning/usualBody';
import { baseOf } from '@gravek/library/session/work';
import type { Trx } from '../database/connect';
import { findsOf } from '../approaches/finds';

/** A row as it was logged; `could` is null where rows did not say yet what they could show. */
type LoggedRow = Omit<CountedRow, 'could'> & Pick<StoredRep, 'could'>;

/** What is solved for a body is kept with it: after so many views another one takes its place. */
const MOST_VIEWS = 2_000;
let body = usualBody();
let views = 0;

const nextBody = (): typeof body => {
  views += 1;
  if (views % MOST_VIEWS === 0) body = usualBody();
  return body;
};

/** Nobody watched a whole row, and rows of before do not say whom. */
const wasWatched = ({ stand, target }: { stand: string; target: string }): boolean =>
  stand !== 'row' || target === 'makes' || target === 'seconds';

/**
 * Rows with what they could show, whether their read was answered and whether they were watched. What a row
 * of before does not say is worked out from its drill set, as it is now; the row itself stays as it is.
 */
export const withViews = async (trx: Trx, rows: readonly LoggedRow[]): Promise<CountedRow[]> => {
  const older = rows.filter(({ could }) => could === null);
  if (older.length === 0) return [...rows] as CountedRow[];
  const setIds = [...new Set(older.map((row) => row.drillSetId))];
  const kept = await trx
    .selectFrom('drill_set')
    .select(['id', 'document'])
    .where('id', 'in', setIds)
    .execute();
  const sets = kept.map(({ id, document }) => ({ ...document, id, athleteIds: [] }));
  const finds = await findsOf(trx, sets);
  const workById = new Map(sets.map((set) => [set.id, { set, base: baseOf(set.work, finds) }]));
  const viewByKey = new Map<string, ReturnType<typeof viewOfRep>>();
  return rows.map((row): CountedRow => {
    const { could } = row;
    if (could !== null) return { ...row, could };
    const work = workById.get(row.drillSetId);
    if (!work?.base) return { ...row, could: [...row.faults], watched: false };
    const { set, base } = work;
    const called = set.call?.kind === 'reads';
    const exit = row.exit !== null && (called || row.taken !== null) ? row.exit : null;
    const key = [set.id, row.side, row.variant, row.exit, row.taken, exit].join(' ');
    const view =
      viewByKey.get(key) ??
      viewOfRep(
        base,
        variantFrom(row.variant, row.side),
        { exit: row.exit, asked: exit, taken: row.taken, faults: [] },
        nextBody(),
      );
    viewByKey.set(key, view);
    const faults = [...new Set([...row.faults, ...view.faults])];
    return {
      ...row,
      could: view.could,
      right: view.right,
      faults,
      outcome: wasRun(row) ? outcomeOf(set, { faults, heldS: row.heldS }) : row.outcome,
      watched: wasWatched(set),
    };
  });
};
