import { addLoads } from '@gravek/core/session/repCounts';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Ground } from '@gravek/contract/ground';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Session, SessionInput } from '@gravek/contract/session';
import { slotFor, slotsOn, takenFrom } from '@gravek/library/planning/onGround';
import { asFitting, sessionFigures } from '@gravek/library/session/sessionFigures';
import {
  mostLoaded,
  type MostOf,
  sessionLoads,
  weekLimit,
} from '@gravek/library/session/sessionLoad';
import type { Conditions } from '@gravek/library/session/sessionTime';
import type { Base } from '@gravek/library/session/work';
import { useMemo } from 'react';
import { useSessions } from '../api/queries';
import { weekOf } from '../controls/dates';
import { useMember } from '../member/member';
import { documentsHere, useDocumentsHere } from '../parts/catalogue/documents';
import { makesBy, useHistory, useLoads, weeksBy } from './useLoads';
import { baseOn, bodiesOf, codesOf, useFinds } from './useWork';

const NONE: readonly never[] = [];

const worksOf = (sets: readonly DrillSet[], of: (set: DrillSet) => Base | null) =>
  sets.map((set) => ({ set, base: of(set) }));

type Club = { approaches: ApproachSummary[]; athletes: Athlete[]; grounds: Ground[] };

/** Where and for how long a session is, and what its sets come to, but for the loads. */
export const useTimes = (draft: SessionInput, { approaches, athletes, grounds }: Club) => {
  const { date, drillSets, circuit } = draft;
  const finds = useFinds(approaches, drillSets);
  const ground = grounds.find((ground) => ground.id === draft.groundId);
  const here = useMemo(() => (ground ? takenFrom(ground) : null), [ground]);
  const lanes = ground?.lanes ?? 1;
  const history = useHistory(date);
  const made = useMemo(() => makesBy(history), [history]);
  const makesOf = useMemo<NonNullable<Conditions['makesOf']>>(
    () => (id, movement) => made.get(`${id}/${movement}`),
    [made],
  );
  const bodies = useMemo(() => {
    const ids = new Set(drillSets.flatMap((set) => set.athleteIds));
    const present = athletes.filter((athlete) => ids.has(athlete.id));
    // With nobody in it yet, somebody stands for all.
    return bodiesOf(present.length > 0 ? present : athletes.slice(0, 1));
  }, [athletes, drillSets]);
  const baseOfSet = useMemo(() => baseOn(finds, here), [finds, here]);
  const { slot, figures } = useMemo(() => {
    const conditions = { lanes, people: athletes, on: date, makesOf };
    const figuresAt = (slotS: number | null) =>
      sessionFigures({ drillSets, circuit, baseOfSet, bodies, conditions, slotS });
    const without = figuresAt(null);
    const slot = ground && slotFor(ground, date, without.totalS);
    return { slot, figures: slot ? figuresAt(slot.minutes * 60) : without };
  }, [lanes, athletes, date, makesOf, drillSets, circuit, baseOfSet, bodies, ground]);

  return {
    finds,
    ground,
    here,
    lanes,
    makesOf,
    bodies,
    figures,
    baseOfSet,
    history,
    made,
    slot,
    /** the ground is the club's at times, but not on this day */
    notOnDay: ground !== undefined && ground.slots.length > 0 && slotsOn(ground, date).length === 0,
  };
};

/**
 * What is planned for the rest of a session's week, and not begun: it counts as much as what was logged.
 *
 * @returns undefined until it is known with its movements; what is open stays on the screen meanwhile
 */
export const usePlanned = (
  { id, date }: { id: string | undefined; date: string },
  approaches: readonly ApproachSummary[],
): Session[] | undefined => {
  const { today } = useMember();
  const week = weekOf(date);
  const { data } = useSessions(week[0]!, week[6]!);
  const planned = useMemo(
    () =>
      data?.filter(
        (session) =>
          session.id !== id && !session.archived && session.logged === 0 && session.date >= today,
      ),
    [data, id, today],
  );
  const codes = codesOf(
    (planned ?? NONE).flatMap((session) => session.drillSets),
    approaches,
  );
  return useDocumentsHere(codes) && documentsHere(codes) ? planned : undefined;
};

/** All that a session in the making comes to: `useTimes`, and who has most of what in the week. */
export const useFigures = (draft: SessionInput, all: Club) => {
  const { club } = useMember();
  const times = useTimes(draft, all);
  const { finds, baseOfSet, bodies, history, made } = times;
  const { approaches, athletes, grounds } = all;
  const { date, drillSets } = draft;
  const { figures } = times;
  const works = useMemo(
    () => worksOf(asFitting(drillSets, figures.sets), baseOfSet),
    [drillSets, figures, baseOfSet],
  );
  const planned = usePlanned(draft, approaches);
  const others = useMemo(
    () =>
      planned?.flatMap((session) => {
        const place = grounds.find((other) => other.id === session.groundId);
        return worksOf(session.drillSets, baseOn(finds, place ? takenFrom(place) : null));
      }) ?? null,
    [planned, grounds, finds],
  );
  const people = { people: athletes, on: date };
  const loads = useLoads(works, bodies, people, made);
  const besides = useLoads(others, bodies, people, made);
  const most = useMemo((): MostOf[] | null => {
    // Without what is logged a week would look smaller than it is.
    if (!loads || !besides || !history) return null;
    const weeks = weeksBy(history, draft.id);
    const ahead = sessionLoads(besides);
    const birthYear = new Map(athletes.map((athlete) => [athlete.id, athlete.birthYear]));
    return mostLoaded(
      sessionLoads(loads),
      (id) => {
        const weeksKnown = weeks(id) ?? { before: [], thisWeek: addLoads([]) };
        return { ...weeksKnown, thisWeek: addLoads([weeksKnown.thisWeek, ahead.get(id) ?? null]) };
      },
      (id, kind) => weekLimit(club.limits, birthYear.get(id) ?? null, date, kind),
    );
  }, [loads, besides, history, draft.id, athletes, club.limits, date]);
  return { ...times, most };
};
