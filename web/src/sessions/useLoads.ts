import type { Body } from '@gravek/core/layout/body';
import { addLoads } from '@gravek/core/session/repCounts';
import type { BodyLoad } from '@gravek/core/session/repLog';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { LoadHistory } from '@gravek/contract/run';
import { type LoadsAsk, loadsOf, type WeeksOf } from '@gravek/library/session/sessionLoad';
import type { Conditions, Makes } from '@gravek/library/session/sessionTime';
import type { Base } from '@gravek/library/session/work';
import { useQuery } from '@tanstack/react-query';
import { startTransition, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { api } from '../api/client';
import { whenIdle } from '../controls/idle';
import { askWork } from './worker/sessionWork';

/** What the weeks before put on everybody, and how often each has made what. */
export const useHistory = (day: string): LoadHistory | undefined =>
  useQuery({
    queryKey: ['faults', 'history', day],
    queryFn: () => api.get<LoadHistory>(`/sessions/history?day=${day}`),
  }).data;

export const makesBy = (history: LoadHistory | undefined): Map<string, Makes> =>
  new Map((history?.makes ?? []).map((made) => [`${made.athleteId}/${made.movement}`, made]));

const WEEKS = 4;

/** The weeks of everybody from the first one in which anything was logged, and this one so far. */
export const weeksBy = (
  history: LoadHistory | undefined,
  sessionId: string,
): ((athleteId: string) => WeeksOf | undefined) => {
  const by = new Map<string, LoadHistory['weeks']>();
  for (const row of history?.weeks ?? []) {
    by.set(row.athleteId, [...(by.get(row.athleteId) ?? []), row]);
  }
  return (athleteId) => {
    const rows = by.get(athleteId);
    if (!rows) return undefined;
    const of = (ago: number): BodyLoad =>
      addLoads(
        rows
          .filter((row) => row.weeksAgo === ago && row.sessionId !== sessionId)
          .map((row) => row.load),
      );
    const first = Math.min(WEEKS, Math.max(...rows.map((row) => row.weeksAgo)));
    return {
      before: Array.from({ length: first }, (_, i) => of(first - i)),
      thisWeek: of(0),
    };
  };
};

/**
 * What drill sets put on each athlete, reckoned beside the interface where that can be loaded.
 *
 * @param sets null as long as they are not known
 * @returns null until it is reckoned; then as of the last change that was
 */
export const useLoads = (
  sets: readonly { set: DrillSet; base: Base | null }[] | null,
  bodies: ReadonlyMap<string, Body>,
  conditions: Pick<Conditions, 'people' | 'on'>,
  makes: ReadonlyMap<string, Makes>,
): ReadonlyMap<string, BodyLoad>[] | null => {
  const [loads, setLoads] = useState<ReadonlyMap<string, BodyLoad>[] | null>(null);
  const present = useMemo(() => {
    if (!sets) return null;
    const ids = new Set(sets.flatMap(({ set }) => set.athleteIds));
    return {
      sets: [...sets],
      bodies: [...bodies].filter(([id]) => ids.has(id)),
      conditions: {
        on: conditions.on ?? '',
        people: (conditions.people ?? [])
          .filter(({ id }) => ids.has(id))
          .map(({ id, restrictions }) => ({ id, restrictions })),
      },
      makes: [...makes],
    } satisfies LoadsAsk;
  }, [sets, bodies, conditions.on, conditions.people, makes]);
  const ask = useDeferredValue(present);
  useEffect(() => {
    if (!ask) return undefined;
    let over = false;
    const callOff = whenIdle(() => {
      askWork((work) => work.loads(ask))
        // The page is held up for a moment where the worker cannot be loaded.
        .catch(() => loadsOf(ask))
        .then(
          (answer) => {
            if (!over) startTransition(() => setLoads(answer));
          },
          () => undefined, // what cannot be laid out has no loads
        );
    });
    return () => {
      over = true;
      callOff();
    };
  }, [ask]);
  return loads;
};
