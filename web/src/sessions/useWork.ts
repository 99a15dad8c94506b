import { bodyOf, type Body } from '@gravek/core/layout/body';
import type { ApproachSummary } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { OnGround } from '@gravek/contract/ground';
import type { DrillSet, Session } from '@gravek/contract/session';
import { sessionOutlook, type Outlook } from '@gravek/library/sessionOutlook';
import { baseOf, type Base, type Finds } from '@gravek/library/work';
import { useMemo } from 'react';
import { useApproaches, useAthletes, useGrounds } from '../api/queries';
import { useCatalogue } from '../movements/useCatalogue';

const NONE: readonly never[] = [];

/** Where drill sets find the plans and movements that they name. */
export const useFinds = (approaches: readonly ApproachSummary[]): Finds => {
  const catalogue = useCatalogue();
  return useMemo(() => {
    const plans = new Map(approaches.map((one) => [one.id, one]));
    return {
      planOf: (id) => plans.get(id),
      movementOf: (code) => {
        try {
          return catalogue.of(code);
        } catch {
          return undefined;
        }
      },
    };
  }, [approaches, catalogue]);
};

const bodies = new WeakMap<Athlete, Body>();

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

/** A session in a few lines, as the week shows it. */
export const useOutlook = (): ((session: Session) => Outlook) => {
  const finds = useFinds(useApproaches().data ?? NONE);
  const people = useAthletes().data ?? NONE;
  const grounds = useGrounds().data ?? NONE;
  return (session) => sessionOutlook(session, { finds, grounds, people });
};
