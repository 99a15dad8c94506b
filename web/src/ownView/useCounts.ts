import type { OwnCount, OwnCountsKept, OwnList } from '@gravek/contract/ownView';
import { useCallback, useEffect, useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { api, ApiProblem, sentenceOf } from '../api/client';
import { useDraft } from '../controls/draft';
import { tell } from '../controls/toasts';

const NONE: readonly OwnCount[] = [];
const BATCH = 100;
/** So much of a link tells those apart who share a phone. */
const KEY_LENGTH = 8;
/** Tries come one after the other: they go together. */
const GATHERS_MS = 3_000;
const AGAIN_MS = 15_000;

export type Counts = {
  /** tries that count, in order */
  of: (list: OwnList) => OwnCount[];
  waiting: number;
  add: (list: OwnList, at: Pick<OwnCount, 'side' | 'variant'>, came: Partial<OwnCount>) => void;
  undo: (count: OwnCount) => void;
};

/** What an athlete has counted: kept on the phone until the server has it, and none of it twice. */
export const useCounts = (token: string, stored: readonly OwnCount[]): Counts => {
  const [sent, setSent] = useState(NONE);
  const [waiting, setWaiting] = useDraft(`own.counts.${token.slice(0, KEY_LENGTH)}`, NONE);
  const [tries, setTries] = useState(0);
  const latest = useRef(waiting);
  const change = useCallback(
    (how: (before: readonly OwnCount[]) => readonly OwnCount[]): void => {
      latest.current = how(latest.current);
      setWaiting(latest.current);
    },
    [setWaiting],
  );
  useEffect(() => {
    if (waiting.length === 0) return undefined;
    const counts = waiting.slice(0, BATCH);
    const ids = new Set(counts.map(({ id }) => id));
    let over = false;
    const settle = (refused: readonly string[]): void => {
      setSent((before) => [...before, ...counts.filter(({ id }) => !refused.includes(id))]);
      change((before) => before.filter(({ id }) => !ids.has(id)));
    };
    const send = (): void => {
      api.post<OwnCountsKept>('/own/counts', { token, counts }).then(
        ({ refused }) => {
          if (over) return;
          settle(refused);
          if (refused.length > 0)
            tell(
              'Your coach has changed the session: some of what you counted has no place in it.',
            );
        },
        (error: unknown) => {
          if (over) return;
          const status = error instanceof ApiProblem ? error.status : null;
          if (status === 404 || status === 422) tell(sentenceOf(error));
          // A link that holds no more takes none; they stay on the phone.
          if (status === 422) settle([...ids]);
          else if (status !== 404) again = setTimeout(() => setTries((many) => many + 1), AGAIN_MS);
        },
      );
    };
    let again: ReturnType<typeof setTimeout> | undefined;
    const timer = setTimeout(send, GATHERS_MS);
    return () => {
      over = true;
      clearTimeout(timer);
      clearTimeout(again);
    };
  }, [waiting, tries, token, change]);
  // What another phone has sent comes with the page; each try stands once.
  const all = [
    ...new Map([...stored, ...sent, ...waiting].map((count) => [count.id, count])).values(),
  ].sort((a, b) => a.at.localeCompare(b.at));
  const takenBack = new Set(all.flatMap(({ voids }) => voids ?? []));
  const now = (): string => new Date().toISOString();
  return {
    of: ({ sessionId, drillSetId }) =>
      all.filter(
        (count) =>
          count.sessionId === sessionId &&
          count.drillSetId === drillSetId &&
          count.voids === null &&
          !takenBack.has(count.id),
      ),
    waiting: waiting.length,
    add: ({ sessionId, drillSetId }, { side, variant }, came) =>
      change((before) => [
        ...before,
        {
          ...{ id: uuid(), sessionId, drillSetId, side, variant, at: now() },
          ...{ made: null, heldS: null, voids: null },
          ...came,
        },
      ]),
    undo: (count) =>
      change((before) => [
        ...before,
        { ...count, id: uuid(), made: null, heldS: null, voids: count.id, at: now() },
      ]),
  };
};
