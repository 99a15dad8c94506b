import type { RunAnswer, RunBundle } from '@gravek/contract/run';
import { REP_BATCH } from '@gravek/contract/drillSet';
import type { NewRep, LogPage, Rep, RepReceipt } from '@gravek/contract/session';
import { api, ApiProblem, Unreachable } from '../api/client';
import { whenShown } from '../api/shown';
import { keepWords } from '../hearing/spoken';
import { useSending } from './sending';
import {
  dropSession,
  enqueue,
  isOf,
  keepBundle,
  keepLog,
  keptBundle,
  keptSessions,
  logEnd,
  queue,
  takeReceipt,
  type QueuedRep,
  type Tapper,
} from './store';
import { jot, recoverJotted, unjot } from './jot';

const FIRST_RETRY_MS = 1_500;
const LAST_RETRY_MS = 20_000;
let retryMs = FIRST_RETRY_MS;
let retry: ReturnType<typeof setTimeout> | undefined;
let underWay: Promise<void> | undefined;
/** Goes up whenever somebody leaves: what was begun for them sends nothing under the name of the next. */
let leavings = 0;
/** Fewer at a time while the server refuses a batch as a whole, down to the one that is to blame. */
let most = REP_BATCH;

const withoutQueueFields = ({
  clubId: _club,
  accountId: _account,
  person: _person,
  refused: _refused,
  ...rep
}: QueuedRep): Rep => rep;

/** Refused for what it holds, not for who sends it or how often. */
const isAboutContent = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem &&
  (error.status === 413 || (!error.onTheWay && [400, 422].includes(error.status)));

const sendBatch = async (who: Tapper): Promise<boolean> => {
  const waiting = await queue
    .where('clubId')
    .equals(who.clubId)
    // What somebody else tapped on this device is sent as theirs, when they are signed in.
    .filter((rep) => !rep.refused && isOf(rep, who))
    .sortBy('deviceNo');
  const batch = waiting.slice(0, most);
  if (batch.length === 0) return false;
  try {
    const reps = batch.map(withoutQueueFields);
    await takeReceipt(await api.post<RepReceipt>('/reps', { reps }));
    useSending.setState(({ taken }) => ({ taken: taken + 1 }));
    most = REP_BATCH;
  } catch (error) {
    if (!isAboutContent(error)) throw error;
    if (batch.length > 1) most = Math.ceil(batch.length / 2);
    else {
      most = REP_BATCH;
      await takeReceipt({ stored: [], refused: [{ id: batch[0]!.id, title: error.message }] });
    }
    return true;
  }
  return waiting.length > batch.length;
};

const sendAll = async (who: Tapper): Promise<void> => {
  clearTimeout(retry);
  const began = leavings;
  useSending.setState({ state: 'sending', why: null });
  try {
    while ((await sendBatch(who)) && began === leavings);
    retryMs = FIRST_RETRY_MS;
    useSending.setState({ state: 'idle' });
  } catch (error) {
    const answered = error instanceof ApiProblem;
    if (began !== leavings || (answered && error.status === 401)) {
      // The door is shown; what waits goes when its own have signed in again.
      useSending.setState({ state: 'idle' });
      return;
    }
    useSending.setState({
      state: answered ? 'held' : 'unreachable',
      why: answered ? error.message : null,
    });
    retry = setTimeout(() => void send(who), retryMs);
    retryMs = Math.min(LAST_RETRY_MS, retryMs * 1.7);
  }
};

/** Sends what waits; one sending at a time in this tab, and doing it twice does no harm. */
export const send = async (who: Tapper): Promise<void> => {
  if (underWay) {
    await underWay;
    // Something may have come after the batch was read.
    if (useSending.getState().state !== 'idle') return;
  }
  underWay ??= sendAll(who).finally(() => {
    underWay = undefined;
  });
  await underWay;
};

/** Puts reps on the phone first, then tries to send them. */
export const logReps = async (who: Tapper, reps: readonly NewRep[]): Promise<void> => {
  jot(who, reps);
  await enqueue(who, reps);
  unjot(reps);
  void send(who);
};

/** Gets what has arrived in a session's log since the phone last heard; without network, nothing. */
export const fetchLog = async (sessionId: string): Promise<void> => {
  try {
    for (;;) {
      const after = await logEnd(sessionId);
      const page = await api.get<LogPage>(`/sessions/${sessionId}/reps?after=${after}`);
      await keepLog(sessionId, page);
      if (!page.more) return;
    }
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
  }
};

/**
 * A session for the field screen: fetched anew only when it has changed; without network, as it was when
 * last seen.
 *
 * @param opened whether the coach has it on the screen
 */
export const fetchBundle = async (sessionId: string, opened: boolean): Promise<RunBundle> => {
  const kept = await keptBundle(sessionId);
  const askedMs = Date.now();
  try {
    const stampQuery = kept ? `?known=${kept.stamp}` : '';
    const answer = await api.get<RunAnswer>(`/sessions/${sessionId}/run${stampQuery}`);
    const bundle = 'unchanged' in answer ? kept! : answer;
    await keepBundle(bundle, opened, askedMs);
    // What cannot be kept now is a tone in the field, not a fault.
    if (opened) whenShown(() => void keepWords().catch(() => undefined));
    return bundle;
  } catch (error) {
    if (kept && error instanceof Unreachable) return kept;
    if (error instanceof ApiProblem && error.status === 404) await dropSession(sessionId);
    throw error;
  }
};

/** Brings every kept session up to date, so that nobody stays on the phone who was deleted since. */
export const refreshKept = async (): Promise<void> => {
  for (const sessionId of await keptSessions()) {
    try {
      await fetchBundle(sessionId, false);
    } catch (error) {
      if (error instanceof Unreachable) return;
    }
  }
};

/** Sends what is left from before, and again whenever the network comes back. */
export const keepSending = (who: Tapper): (() => void) => {
  const began = leavings;
  const now = (): void => {
    retryMs = FIRST_RETRY_MS;
    void recoverJotted().then(() => (began === leavings ? send(who) : undefined));
    void refreshKept();
  };
  const seen = (): void => {
    if (document.visibilityState === 'visible') now();
  };
  now();
  window.addEventListener('online', now);
  document.addEventListener('visibilitychange', seen);
  return () => {
    leavings += 1;
    clearTimeout(retry);
    window.removeEventListener('online', now);
    document.removeEventListener('visibilitychange', seen);
  };
};
