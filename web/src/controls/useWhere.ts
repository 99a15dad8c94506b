import type { Athlete, Session } from '@gravek/contract';
import { slotsOn, type Conditions } from '@gravek/library';
import { useAthletes, useGrounds } from '../api/queries';

const NONE: readonly Athlete[] = [];

/**
 * Where a session is, in words with the time if the club has one slot there, and the conditions that its
 * minutes depend on.
 */
export const useWhere = (): ((session: Session) => { words: string; conditions: Conditions }) => {
  const { data } = useGrounds();
  const people = useAthletes().data ?? NONE;
  return ({ groundId, place, date }) => {
    const ground = data?.find((one) => one.id === groundId);
    const slots = ground ? slotsOn(ground, date) : [];
    const [slot] = slots.length === 1 ? slots : [];
    return {
      words: [ground?.name ?? place, slot && `${slot.from}–${slot.to}`].filter(Boolean).join(', '),
      conditions: { lanes: ground?.lanes, people, on: date },
    };
  };
};
