import {
  type CircuitPlan,
  type ClockAct,
  clockStand,
  type ClockStand,
  stretchName,
} from '@gravek/core/session/circuit';
import type { SessionClock } from '@gravek/contract/circuit';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { v7 as uuid } from 'uuid';
import { api, ApiProblem } from '../../api/client';
import { clockMs } from '../../controls/clock';
import { useDraft } from '../../controls/draft';
import { tell } from '../../controls/toasts';
import { isTimeKnown, noteServerTime, serverNowMs } from './serverTime';

const ASK_AGAIN_MS = 30_000;
const SEND_AGAIN_MS = 4_000;
/** What the server will not take however often it is sent. */
const REFUSED = [403, 404, 409, 422];
/** Round trips of which the shortest tells the time. */
const TRIPS_AT_FIRST = 4;
const NO_ACTS: ClockAct[] = [];

const askClock = async (sessionId: string): Promise<ClockAct[]> => {
  let acts = NO_ACTS;
  for (let trips = isTimeKnown() ? 1 : TRIPS_AT_FIRST; trips > 0; trips -= 1) {
    const askedMs = clockMs();
    const answer = await api.get<SessionClock>(`/sessions/${sessionId}/clock`);
    noteServerTime(answer.nowMs, askedMs);
    acts = answer.acts;
  }
  return acts;
};

export type SessionClockHere = {
  plan: CircuitPlan;
  acts: readonly ClockAct[];
  /** presses that the server does not have yet */
  waiting: number;
  /** what is pressed counts here at once, and everywhere as soon as the server has it; gives its id back */
  press: (kind: Exclude<ClockAct['kind'], 'undo'>) => string;
  /** takes back a press; nothing where there is none */
  undo: (id: string) => void;
};

/** The clock of a session's groups: by the same presses and the server's time the same on every phone. */
export const useSessionClock = (
  sessionId: string,
  plan: CircuitPlan | null,
): SessionClockHere | null => {
  const client = useQueryClient();
  const key = useMemo(() => ['clock', sessionId], [sessionId]);
  // As it was when it was heard of last, for a page that is opened where there is no network.
  const [known, setKnown] = useDraft<readonly ClockAct[]>(`clock acts.${sessionId}`, NO_ACTS);
  const { data: stored = known } = useQuery<readonly ClockAct[]>({
    queryKey: key,
    queryFn: async () => {
      const acts = await askClock(sessionId);
      setKnown(acts);
      return acts;
    },
    enabled: plan !== null,
    refetchInterval: ASK_AGAIN_MS,
    retry: false,
  });
  const [unsent, setUnsent] = useDraft<readonly ClockAct[]>(`presses.${sessionId}`, NO_ACTS);
  const latest = useRef(unsent);
  /** By what waits at that moment: a press meanwhile, or an undo from an older message, loses none. */
  const change = useCallback(
    (how: (waiting: readonly ClockAct[]) => readonly ClockAct[]): void => {
      latest.current = how(latest.current);
      setUnsent(latest.current);
    },
    [setUnsent],
  );
  const [tries, setTries] = useState(0);
  useEffect(() => {
    const [first] = unsent;
    if (!first) return undefined;
    let over = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const isSettled = (): void => change((waiting) => waiting.filter(({ id }) => id !== first.id));
    api.post<SessionClock>(`/sessions/${sessionId}/clock`, first).then(
      ({ acts }) => {
        if (over) return;
        client.setQueryData(key, acts);
        isSettled();
      },
      (error: unknown) => {
        if (over) return;
        if (error instanceof ApiProblem && REFUSED.includes(error.status) && !error.onTheWay) {
          tell(error.message);
          isSettled();
        } else timer = setTimeout(() => setTries((many) => many + 1), SEND_AGAIN_MS);
      },
    );
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [unsent, tries, sessionId, client, key, change]);
  const acts = useMemo(
    () => [...stored, ...unsent.filter(({ id }) => stored.every((act) => act.id !== id))],
    [stored, unsent],
  );
  const add = useCallback(
    (kind: ClockAct['kind'], of: string | null): string => {
      const id = uuid();
      const atMs = Math.round(serverNowMs());
      change((waiting) => [...waiting, { id, kind, atMs, of }]);
      return id;
    },
    [change],
  );
  return useMemo(
    () =>
      plan && {
        ...{ plan, acts, waiting: unsent.length },
        press: (kind) =>
          add(kind, kind === 'change' ? stretchName(clockStand(plan, acts, serverNowMs())) : null),
        undo: (id) => void add('undo', id),
      },
    [plan, acts, unsent.length, add],
  );
};

const TICK_MS = 100;

const everyTick = (changed: () => void): (() => void) => {
  const timer = setInterval(changed, TICK_MS);
  return () => clearInterval(timer);
};

/**
 * Something of where a clock stands, drawn anew only when it changes.
 *
 * @param part of it, as a text or number
 */
export const useClockPart = <T extends string | number | boolean>(
  clock: Pick<SessionClockHere, 'plan' | 'acts'> | null,
  part: (stand: ClockStand) => T,
  without: T,
): T => {
  const now = (): T => (clock ? part(clockStand(clock.plan, clock.acts, serverNowMs())) : without);
  return useSyncExternalStore(everyTick, now);
};

/** The round whose stations groups are at, or go to; 0 before the start and after the last. */
export const roundToGoBy = ({ round, changing, running }: ClockStand): number =>
  running ? (changing ? round + 1 : round) : 0;

/** Whole seconds that are left, the one that has begun among them. */
export const secondsLeft = ({ leftS }: ClockStand): number => Math.ceil(leftS - 1e-6);
