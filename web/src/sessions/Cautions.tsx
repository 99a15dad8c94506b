import { isDay } from '@gravek/core/days';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { Ground, OnGround } from '@gravek/contract/ground';
import type { Session, SessionInput } from '@gravek/contract/session';
import { surfaceCautions, takenFrom } from '@gravek/library/planning/onGround';
import { bookedTwice } from '@gravek/library/session/bookedTwice';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useSessions } from '../api/queries';
import { dayName, weekOf } from '../controls/dates';
import { Waiting } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';

const NAMES_SHOWN = 4;

export const Cautions = ({ on }: { on: OnGround | null }) =>
  surfaceCautions(on).map((caution) => (
    <div key={caution} className="caution small-text">
      {caution}
    </div>
  ));

/** Ground and people that another session of the day has too: to be known before it is saved. */
export const AlsoBooked = ({
  draft,
  ground,
  athletes,
}: {
  draft: SessionInput;
  ground: Ground | undefined;
  athletes: readonly Athlete[];
}) => {
  const { date } = draft;
  const week = isDay(date) ? weekOf(date) : null;
  // The week is known already: its loads are.
  const { data } = useSessions(week?.[0] ?? date, week?.[6] ?? date);
  const { onGround, people } = useMemo(
    () => bookedTwice(draft, data ?? [], ground),
    [draft, data, ground],
  );
  const firstName = (id: string): string =>
    athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '?';
  const names = (ids: readonly string[]): string =>
    ids.length <= NAMES_SHOWN ? ids.map(firstName).join(', ') : counted(ids.length, 'athlete');
  return (
    <div role="status">
      {onGround.map(({ id, title }) => (
        <div key={id} className="note small-text">
          {ground?.name} is also booked for <Link to={`/sessions/${id}`}>{title}</Link> on this day.
        </div>
      ))}
      {people.map(({ id, title, athleteIds }) => (
        <div key={id} className="note small-text">
          Also in <Link to={`/sessions/${id}`}>{title}</Link> on this day: {names(athleteIds)}.
        </div>
      ))}
    </div>
  );
};

/** What is known of a session before its runs are worked out. */
export const Meanwhile = ({
  session,
  ground,
}: {
  session: Session;
  ground: Ground | undefined;
}) => (
  <>
    <PageHead
      over={
        <>
          {dayName(session.date)}
          {ground ? ` · ${ground.name}` : session.place && ` · ${session.place}`}
        </>
      }
      title={session.title}
    />
    <Cautions on={ground ? takenFrom(ground) : null} />
    <Waiting what="Working out the session …" />
  </>
);
