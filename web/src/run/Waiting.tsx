import { counted } from '@gravek/core/words';
import type { FieldRow } from '@gravek/library/field/log';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect } from 'react';
import { useTapper } from '../member/member';
import { useSending } from '../phone/sending';
import { isOf, queue } from '../phone/store';
import { send } from '../phone/sync';

/** Keeps the screen lit while a session runs, where the device can. */
export const useAwake = (): void => {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    const ask = (): void => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
      navigator.wakeLock.request('screen').then(
        (got) => (lock = got),
        () => undefined,
      );
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
};

/**
 * How many reps wait to be sent, and how to send them now.
 *
 * @param log rows of this session; one may have been tapped before the phone's database has it
 */
export const Waiting = ({ log }: { log: readonly FieldRow[] }) => {
  const tapper = useTapper();
  const { clubId } = tapper;
  const { state: sending, why } = useSending();
  const queued =
    useLiveQuery(
      () =>
        queue
          .where('clubId')
          .equals(clubId)
          .filter((rep) => !rep.refused)
          .toArray(),
      [clubId],
    ) ?? [];
  const [mine, others] = [true, false].map((is) =>
    queued.filter((rep) => isOf(rep, tapper) === is).map(({ id }) => id),
  );
  const unsent = log.filter((row) => row.arrival === null).map((row) => row.id);
  const waiting = new Set([...mine!, ...unsent].filter((id) => !others!.includes(id))).size;
  const reps = counted(waiting, 'rep');
  return (
    <button
      type="button"
      className="text-decoration-none"
      onClick={() => void send(tapper)}
      aria-label="Send now"
    >
      {waiting === 0 ? (
        <span className="wait">all sent</span>
      ) : (
        <span className="wait" role="status">
          {sending === 'unreachable' ? 'offline, ' : ''}
          {reps} waiting to send
          {sending === 'held' && why && <span className="visually-hidden">: {why}</span>}
        </span>
      )}
    </button>
  );
};
