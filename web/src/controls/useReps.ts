import type { Athlete } from '@gravek/contract/athlete';
import type { Session } from '@gravek/contract/session';
import { sessionReps } from '@gravek/library/session/sessionTime';
import { useAthletes } from '../api/queries';

const NONE: readonly Athlete[] = [];

/** Reps that a session comes to, fewer for who is on reduced volume. */
export const useReps = () => {
  const people = useAthletes().data ?? NONE;
  return (session: Pick<Session, 'date' | 'drillSets'>): number => sessionReps(session, people);
};
