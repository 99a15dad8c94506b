import { bodyOf, type Body } from '@gravek/core/layout/body';
import type { ApproachSummary } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { OnGround } from '@gravek/contract/ground';
import type { DrillSet, Session } from '@gravek/contract/session';
import { slotsOn, takenFrom } from '@gravek/library/onGround';
import { sessionTimeS, type Conditions } from '@gravek/library/sessionTime';
import { baseOf, targetWords, variesWords, type Base, type Finds } from '@gravek/library/work';
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

export type Outlook = {
  /** where it is, with the time if the club has one slot there */
  where: string;
  seconds: number;
  sets: { id: string; name: string; line: string; approachId: string | null }[];
};

/** A session in a few lines, as the week and Today show it. */
export const useOutlook = (): ((session: Session) => Outlook) => {
  const approaches = useApproaches().data ?? NONE;
  const people = useAthletes().data ?? NONE;
  const grounds = useGrounds().data;
  const finds = useFinds(approaches);
  const by = useMemo(() => bodiesOf(people), [people]);
  return ({ drillSets, groundId, place, date }) => {
    const ground = grounds?.find((one) => one.id === groundId);
    const slots = ground ? slotsOn(ground, date) : [];
    const [slot] = slots.length === 1 ? slots : [];
    const conditions: Conditions = { lanes: ground?.lanes, people, on: date };
    const baseOfSet = baseOn(finds, ground ? takenFrom(ground) : null);
    const pacerOf = (set: DrillSet): Body | undefined =>
      set.athleteIds.map((id) => by.get(id)).find((body) => body !== undefined);
    return {
      where: [ground?.name ?? place, slot && `${slot.from}–${slot.to}`].filter(Boolean).join(', '),
      seconds: sessionTimeS(drillSets, baseOfSet, pacerOf, conditions),
      sets: drillSets.map((set) => {
        const base = baseOfSet(set);
        const varies = base ? variesWords(base, set) : '';
        return {
          id: set.id,
          name: base?.name ?? 'not there any more',
          line: [varies, set.sets > 1 ? `${set.sets} × ${targetWords(set)}` : targetWords(set)]
            .filter(Boolean)
            .join(', '),
          approachId: set.work.kind === 'plan' ? set.work.approachId : null,
        };
      }),
    };
  };
};
