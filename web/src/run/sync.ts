import { REP_BATCH, type Rep, type RepReceipt } from '@gravek/contract';
import { create } from 'zustand';
import { api, ApiProblem } from '../api/client';
import { queryClient } from '../api/queries';
import { queue, type QueuedRep } from './store';

/** How the sending goes: idle, under way, no server, or the sign-in has run out. */
type Sending = 'idle' | 'sending' | 'unreachable' | 'signed-out';

export const useSending = create<{ state: Sending }>(() => ({ state: 'idle' }));

const FIRST_RETRY_MS = 1_500;
const LAST_RETRY_MS = 20_000;
let retryMs = FIRST_RETRY_MS;
let retry: ReturnType<typeof setTimeout> | undefined;
let underWay: Promise<void> | undefined;

const withoutQueueFields = ({ clubId: _club, refused: _refused, ...rep }: QueuedRep): Rep => rep;

const sendBatch = async (clubId: string): Promise<boolean> => {
  const waiting = await queue
    .where('clubId')
    .equals(clubId)
    .filter((rep) => !rep.refused)
    .sortBy('at');
  const batch = waiting.slice(0, REP_BATCH);
  if (batch.length === 0) return false;
  const receipt = await api.post<RepReceipt>('/reps', { reps: batch.map(withoutQueueFields) });
  // The bundle on screen must hold the stored reps before the queue lets go of them.
  await queryClient.invalidateQueries({ queryKey: ['reps', 'run'] });
  await queue.bulkDelete(receipt.stored);
  for (const { id, title } of receipt.refused) await queue.update(id, { refused: title });
  return waiting.length > batch.length;
};

const sendAll = async (clubId: string): Promise<void> => {
  clearTimeout(retry);
  useSending.setState({ state: 'sending' });
  try {
    while (await sendBatch(clubId));
    retryMs = FIRST_RETRY_MS;
    useSending.setState({ state: 'idle' });
  } catch (error) {
    const signedOut = error instanceof ApiProblem && error.status === 401;
    useSending.setState({ state: signedOut ? 'signed-out' : 'unreachable' });
    if (!signedOut) {
      retry = setTimeout(() => void send(clubId), retryMs);
      retryMs = Math.min(LAST_RETRY_MS, retryMs * 1.7);
    }
  }
};

/** Sends what waits; one sending at a time in this tab, and doing it twice does no harm. */
export const send = async (clubId: string): Promise<void> => {
  if (underWay) {
    await underWay;
    // Something may have come after the batch was read.
    if (useSending.getState().state !== 'idle') return;
  }
  underWay ??= sendAll(clubId).finally(() => {
    underWay = undefined;
  });
  await underWay;
};

/** Puts a rep on the phone first, then tries to send it. */
export const logRep = async (clubId: string, rep: Rep): Promise<void> => {
  await queue.put({ ...rep, clubId });
  void send(clubId);
};

/** Sends what is left from before, and again whenever the network comes back. */
export const keepSending = (clubId: string): (() => void) => {
  const now = (): void => {
    retryMs = FIRST_RETRY_MS;
    void send(clubId);
  };
  const seen = (): void => {
    if (document.visibilityState === 'visible') now();
  };
  now();
  window.addEventListener('online', now);
  document.addEventListener('visibilitychange', seen);
  return () => {
    clearTimeout(retry);
    window.removeEventListener('online', now);
    document.removeEventListener('visibilitychange', seen);
  };
};
