import { hourIn } from '@gravek/core/days';
import { sessionsOnNow } from '@gravek/library/session/sessionOutlook';
import { useAthletes } from '../api/queries';
import { useMember } from '../member/member';

/** Which sessions are on now, and in which order they stand. */
export const useOnNow = () => {
  const { today, club } = useMember();
  const people = useAthletes().data ?? [];
  return sessionsOnNow({ today, hour: hourIn(club.timeZone, new Date()), people });
};
