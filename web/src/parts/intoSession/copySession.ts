import type { Session, SessionInput } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';

/** A session like another on another day: new ids, so that nothing of the other is touched. */
export const copyOf = (
  { title, groundId, place, drillSets }: Omit<Session, 'version' | 'archived' | 'logged'>,
  date: string,
): SessionInput => ({
  id: uuid(),
  date,
  title,
  groundId,
  place,
  template: false,
  drillSets: drillSets.map((set) => ({ ...set, id: uuid() })),
});

/** What is sent of a session when it is changed: all that is not found out by the server. */
export const bodyOfSession = ({
  archived: _archived,
  logged: _logged,
  ...body
}: Session): SessionInput & { version: number } => body;
