import { silentAt, type SilentStand } from '@gravek/core/session/silentCues';
import type { SilentRound } from '@gravek/library/field/silentExit';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { clockMs } from '../../controls/clock';

/** A round that a partner shows: by which code, and when both pressed start by the page's clock; null before. */
type Silent = { code: string; round: SilentRound | null; startedMs: number | null };

const NONE: Silent = { code: '', round: null, startedMs: null };

/** Not of a turn: a round goes on while the next is up. */
export const useSilent = create<Silent>(() => NONE);

export const openSilent = (code: string, round: SilentRound): void =>
  useSilent.setState({ code, round, startedMs: null });
export const startSilent = (): void => useSilent.setState({ startedMs: clockMs() });
export const stopSilent = (): void => useSilent.setState(NONE);

const NOT_BEGUN: SilentStand = { cue: null, isShown: false, isOver: false };
const LOOKS_MS = 50;

export type SilentNow = SilentStand & {
  round: SilentRound | null;
  isRunning: boolean;
  /** when the cue that shows began to, by the page's clock; null while none does */
  shownMs: number | null;
};

/** Where the round of this page stands; looked at often, so that what shows is on time. */
export const useSilentNow = (): SilentNow => {
  const { round, startedMs } = useSilent();
  const [stand, setStand] = useState<SilentStand>(NOT_BEGUN);
  useEffect(() => {
    const look = (): void => {
      const next =
        startedMs === null || !round
          ? NOT_BEGUN
          : silentAt(round.cues, (clockMs() - startedMs) / 1000);
      setStand((before) =>
        before.cue === next.cue && before.isShown === next.isShown && before.isOver === next.isOver
          ? before
          : next,
      );
    };
    look();
    if (startedMs === null) return undefined;
    const timer = setInterval(look, LOOKS_MS);
    return () => clearInterval(timer);
  }, [round, startedMs]);
  return {
    ...stand,
    round,
    isRunning: startedMs !== null && !stand.isOver,
    shownMs:
      stand.cue && stand.isShown && startedMs !== null ? startedMs + 1000 * stand.cue.showS : null,
  };
};
