import { hourIn } from '@gravek/core/days';
import type { Session } from '@gravek/contract/session';
import { shift } from '../controls/dates';
import { useReps } from '../controls/useReps';
import { useMember } from '../member/member';

/** Until this hour a session that was begun before midnight can still be under way. */
const NIGHT_ENDS = 5;

/** Which sessions are on now, and in which order they stand. */
export const useOnNow = () => {
  const { today, club } = useMember();
  const repsOf = useReps();
  const isNight = hourIn(club.timeZone, new Date()) < NIGHT_ENDS;
  const isOver = (session: Session): boolean => session.logged >= repsOf(session);
  /** one of today, or one that was begun yesterday and goes on past midnight */
  const isOnNow = (session: Session): boolean =>
    !session.archived &&
    (session.date === today ||
      (isNight && session.date === shift(today, -1) && session.logged > 0 && !isOver(session)));
  const rank = (session: Session): number => (isOnNow(session) ? 0 : 2) + (isOver(session) ? 1 : 0);
  /** what is on now first, and of those what still has reps to run */
  const inTurn = (a: Session, b: Session): number =>
    rank(a) - rank(b) || a.date.localeCompare(b.date) || a.title.localeCompare(b.title);
  return { isOnNow, isOver, inTurn };
};
