import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Ground } from '@gravek/contract/ground';
import type { ApproachSummary } from '@gravek/contract/plan';
import { takenFrom } from '@gravek/library/planning/onGround';
import { type ReactNode, startTransition, useEffect, useState } from 'react';
import { useDocumentsHere } from '../parts/catalogue/documents';
import { usePlanned } from './useFigures';
import { useHistory } from './useLoads';
import { baseOn, codesOf, keepBody, useFinds } from './useWork';
import type { RunsAnswer } from './worker/session.worker';
import { askWork, beginWork } from './worker/sessionWork';

const NOTHING: readonly DrillSet[] = [];

/**
 * Has the runs of a session solved before what needs them is drawn, beside the page: a phone shows the head of
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
  // It comes beside what it is to work on.
  useEffect(beginWork, []);
  const { id, date, drillSets, groundId } = session;
  const here = useDocumentsHere(codesOf(drillSets, approaches));
  const finds = useFinds(approaches, here ? drillSets : NOTHING);
  // What the figures need besides is asked for now, not after.
  useHistory(date);
  usePlanned({ id, date }, approaches);
  useEffect(() => {
    if (done || !here) return undefined;
    let over = false;
    const ground = grounds.find((ground) => ground.id === groundId);
    const baseOfSet = baseOn(finds, ground ? takenFrom(ground) : null);
    const ids = new Set(drillSets.flatMap((set) => set.athleteIds));
    const present = athletes.filter((athlete) => ids.has(athlete.id));
    const take = (answer: RunsAnswer): void => {
      for (const [id, body, runs] of answer) {
        keepBody(
          present.find((athlete) => athlete.id === id)!,
          body,
          runs,
        );
      }
    };
    const finish = (): void => {
      if (!over) startTransition(() => setDone(true));
    };
    const sets = drillSets.map((set) => ({ set, base: baseOfSet(set) }));
    // What could not be solved beside the page is solved, or told of, where it is drawn.
    askWork((work) => work.runs({ sets, athletes: present }))
      .then(take)
      .then(finish, finish);
    return () => {
      over = true;
    };
  }, [done, here, drillSets, groundId, finds, athletes, grounds]);
  return done ? children : meanwhile;
};
