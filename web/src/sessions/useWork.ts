import { type Body, bodyOf } from '@gravek/core/layout/body';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Session } from '@gravek/contract/session';
import { type Outlook, sessionOutlook } from '@gravek/library/session/sessionOutlook';
import {
  type Base,
  baseOf,
  type Finds,
  keepSolved,
  type Solved,
} from '@gravek/library/session/work';
import { useMemo } from 'react';
import { useAthletes, useGrounds } from '../api/queries';
import { needDocuments } from '../parts/catalogue/documents';
import { useCatalogue } from '../parts/catalogue/useCatalogue';

const NONE: readonly never[] = [];

/** The movements that drill sets are of, by their plans too. */
export const codesOf = (
  sets: readonly DrillSet[],
  approaches: readonly ApproachSummary[],
): string[] =>
  sets.flatMap(({ work }) => {
    if (work.kind === 'movement') return [work.movement];
    if (work.kind === 'warm-up') return [];
    return approaches.find((approach) => approach.id === work.approachId)?.movement ?? [];
  });

/**
 * Where drill sets find the plans and movements that they name.
 *
 * @param sets those that are shown: the page waits for their movements
 */
export const useFinds = (
  approaches: readonly ApproachSummary[],
  sets: readonly DrillSet[],
): Finds => {
  const catalogue = useCatalogue();
  needDocuments(codesOf(sets, approaches));
  return useMemo(() => {
    const plans = new Map(approaches.map((approach) => [approach.id, approach]));
    return {
      planOf: (id) => plans.get(id),
      movementOf: (code) => {
        try {
          return catalogue.of(code);
        } catch (error) {
          if (error instanceof RangeError) return undefined;
          throw error;
        }
      },
    };
  }, [approaches, catalogue]);
};

const bodies = new WeakMap<Athlete, Body>();

/** Keeps the measures of an athlete that were reckoned elsewhere, with what was solved for them. */
export const keepBody = (athlete: Athlete, body: Body, runs: Solved): void => {
  const before = bodies.get(athlete);
  bodies.set(athlete, before ?? body);
  keepSolved(before ?? body, runs);
};

/** The measures of athletes, by their ids; the same ones as long as an athlete stays the same. */
export const bodiesOf = (athletes: readonly Athlete[]): Map<string, Body> =>
  new Map(
    athletes.map((athlete) => {
      const body = bodies.get(athlete) ?? bodyOf(athlete);
      bodies.set(athlete, body);
      return [athlete.id, body] as const;
    }),
  );

/** What a drill set is of, where the session is. */
export const baseOn =
  (finds: Finds, ground: OnGround | null) =>
  (set: DrillSet): Base | null =>
    baseOf(set.work, finds, ground);

/** Each of some sessions in a few lines, as the week shows it. */
export const useOutlook = (
  sessions: readonly Session[],
  approaches: readonly ApproachSummary[],
): ((session: Session) => Outlook) => {
  const finds = useFinds(
    approaches,
    sessions.flatMap((session) => session.drillSets),
  );
  const people = useAthletes().data ?? NONE;
  const grounds = useGrounds().data ?? NONE;
  return (session) => sessionOutlook(session, { finds, grounds, people });
};
