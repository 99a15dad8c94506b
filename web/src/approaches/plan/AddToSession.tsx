import { Link } from 'react-router';
import { useSessions } from '../../api/queries';
import { useMember } from '../../member/member';

export const AddToSession = ({
  approachId,
  athleteId,
}: {
  approachId: string;
  athleteId: string;
}) => {
  const { today } = useMember();
  const sessions = useSessions(today, today);
  const open = (sessions.data ?? []).find((one) => !one.archived);
  const add = `add=${approachId}&athlete=${athleteId}`;
  return (
    <Link
      className="btn btn-outline-dark"
      to={open ? `/sessions/${open.id}?${add}` : `/sessions/new?${add}`}
    >
      {open ? 'Add to today’s session' : 'Add to a session'}
    </Link>
  );
};
