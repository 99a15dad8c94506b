import type { Session } from '@gravek/contract';
import { slotsOn } from '@gravek/library';
import { useGrounds } from '../api/queries';

/** Where a session is, in words with the time if the club has one slot there, and in how many lanes. */
export const useWhere = (): ((session: Session) => {
  words: string;
  lanes: number | undefined;
}) => {
  const { data } = useGrounds();
  return ({ groundId, place, date }) => {
    const ground = data?.find((one) => one.id === groundId);
    const slots = ground ? slotsOn(ground, date) : [];
    const [slot] = slots.length === 1 ? slots : [];
    return {
      words: [ground?.name ?? place, slot && `${slot.from}–${slot.to}`].filter(Boolean).join(', '),
      lanes: ground?.lanes,
    };
  };
};
