import type { Session } from '@gravek/contract';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useSessions } from '../api/queries';
import { useMayPlan, useMember } from '../member/member';
import { PageHead } from '../controls/PageHead';
import { Loaded } from '../controls/Notice';
import { dayName, minutes, shift, weekOf } from '../controls/dates';
import { useReps } from '../controls/useReps';
import { useOutlook } from './useWork';

const Card = ({ session }: { session: Session }) => {
  const repsOf = useReps();
  const { where, seconds, sets } = useOutlook()(session);
  const people = new Set(session.drillSets.flatMap((set) => set.athleteIds)).size;
  return (
    <Link className="session-card" to={`/sessions/${session.id}`}>
      <div className="session-title">{session.title}</div>
      <div className="quiet small-text">{where}</div>
      <ul className="list-unstyled small-text mb-1 mt-1">
        {sets.map((set) => (
          <li key={set.id}>{set.name}</li>
        ))}
      </ul>
      <div className="small-text">
        <span className="figure">{people}</span> athletes,{' '}
        <span className="figure">{session.logged}</span> of{' '}
        <span className="figure">{repsOf(session)}</span> reps
      </div>
      <div className="quiet small-text">about {minutes(seconds)}</div>
    </Link>
  );
};

export const Sessions = () => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const [day, setDay] = useState(today);
  const days = weekOf(day);
  const sessions = useSessions(days[0]!, days[6]!);
  return (
    <>
      <PageHead title="Sessions" over={`Week of ${dayName(days[0]!)}`}>
        <Button
          variant="outline-dark"
          aria-label="Week before"
          onClick={() => setDay(shift(day, -7))}
        >
          <ChevronLeft size={18} />
        </Button>
        <Button variant="outline-dark" onClick={() => setDay(today)}>
          This week
        </Button>
        <Button
          variant="outline-dark"
          aria-label="Week after"
          onClick={() => setDay(shift(day, 7))}
        >
          <ChevronRight size={18} />
        </Button>
        {mayPlan && (
          <Link
            className="btn btn-primary"
            to={`/sessions/new?day=${days.includes(today) ? today : days[0]}`}
          >
            Plan a session
          </Link>
        )}
      </PageHead>
      <Loaded query={sessions} what="Getting the week …">
        {(list) => (
          <div className="week">
            {days.map((day) => {
              const own = list.filter((session) => session.date === day && !session.archived);
              return (
                <section
                  key={day}
                  className={day === today ? 'week-day today' : 'week-day'}
                  aria-label={dayName(day)}
                >
                  <div className={day === today ? 'fw-bold' : 'quiet'}>
                    {dayName(day)}
                    {day === today && ', today'}
                  </div>
                  {own.map((session) => (
                    <Card key={session.id} session={session} />
                  ))}
                  {own.length === 0 &&
                    (mayPlan ? (
                      <Link className="small-text quiet" to={`/sessions/new?day=${day}`}>
                        free, plan one
                      </Link>
                    ) : (
                      <span className="small-text quiet">free</span>
                    ))}
                </section>
              );
            })}
          </div>
        )}
      </Loaded>
    </>
  );
};
