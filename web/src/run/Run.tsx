import {
  currentModel,
  solveStraight,
  standing,
  type RunState,
  type StraightPlan,
} from '@gravek/core';
import {
  straightAsk,
  type Approach,
  type Athlete,
  type DrillSet,
  type RunBundle,
} from '@gravek/contract';
import { movementOf, type AthleteFaults, type Fault, type Movement } from '@gravek/library';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { useBundle } from '../api/queries';
import { useLengthStyle, useMember } from '../app/member';
import { Figure, Length } from '../controls/Figure';
import { Loaded } from '../controls/Notice';
import { usePicture } from '../faults/usePicture';
import { queue } from './store';
import { send, useSending } from './sync';
import { useRun, type Run as RunHandle } from './useRun';

const LIKELY = 3;

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

/** Seconds until a moment, counting down; 0 once it has come. */
const useSecondsTo = (atMs: number | null): number => {
  const [now, setNow] = useState(Date.now);
  const over = atMs === null || now >= atMs;
  useEffect(() => {
    if (over) return undefined;
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, [over]);
  return over ? 0 : Math.ceil((atMs - now) / 1000);
};

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;

/** The plan as stored for the athlete, or solved now when it was made after this phone last heard. */
const planOf = (approach: Approach | undefined, athlete: Athlete, side: 'own' | 'other') => {
  if (!approach) return null;
  const stored = approach.solved.find((one) => one.athleteId === athlete.id);
  const result =
    stored && side === 'own'
      ? stored.result
      : solveStraight(
          straightAsk(
            approach.choices,
            athlete,
            stored?.model ?? currentModel(athlete).model,
            side,
          ),
        );
  return result.feasible ? result : null;
};

/** Faults to offer: the cued one, then by how often, then by how grave. */
const likely = (movement: Movement, own: AthleteFaults | undefined): Fault[] => {
  const rate = new Map(own?.faults.map((one) => [one.code, one.trend.now.rate]));
  return [...movement.faults].sort((a, b) => {
    const cued = Number(b.code === own?.cue?.fault.code) - Number(a.code === own?.cue?.fault.code);
    return cued || (rate.get(b.code) ?? 0) - (rate.get(a.code) ?? 0) || b.severity - a.severity;
  });
};

const Rhythm = ({ plan }: { plan: StraightPlan }) => (
  <svg
    viewBox="0 0 360 46"
    width="100%"
    height="46"
    role="img"
    aria-label={`Rhythm of the plan: ${plan.steps.length} contacts in ${plan.totalTimeS.toFixed(1)} seconds`}
  >
    {plan.steps.map((step) => (
      <rect
        key={step.n}
        x={2 + (352 * step.timeS) / plan.totalTimeS}
        y={step.foot === 'left' ? 0 : 18}
        width="4"
        height={step.foot === 'left' ? 46 : 28}
        fill={step.role === 'build' ? 'var(--ink)' : 'var(--clay)'}
      />
    ))}
  </svg>
);

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

const Refused = ({ run }: { run: RunHandle }) => {
  const refused = run.waiting.filter((rep) => rep.refused);
  if (refused.length === 0) return null;
  return (
    <div className="note note-wrong small-text" role="alert">
      {refused.length === 1 ? 'One rep was' : `${refused.length} reps were`} not taken by the
      server: {refused[0]!.refused}{' '}
      <Button
        variant="link"
        className="p-0 align-baseline small-text"
        onClick={() => void queue.bulkDelete(refused.map((rep) => rep.id))}
      >
        Let go
      </Button>
    </div>
  );
};

const SetDone = ({
  set,
  run,
  athletes,
  next,
  onNext,
  onUndo,
}: {
  set: DrillSet;
  run: RunHandle;
  athletes: readonly Athlete[];
  next: DrillSet | undefined;
  onNext: () => void;
  onUndo: (() => void) | null;
}) => {
  const rows = standing(run.log.map((rep) => ({ ...rep, atMs: 0 }))).filter(
    (rep) => rep.drillSetId === set.id,
  );
  return (
    <div className="run-body">
      <h1>Drill set done</h1>
      <ul className="list-plain">
        {set.athleteIds.map((id) => {
          const own = rows.filter((rep) => rep.athleteId === id);
          const counted = own.filter((rep) => rep.outcome === 'clean' || rep.outcome === 'fault');
          const clean = counted.filter((rep) => rep.outcome === 'clean').length;
          return (
            <li key={id} className="row-line">
              <span>{athletes.find((one) => one.id === id)?.name}</span>
              <span className="ms-auto figure">
                {clean}
                <span className="unit"> clean of </span>
                {counted.length}
              </span>
            </li>
          );
        })}
      </ul>
      <div className="run-answers">
        {next ? (
          <button type="button" className="answer" onClick={onNext}>
            Next drill set
          </button>
        ) : (
          <Link
            className="answer d-grid text-decoration-none"
            style={{ placeItems: 'center' }}
            to="/faults"
          >
            See the faults
          </Link>
        )}
        <div className="others">
          {onUndo && (
            <Button variant="outline-dark" onClick={onUndo}>
              Undo the last
            </Button>
          )}
          <Link
            className="btn btn-outline-dark"
            to="/"
            style={{ minHeight: 46, lineHeight: '32px' }}
          >
            Finish
          </Link>
        </div>
      </div>
    </div>
  );
};

const Turn = ({
  bundle,
  run,
  set,
  state,
  picture,
}: {
  bundle: RunBundle;
  run: RunHandle;
  set: DrillSet;
  state: RunState & { up: NonNullable<RunState['up']> };
  picture: readonly AthleteFaults[] | undefined;
}) => {
  const { up, last, next, readyAtMs } = state;
  const [marked, setMarked] = useState<string[]>([]);
  const [others, setOthers] = useState(false);
  const rest = useSecondsTo(readyAtMs);
  const approach = bundle.approaches.find((one) => one.id === set.approachId);
  const athlete = bundle.athletes.find((one) => one.id === up.athleteId)!;
  const style = useLengthStyle(athlete.shoeM);
  const plan = useMemo(() => planOf(approach, athlete, up.side), [approach, athlete, up.side]);
  const movement = movementOf(approach?.movement ?? 'straight-run-up');
  const own = picture?.find(
    (one) => one.athleteId === athlete.id && one.movement === movement.code,
  );
  const faults = likely(movement, own);
  const shown = others ? faults : faults.slice(0, LIKELY);
  const firstName = (id: string): string =>
    bundle.athletes.find((one) => one.id === id)?.name.split(' ')[0] ?? '';

  const answer = (outcome: 'clean' | 'fault' | 'again' | 'skip'): void => {
    navigator.vibrate?.(15);
    void run.answer(up, outcome, outcome === 'fault' ? marked : [], own?.cue?.fault.code ?? null);
    setMarked([]);
    setOthers(false);
  };
  const toggle = (code: string): void =>
    setMarked(marked.includes(code) ? marked.filter((one) => one !== code) : [...marked, code]);

  return (
    <div className="run-body">
      <div className="run-who">
        <div>
          <h1>{athlete.name.split(' ')[0]}</h1>
          <div className="quiet">
            {plan ? (
              <>
                {plan.startFoot} foot first, from <Length m={plan.distanceM} style={style} />
              </>
            ) : (
              'no plan that fits; run by feel'
            )}
            {up.side === 'other' && plan && (
              <strong className="d-block">other side: take off {plan.steps.at(-1)!.foot}</strong>
            )}
          </div>
        </div>
        <div className="rep-no">
          <Figure parts={[{ figure: String(up.rep), unit: `of ${set.reps}` }]} />
          <div className="run-next">
            set {up.set} of {set.sets}
          </div>
        </div>
      </div>
      {[...run.away].map(
        ([id, why]) =>
          set.athleteIds.includes(id) && (
            <div key={id} className="note small-text" role="status">
              {why}
            </div>
          ),
      )}
      <Refused run={run} />
      <div className="cue-card">
        <div className="figure-label">The one cue</div>
        <div className="cue-words">
          {own?.cue
            ? own.cue.fault.cue
            : own && own.reps >= 10
              ? 'Nothing to fix: let it run'
              : 'Watch first, say nothing'}
        </div>
      </div>
      <div className="run-rest" role="timer" aria-label="Rest">
        <span>{rest > 0 ? `${firstName(up.athleteId)} rests` : 'Ready'}</span>
        <Figure parts={[{ figure: clock(rest), unit: '' }]} />
      </div>
      {plan && (
        <div>
          <Rhythm plan={plan} />
          <div className="row-line small-text quiet">
            <span>
              {plan.steps.length} steps in {plan.totalTimeS.toFixed(1)} s
            </span>
            {plan.checkMarks.map((mark) => (
              <span key={mark.stepsOut} className="ms-auto">
                {mark.stepsOut} out at <Length m={mark.toTargetM} style={style} />
              </span>
            ))}
          </div>
        </div>
      )}
      <div className="run-next">
        {next.length > 0
          ? `then ${next.slice(0, 3).map(firstName).join(', ')}`
          : 'nobody else waits'}
      </div>
      <div className="run-answers">
        <div className="faults" role="group" aria-label="Faults seen">
          {shown.map((fault) => (
            <button
              key={fault.code}
              type="button"
              className="fault"
              aria-pressed={marked.includes(fault.code)}
              onClick={() => toggle(fault.code)}
            >
              {fault.name}
            </button>
          ))}
          <button
            type="button"
            className="fault"
            aria-expanded={others}
            onClick={() => setOthers(!others)}
          >
            {others ? 'Fewer' : 'Other'}
          </button>
        </div>
        {marked.length > 0 ? (
          <button type="button" className="answer answer-fault" onClick={() => answer('fault')}>
            Log {marked.length === 1 ? 'the fault' : `${marked.length} faults`}
          </button>
        ) : (
          <button type="button" className="answer" onClick={() => answer('clean')}>
            Clean
          </button>
        )}
        <div className="others">
          <Button
            variant="outline-dark"
            disabled={!last}
            onClick={() => last && void run.undo(last)}
          >
            {last ? `Undo ${firstName(last.athleteId)}` : 'Undo'}
          </Button>
          <Button variant="outline-dark" onClick={() => answer('again')}>
            Again
          </Button>
          <Button variant="outline-dark" onClick={() => answer('skip')}>
            Skip
          </Button>
        </div>
      </div>
    </div>
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
  const picture = usePicture(before);
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
