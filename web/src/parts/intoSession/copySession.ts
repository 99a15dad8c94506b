import type { Session, SessionInput } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';

/** A session like another on another day: new ids, so that nothing of the other is touched. */
export const copyOf = (
  { title, groundId, place, drillSets, circuit }: Omit<Session, 'version' | 'archived' | 'logged'>,
  date: string,
): SessionInput => ({
  id: uuid(),
  date,
  title,
  groundId,
  place,
  template: false,
  drillSets: drillSets.map((set) => ({ ...set, id: uuid() })),
  ...(circuit && { circuit }),
});

/** What is written in a session, without what the server finds out. */
export const valueOfSession = ({
  archived: _archived,
  logged: _logged,
  version: _version,
  ...value
}: Session): SessionInput => value;

/** What is sent of a session when it is changed. */
export const bodyOfSession = (session: Session): SessionInput & { version: number } => ({
  ...valueOfSession(session),
  version: session.version,
});
