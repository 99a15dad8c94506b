import type { Ground } from '@gravek/contract/ground';
import type { Session, SessionInput } from '@gravek/contract/session';
import { slotsOn } from '../planning/onGround';

/** What is booked twice on a day: the ground, or people. */
export type BookedTwice = {
  /** sessions that share the ground, where the club has it for fewer */
  onGround: { id: string; title: string }[];
  people: { id: string; title: string; athleteIds: string[] }[];
};

/**
 * Ground and people of a session that are also in others of its day. A ground that the club has at several times of
 * the day takes as many sessions, and people may be in each of them.
 *
 * @param others sessions of the same day
 * @example
 * const session = { id: 's', date: '2031-03-03', groundId: null, drillSets: [] };
 * bookedTwice(session, [], undefined) // { onGround: [], people: [] }
 */
export const bookedTwice = (
  session: Pick<SessionInput, 'id' | 'date' | 'groundId' | 'drillSets'>,
  others: readonly Pick<Session, 'id' | 'title' | 'date' | 'groundId' | 'drillSets' | 'archived'>[],
  ground: Pick<Ground, 'slots'> | undefined,
): BookedTwice => {
  const sameDay = others.filter(
    (other) => other.id !== session.id && !other.archived && other.date === session.date,
  );
  const sharing = ground ? sameDay.filter(({ groundId }) => groundId === session.groundId) : [];
  const isRoom = ground !== undefined && slotsOn(ground, session.date).length > sharing.length;
  const ids = new Set(session.drillSets.flatMap(({ athleteIds }) => athleteIds));
  return {
    onGround: isRoom ? [] : sharing.map(({ id, title }) => ({ id, title })),
    people: sameDay
      .filter((other) => !(isRoom && sharing.includes(other)))
      .map(({ id, title, drillSets }) => ({
        ...{ id, title },
        athleteIds: [...new Set(drillSets.flatMap((set) => set.athleteIds))].filter((who) =>
          ids.has(who),
        ),
      }))
      .filter(({ athleteIds }) => athleteIds.length > 0),
  };
};
