import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { CSS } from '@dnd-kit/utilities';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Session } from '@gravek/contract/session';
import type { Outlook } from '@gravek/library/session/sessionOutlook';
import { ChevronLeft, ChevronRight, GripVertical } from 'lucide-react';
import { Suspense, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { api, sentenceOf } from '../api/client';
import { useApproaches, useSessions, useWrite } from '../api/queries';
import { dayName, minutes, shift, weekOf } from '../controls/dates';
import { Loaded, Waiting } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { tell } from '../controls/toasts';
import { useReps } from '../controls/useReps';
import { useMayPlan, useMember } from '../member/member';
import { bodyOfSession } from '../parts/intoSession/copySession';
import { CalendarAddress } from './CalendarAddress';
import { useOutlook } from './useWork';

const Card = ({
  session,
  outlook: { where, seconds, sets },
  movable,
}: {
  session: Session;
  outlook: Outlook;
  movable: boolean;
}) => {
  const repsOf = useReps();
  const people = new Set(session.drillSets.flatMap((set) => set.athleteIds)).size;
  const { setNodeRef, attributes, listeners, transform, isDragging } = useDraggable({
    id: session.id,
    disabled: !movable,
  });
  return (
    <div
      ref={setNodeRef}
      className={isDragging ? 'session-card dragged' : 'session-card'}
      style={{ transform: CSS.Translate.toString(transform) }}
    >
      {movable && (
        <button
          type="button"
          className="grip"
          aria-label={`Move ${session.title} to another day`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={16} aria-hidden />
        </button>
      )}
      <Link className="card-link" to={`/sessions/${session.id}`}>
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
    </div>
  );
};

/** A day of the week, on which a session can be put. */
const Day = ({
  day,
  className,
  children,
}: {
  day: string;
  className: string;
  children: React.ReactNode;
}) => {
  const { setNodeRef, isOver } = useDroppable({ id: day });
  return (
    <section
      ref={setNodeRef}
      className={isOver ? `${className} over` : className}
      aria-label={dayName(day)}
    >
      {children}
    </section>
  );
};

/** Seven days with their sessions; it waits for the movements of all of them. */
const Week = ({
  days,
  sessions,
  approaches,
}: {
  days: readonly string[];
  sessions: readonly Session[];
  approaches: readonly ApproachSummary[];
}) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const outlook = useOutlook(sessions, approaches);
  return (
    <div className="week">
      {days.map((day) => {
        const daySessions = sessions.filter((session) => session.date === day && !session.archived);
        return (
          <Day key={day} day={day} className={day === today ? 'week-day today' : 'week-day'}>
            <div className={day === today ? 'fw-bold' : 'quiet'}>
              {dayName(day)}
              {day === today && ', today'}
            </div>
            {daySessions.map((session) => (
              <Card
                key={session.id}
                session={session}
                outlook={outlook(session)}
                movable={mayPlan && session.logged === 0}
              />
            ))}
            {daySessions.length === 0 &&
              (mayPlan ? (
                <Link className="small-text quiet" to={`/sessions/new?day=${day}`}>
                  free, plan one
                </Link>
              ) : (
                <span className="small-text quiet">free</span>
              ))}
          </Day>
        );
      })}
    </div>
  );
};

export const Sessions = () => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const [day, setDay] = useState(today);
  const [calendar, setCalendar] = useState(false);
  const days = weekOf(day);
  const sessions = useSessions(days[0]!, days[6]!);
  const approaches = useApproaches();
  const write = useWrite(
    (session: Session) => api.put<Session>(`/sessions/${session.id}`, bodyOfSession(session)),
    'sessions',
    'faults',
    'run',
  );
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const drop = async (list: readonly Session[], { active, over }: DragEndEvent): Promise<void> => {
    const session = list.find((session) => session.id === active.id);
    if (!session || !over || over.id === session.date) return;
    try {
      const moved = await write.mutateAsync({ ...session, date: String(over.id) });
      tell(`${session.title} is on ${dayName(moved.date)}.`, () => {
        write
          .mutateAsync({ ...moved, date: session.date })
          .catch((error: unknown) => tell(sentenceOf(error)));
      });
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
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
        <Button
          variant="outline-dark"
          aria-expanded={calendar}
          onClick={() => setCalendar(!calendar)}
        >
          Calendar
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
      {calendar && <CalendarAddress onClose={() => setCalendar(false)} />}
      <Loaded query={sessions} what="Getting the week …">
        {(list) => (
          // Which movements a week needs is known by its approaches: what is drawn before would go away again.
          <Loaded query={approaches} what="Getting the approaches …">
            {(plans) => (
              <DndContext sensors={sensors} onDragEnd={(event) => void drop(list, event)}>
                <Suspense fallback={<Waiting what="Getting the movements …" />}>
                  <Week days={days} sessions={list} approaches={plans} />
                </Suspense>
              </DndContext>
            )}
          </Loaded>
        )}
      </Loaded>
    </>
  );
};
