import { turnOrder } from '@gravek/core';
import { type RunBundle } from '@gravek/contract';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useMember } from '../member/member';
import { Loaded } from '../controls/Notice';
import { queue } from '../phone/store';
import { useHelp } from '../controls/help';
import { paceName } from '../movements/PaceChoices';
import { send, useSending } from '../phone/sync';
import { Refused } from './Refused';
import { SetDone } from './SetDone';
import { People } from './People';
import { Turn, type TurnAnswer } from './Turn';
import { useBundle, useRun, type SetRun } from './useRun';

/** Two taps within this are one, milliseconds. */
const DOUBLE_TAP_MS = 300;

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

/** How many reps wait to be sent, and how to send them now, or how to sign in to do so. */
const Waiting = ({ clubId }: { clubId: string }) => {
  const { state: sending, why } = useSending();
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
  return (
    <button
      type="button"
      className="text-decoration-none"
      onClick={() => void send(clubId)}
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

const Field = ({ bundle }: { bundle: RunBundle }) => {
  useAwake();
  const show = useHelp((help) => help.show);
  const { club } = useMember();
  const [first, setFirst] = useState<string | null>(null);
  const [people, setPeople] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const answered = useRef({ outcome: '', ms: 0 });
  const run = useRun(bundle, first);
  const { session } = bundle;
  const firstOpen = run.sets.find(({ state }) => state.up)?.set.id;
  const [chosen, setChosen] = useState<string | null>(null);
  const current = run.sets.find(({ set }) => set.id === (chosen ?? firstOpen)) ?? run.sets.at(-1);
  const nameOf = ({ plan }: SetRun): string =>
    plan ? [plan.name, paceName(plan.pace)].filter(Boolean).join(', ') : 'Drill set';

  if (!current) return <p className="p-3">This session has no drill set.</p>;
  const { set, plan, state, last } = current;
  const nameBy = (id: string): string =>
    bundle.athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? 'The athlete';
  /** One tap is one answer: the second of a double tap would be the next athlete's. */
  const answer: TurnAnswer = (turn, outcome, faults, cue) => {
    const now = performance.now();
    const before = answered.current;
    if (!plan || (before.outcome === outcome && now - before.ms < DOUBLE_TAP_MS)) return;
    answered.current = { outcome, ms: now };
    navigator.vibrate?.(15);
    const who = nameBy(turn.athleteId);
    setFirst(null);
    setSaid(
      outcome === 'again'
        ? `${who} does rep ${turn.rep} once more${faults.length > 0 ? '; what was marked does not count' : ''}.`
        : null,
    );
    void run.answer(plan, turn, outcome, outcome === 'fault' ? faults : [], cue);
  };
  const goTo = (setId: string | null): void => {
    setChosen(setId);
    setFirst(null);
    setSaid(null);
  };
  const putOut = (athleteId: string): void => {
    const turn =
      state.open.find((one) => one.athleteId === athleteId) ??
      turnOrder({ ...set, drillSetId: set.id }).findLast((one) => one.athleteId === athleteId);
    if (plan && turn) void run.answer(plan, turn, 'out', [], null);
  };
  const following = run.sets.find((set) => set !== current && set.state.up)?.set;
  return (
    <main className="run">
      <div className="run-bar">
        <Link to="/run">Leave</Link>
        <span className="text-truncate">{session.title}</span>
        <Waiting clubId={club.id} />
        <button
          type="button"
          className="run-help"
          aria-label="What is this page for?"
          onClick={() => show(true)}
        >
          ?
        </button>
      </div>
      {run.sets.length > 1 && (
        <div className="run-sets" role="group" aria-label="Drill sets">
          {run.sets.map((one) => (
            <button
              key={one.set.id}
              type="button"
              aria-pressed={one.set.id === set.id}
              onClick={() => goTo(one.set.id)}
            >
              {nameOf(one)} <span className="figure">{one.state.done}</span>/
              <span className="figure">{one.state.total}</span>
            </button>
          ))}
        </div>
      )}
      <Refused waiting={run.waiting} athletes={bundle.athletes} />
      {people ? (
        <People
          at={current}
          athletes={bundle.athletes}
          onForward={(id) => {
            setFirst(id);
            setPeople(false);
          }}
          onOut={putOut}
          onBack={(row) => void run.undo(row)}
          onClose={() => setPeople(false)}
        />
      ) : state.up && plan ? (
        <Turn
          key={`${set.id}/${state.up.athleteId}/${state.up.set}/${state.up.side}/${state.up.rep}`}
          bundle={bundle}
          run={run}
          at={current}
          plan={plan}
          up={state.up}
          said={said}
          onAnswer={answer}
          onForward={setFirst}
          onPeople={() => setPeople(true)}
        />
      ) : (
        <SetDone
          set={set}
          log={run.log}
          athletes={bundle.athletes}
          next={following}
          onNext={() => goTo(following?.id ?? null)}
          onUndo={last && (() => void run.undo(last))}
          onPeople={() => setPeople(true)}
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
