import type { Ground, OnGround } from '@gravek/contract/ground';
import { takenFrom } from '@gravek/library/planning/onGround';
import { useMemo } from 'react';
import { useGrounds } from '../api/queries';
import { useSettings } from './settings';

/** The ground that was chosen last on this device: the library, new plans and new sessions begin there. */
export const useChosenGround = (): {
  ready: boolean;
  /** those of the club that can be chosen */
  grounds: readonly Ground[];
  chosen: OnGround | null;
  choose: (groundId: string | null) => void;
} => {
  const { data, isPending } = useGrounds();
  const groundId = useSettings((settings) => settings.groundId);
  const choose = useSettings((settings) => settings.setGround);
  return useMemo(() => {
    const grounds = (data ?? []).filter((ground) => !ground.archived);
    const found = grounds.find((ground) => ground.id === groundId);
    return { ready: !isPending, grounds, chosen: found ? takenFrom(found) : null, choose };
  }, [data, isPending, groundId, choose]);
};
