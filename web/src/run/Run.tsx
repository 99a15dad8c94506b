import { type DrillSet, type RunBundle } from '@gravek/contract';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useBundle } from '../api/queries';
import { useMember } from '../app/member';
import { Loaded } from '../controls/Notice';
import { usePicture } from '../faults/usePicture';
import { queue } from './store';
import { send, useSending } from './sync';
import { useRun } from './useRun';
import { SetDone } from './SetDone';
import { Turn } from './Turn';

/** Keeps the screen lit while a session runs, where the device can. */
const useAwake = (): void => {
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

/** A session kept by an older version holds none. */
const NO_MOVEMENTS: RunBundle['movements'] = [];

const Waiting = ({ clubId }: { clubId: string }) => {
  const sending = useSending((state) => state.state);
  const waiting =
    useLiveQuery(
      () =>
        queue
          .where('clubId')
          .equals(clubId)
          .filter((rep) => !rep.refused)
          .count(),
      [clubId],
    ) ?? 0;
  const reps = `${waiting} ${waiting === 1 ? 'rep' : 'reps'}`;
  if (sending === 'signed-out') {
    return (
      <a className="wait" href="/">
        Sign in to send {reps}
      </a>
    );
  }
  if (waiting === 0) return <span className="wait">all sent</span>;
  return (
    <span className="wait" role="status">
      {sending === 'unreachable' ? 'offline, ' : ''}
      {reps} waiting to send
    </span>
  );
};

const Field = ({ bundle }: { bundle: RunBundle }) => {
  useAwake();
  const { club } = useMember();
  const run = useRun(bundle);
  const { session } = bundle;
  // Today's own reps do not move the cue: one cue for the whole session.
  const before = useMemo(
    () => bundle.counts.filter((count) => count.sessionId !== session.id),
    [bundle.counts, session.id],
  );
  const picture = usePicture(before, bundle.movements ?? NO_MOVEMENTS);
  const firstOpen = run.states.find(({ state }) => state.up)?.set.id;
  const [chosen, setChosen] = useState<string | null>(null);
  const current =
    run.states.find(({ set }) => set.id === (chosen ?? firstOpen)) ?? run.states.at(-1);
  const nameOf = (set: DrillSet): string =>
    bundle.approaches.find((one) => one.id === set.approachId)?.name ?? 'Drill set';

  if (!current) return <p className="p-3">This session has no drill set.</p>;
  const { set, state } = current;
  const index = run.states.indexOf(current);
  const following = run.states.find((one, i) => i !== index && one.state.up)?.set;
  return (
    <main className="run">
      <div className="run-bar">
        <Link to="/">Leave</Link>
        <span className="text-truncate">{session.title}</span>
        <button
          type="button"
          className="text-decoration-none"
          onClick={() => void send(club.id)}
          aria-label="Send now"
        >
          <Waiting clubId={club.id} />
        </button>
      </div>
      {run.states.length > 1 && (
        <div className="run-sets" role="group" aria-label="Drill sets">
          {run.states.map((one) => (
            <button
              key={one.set.id}
              type="button"
              aria-pressed={one.set.id === set.id}
              onClick={() => setChosen(one.set.id)}
            >
              {nameOf(one.set)} <span className="figure">{one.state.done}</span>/
              <span className="figure">{one.state.total}</span>
            </button>
          ))}
        </div>
      )}
      {state.up ? (
        <Turn
          key={`${set.id}/${state.up.athleteId}/${state.up.set}/${state.up.side}/${state.up.rep}`}
          bundle={bundle}
          run={run}
          set={set}
          state={{ ...state, up: state.up }}
          picture={picture.data}
        />
      ) : (
        <SetDone
          set={set}
          run={run}
          athletes={bundle.athletes}
          next={following}
          onNext={() => setChosen(following?.id ?? null)}
          onUndo={state.last && (() => void run.undo(state.last!))}
        />
      )}
    </main>
  );
};

/** The field screen for a session under way. */
export const Run = () => {
  const { sessionId = '' } = useParams();
  const bundle = useBundle(sessionId);
  return (
    <Loaded query={bundle} what="Getting the session …">
      {(one) => <Field bundle={one} />}
    </Loaded>
  );
};
