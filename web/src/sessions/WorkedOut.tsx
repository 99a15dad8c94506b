import type { Body } from '@gravek/core/layout/body';
import type { ApproachSummary } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Ground } from '@gravek/contract/ground';
import { takenFrom } from '@gravek/library/onGround';
import { solvingRuns } from '@gravek/library/sessionFigures';
import { startTransition, useEffect, useState, type ReactNode } from 'react';
import { inSlices } from '../controls/slices';
import { useDocumentsHere } from '../movements/documents';
import { usePlanned } from './useFigures';
import { useHistory } from './useLoads';
import { baseOn, bodiesOf, codesOf, useFinds } from './useWork';

const NOTHING: readonly DrillSet[] = [];

/**
 * Solves the runs of a session before what needs them is drawn, a few at a time: a phone shows the head of
 * the page meanwhile and can be touched.
 */
export const WorkedOut = ({
  session,
  approaches,
  athletes,
  grounds,
  meanwhile,
  children,
}: {
  session: {
    id?: string;
    drillSets: readonly DrillSet[];
    groundId: string | null;
    date: string;
  };
  approaches: ApproachSummary[];
  athletes: readonly Athlete[];
  grounds: readonly Ground[];
  meanwhile: ReactNode;
  children: ReactNode;
}) => {
  const [done, setDone] = useState(false);
  const { id, date, drillSets, groundId } = session;
  const here = useDocumentsHere(codesOf(drillSets, approaches));
  const finds = useFinds(approaches, here ? drillSets : NOTHING);
  // What the figures need besides is asked for now, not after.
  useHistory(date);
  usePlanned({ id, date }, approaches);
  useEffect(() => {
    if (done || !here) return undefined;
    let over = false;
    const ground = grounds.find((one) => one.id === groundId);
    const ids = new Set(drillSets.flatMap((set) => set.athleteIds));
    const work = function* () {
      const bodies = new Map<string, Body>();
      for (const athlete of athletes) {
        if (!ids.has(athlete.id)) continue;
        for (const [id, body] of bodiesOf([athlete])) bodies.set(id, body);
        yield;
      }
      yield* solvingRuns({
        drillSets,
        baseOfSet: baseOn(finds, ground ? takenFrom(ground) : null),
        bodies,
      });
    };
    const finish = (): void => {
      if (!over) startTransition(() => setDone(true));
    };
    // What cannot be solved is told of where it is drawn.
    inSlices(work(), () => over).then(finish, finish);
    return () => {
      over = true;
    };
  }, [done, here, drillSets, groundId, finds, athletes, grounds]);
  return done ? children : meanwhile;
};
