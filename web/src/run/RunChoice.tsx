import { useLiveQuery } from 'dexie-react-hooks';
import { Link } from 'react-router';
import { useSessions } from '../api/queries';
import { useMayPlan, useMember } from '../member/member';
import { PageHead } from '../controls/PageHead';
import { Empty, Loaded } from '../controls/Notice';
import { dayName, shift } from '../controls/dates';
import { keptList } from '../phone/store';
import { useReps } from '../controls/useReps';
import { OthersWaiting } from './OthersWaiting';
import { useOnNow } from './useOnNow';

/** Which session to run: today's, or one of the days around it. */
export const RunChoice = () => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const repsOf = useReps();
  const { isOnNow, isOver, inTurn } = useOnNow();
  const sessions = useSessions(shift(today, -2), shift(today, 2));
  // Without network a session that was opened before can still be gone on with.
  const kept = useLiveQuery(keptList, []) ?? [];
  return (
    <>
      <PageHead title="Run" over="The field screen, for a phone in one hand" />
      <OthersWaiting />
      {!sessions.data && kept.length > 0 && (
        <section aria-label="Kept on this phone">
          <h2>Kept on this phone</h2>
          <ul className="list-plain" style={{ maxWidth: 640 }}>
            {kept.map((session) => (
              <li key={session.id} className="row-line">
                <div>
                  <strong>{session.title}</strong>
                  <div className="quiet small-text">
                    {session.date === today ? 'today' : dayName(session.date)}
                  </div>
                </div>
                <Link className="btn btn-primary ms-auto" to={`/run/${session.id}`}>
                  Go on
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Loaded query={sessions} what="Getting the sessions …">
        {(list) => {
          const open = list.filter((session) => !session.archived).sort(inTurn);
          if (open.length === 0) {
            return (
              <Empty title="No session around today.">
                {mayPlan && (
                  <Link className="btn btn-primary" to="/sessions/new">
                    Plan one for today
                  </Link>
                )}
              </Empty>
            );
          }
          return (
            <ul className="list-plain" style={{ maxWidth: 640 }}>
              {open.map((session) => (
                <li key={session.id} className="row-line">
                  <div>
                    <strong>{session.title}</strong>
                    <div className="quiet small-text">
                      {session.date === today ? 'today' : dayName(session.date)}, {session.logged}{' '}
                      of {repsOf(session)} reps
                    </div>
                  </div>
                  <Link
                    className={
                      isOnNow(session) && !isOver(session)
                        ? 'btn btn-primary ms-auto'
                        : 'btn btn-outline-dark ms-auto'
                    }
                    to={`/run/${session.id}`}
                  >
                    {session.logged > 0 ? 'Resume' : 'Run'}
                  </Link>
                </li>
              ))}
            </ul>
          );
        }}
      </Loaded>
    </>
  );
};
