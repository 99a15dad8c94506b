import { clockCalls, clockStand } from '@gravek/core/session/circuit';
import { useEffect } from 'react';
import { callAhead } from '../../hearing/ahead';
import { serverNowMs } from './serverTime';
import { type SessionClockHere, useClockPart } from './useSessionClock';

/** Has this device call out what the clock says: the last minute, change, ready, go. */
export const useClockCalls = (clock: SessionClockHere | null, isOn: boolean): void => {
  // Anew at each stretch of it, and whenever somebody presses.
  const stretch = useClockPart(
    clock,
    ({ round, changing, held, running }) => `${round} ${changing} ${held} ${running}`,
    '',
  );
  useEffect(() => {
    if (!clock || !isOn) return undefined;
    const { plan, acts } = clock;
    return callAhead(clockCalls(plan, clockStand(plan, acts, serverNowMs())));
  }, [clock, isOn, stretch]);
};
