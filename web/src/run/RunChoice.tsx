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
            {kept.map((one) => (
              <li key={one.id} className="row-line">
                <div>
                  <strong>{one.title}</strong>
                  <div className="quiet small-text">
                    {one.date === today ? 'today' : dayName(one.date)}
                  </div>
                </div>
                <Link className="btn btn-primary ms-auto" to={`/run/${one.id}`}>
                  Go on
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Loaded query={sessions} what="Getting the sessions …">
        {(list) => {
          const open = list.filter((one) => !one.archived).sort(inTurn);
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
              {open.map((one) => (
                <li key={one.id} className="row-line">
                  <div>
                    <strong>{one.title}</strong>
                    <div className="quiet small-text">
                      {one.date === today ? 'today' : dayName(one.date)}, {one.logged} of{' '}
                      {repsOf(one)} reps
                    </div>
                  </div>
                  <Link
                    className={
                      isOnNow(one) && !isOver(one)
                        ? 'btn btn-primary ms-auto'
                        : 'btn btn-outline-dark ms-auto'
                    }
                    to={`/run/${one.id}`}
                  >
                    {one.logged > 0 ? 'Resume' : 'Run'}
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
