import type { DrillSet } from '@gravek/contract/drillSet';
import type { NewRep, Rep, StoredRep } from '@gravek/contract/session';
import { outcomeOf } from './outcome';

type Numbered = Rep & { arrival?: number | null; atMs?: number };

/**
 * The row that takes another back. A void acts within its turn: it carries the turn of the row that it
 * names, so that `standing` finds both together, and nothing of any other turn changes.
 */
export const voidOf = <R extends Numbered>(row: R, rep: Pick<Rep, 'id' | 'at'>): NewRep => {
  const { arrival: _arrival, atMs: _atMs, device: _device, deviceNo: _no, ...plain } = row;
  return {
    ...plain,
    ...rep,
    outcome: 'void',
    voids: row.id,
    faults: [],
    cue: null,
    load: null,
    measured: null,
  };
};

/**
 * The rows with which a film takes the place of what was logged of the rep that it shows.
 *
 * @param logged the row that stands first, then what others have logged of the same turn
 * @param seen faults that the film showed, and what was measured in it; a reaction takes the place of a tap
 * @param id makes a new id at every call
 */
export const filmedRows = (
  set: Pick<DrillSet, 'target' | 'amount'>,
  logged: readonly [StoredRep, ...StoredRep[]],
  seen: {
    faults: readonly string[];
    measured: Rep['measured'];
    /** seconds from a call to the first foot that lands; null where none was marked */
    reactionS: number | null;
  },
  id: () => string,
  at: string,
): NewRep[] => {
  const [{ arrival: _arrival, device: _device, deviceNo: _no, ...before }] = logged;
  const faults = [...new Set([...logged.flatMap((row) => row.faults), ...seen.faults])];
  return [
    ...logged.map((row) => voidOf(row, { id: id(), at })),
    {
      ...before,
      id: id(),
      at,
      outcome: outcomeOf(set, { faults, heldS: before.heldS }),
      faults,
      // Whoever films it has watched it.
      watched: true,
      measured: seen.measured,
      ...(seen.reactionS === null ? {} : { lateS: seen.reactionS, lateBy: 'film' as const }),
    },
  ];
};
