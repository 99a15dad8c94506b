import type { Session, SessionInput } from '@gravek/contract';
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
  drillSets: drillSets.map((set) => ({ ...set, id: uuid() })),
});
