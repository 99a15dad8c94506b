import { type LogRow, standing, wasRun, turnKey, groupBy, shownIn } from './repLog';

/**
 * Turns that were run once and logged more than once, as two devices do without a network: the row that
 * stands, and one that counts for nothing until somebody decides.
 *
 * @example
 * const turn = { drillSetId: 'd', athleteId: 'a', set: 1, side: 'own', variant: '', rep: 1, watched: true, made: null };
 * const row = { ...turn, device: 'phone', deviceNo: 1, arrival: 1, outcome: 'clean', voids: null };
 * loggedTwice([{ ...row, id: 'x' }, { ...row, id: 'y', device: 'tablet', arrival: 2 }])[0].other.device
 * // 'tablet'
 */
export const loggedTwice = <R extends LogRow>(log: readonly R[]): { stands: R; other: R }[] => {
  const answers = new Map(
    standing(log)
      .filter(wasRun)
      .map((row) => [turnKey(row), row] as const),
  );
  return [...groupBy(log, turnKey)].flatMap(([key, rows]) => {
    const stands = answers.get(key);
    const gone = new Set(rows.flatMap((row) => (row.outcome === 'void' ? (row.voids ?? []) : [])));
    return stands === undefined
      ? []
      : rows
          .filter((row) => wasRun(row) && row.id !== stands.id && !gone.has(row.id))
          .map((other) => ({ stands, other }));
  });
};

/**
 * Turns of which two devices tell different things, for a coach to decide: what they agree on is settled,
 * and so is what only one of them has watched.
 *
 * @example
 * const turn = { drillSetId: 'd', athleteId: 'a', set: 1, side: 'own', variant: '', rep: 1, watched: true, made: null };
 * const row = { ...turn, device: 'phone', deviceNo: 1, arrival: 1, outcome: 'clean', voids: null };
 * const [told] = toldDifferently([
 *   { ...row, id: 'x', faults: [] },
 *   { ...row, id: 'y', device: 'tablet', arrival: 2, faults: ['early'] },
 * ]);
 * [told.stands.device, told.other.device] // ['phone', 'tablet']
 */
export const toldDifferently = <R extends LogRow & { faults: readonly string[] }>(
  log: readonly R[],
): { stands: R; other: R }[] =>
  loggedTwice(log).filter(
    ({ stands, other }) =>
      stands.device !== other.device &&
      stands.watched === other.watched &&
      (shownIn(stands) !== shownIn(other) ||
        stands.made !== other.made ||
        stands.outcome !== other.outcome),
  );
