import { expect, it } from 'vitest';
import { assembled } from '../src/sessions/queries';

type Parts = Parameters<typeof assembled>[0];

/** Rows of a list, and how often one of them was looked at. */
const counted = <T extends object>(
  rows: readonly T[],
): { rows: readonly T[]; looks: () => number } => {
  let looks = 0;
  const watched = new Proxy(rows, {
    get: (list, key, receiver) => {
      if (typeof key === 'string' && /^\d+$/.test(key)) looks += 1;
      return Reflect.get(list, key, receiver) as unknown;
    },
  });
  return { rows: watched, looks: () => looks };
};

it('puts 500 sessions together without looking at every set for each of them', () => {
  const ids = Array.from({ length: 500 }, (_, i) => `s${i}`);
  const sets = counted(
    ids.flatMap((id) => [0, 1, 2].map((n) => ({ id: `${id}/${n}`, session_id: id, document: {} }))),
  );
  const people = counted(
    sets.rows.flatMap(({ id }) =>
      ['ada', 'ben'].map((who) => ({ drill_set_id: id, athlete_id: who })),
    ),
  );
  const before = sets.looks();
  const list = assembled({
    rows: ids.map((id) => ({ id, archived_at: null })),
    sets: sets.rows,
    people: people.rows,
    logged: new Map([['s7', 3]]),
  } as unknown as Parts);
  expect(list).toHaveLength(500);
  expect(list[7]!.logged).toBe(3);
  expect(list[499]!.drillSets.map((set) => set.athleteIds)).toEqual(
    [0, 1, 2].map(() => ['ada', 'ben']),
  );
  expect(sets.looks() - before).toBeLessThanOrEqual(3 * 1_500);
  expect(people.looks()).toBeLessThanOrEqual(3 * 3_000);
});
