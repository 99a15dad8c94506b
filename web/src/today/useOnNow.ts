import { hourIn } from '@gravek/core';
import type { Session } from '@gravek/contract';
import { shift } from '../controls/dates';
import { useReps } from '../controls/useReps';
import { useMember } from '../member/member';

/** Until this hour a session that was begun before midnight can still be under way. */
const NIGHT_ENDS = 5;

/** Whether a session is on now: one of today, or one that was begun yesterday and goes on past midnight. */
export const useOnNow = (): ((session: Session) => boolean) => {
  const { today, club } = useMember();
  const repsOf = useReps();
  const isNight = hourIn(club.timeZone, new Date()) < NIGHT_ENDS;
  return (session) =>
    !session.archived &&
    (session.date === today ||
      (isNight &&
        session.date === shift(today, -1) &&
        session.logged > 0 &&
        session.logged < repsOf(session)));
};
