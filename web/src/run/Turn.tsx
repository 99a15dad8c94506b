import { bodyOf, type RunState } from '@gravek/core';
import {
  isSequence,
  type Approach,
  type Athlete,
  type DrillSet,
  type Fault,
  type Movement,
  type RunBundle,
} from '@gravek/contract';
import {
  drillOf,
  faultOf,
  movementOf,
  outlineOf,
  solvePlan,
  toldTo,
  type AthleteFaults,
  type Outline,
} from '@gravek/library';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useLengthStyle } from '../app/member';
import { Figure, Length } from '../controls/Figure';
import { queue } from './store';
import { type Run as RunHandle } from './useRun';

const LIKELY = 3;

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
const planOf = (
  approach: Approach | undefined,
  movement: Movement,
  athlete: Athlete,
  side: 'own' | 'other',
): Outline | null => {
  if (!approach) return null;
  const stored = approach.solved.find((one) => one.athleteId === athlete.id);
  const body = bodyOf(athlete);
  return outlineOf(
    stored && side === 'own'
      ? stored.result
      : solvePlan(
          movement,
          approach.choices,
          { ...body, model: stored?.model ?? body.model },
          side,
        ),
  );
};

/** Faults to offer: the cued one, then by how often, then by how grave. */
const likely = (movement: Movement, own: AthleteFaults | undefined): Fault[] => {
  const rate = new Map(own?.faults.map((one) => [one.code, one.trend.now.rate]));
  return [...movement.faults].sort((a, b) => {
    const cued = Number(b.code === own?.cue?.fault.code) - Number(a.code === own?.cue?.fault.code);
    return cued || (rate.get(b.code) ?? 0) - (rate.get(a.code) ?? 0) || b.severity - a.severity;
  });
};

const Rhythm = ({ plan }: { plan: Outline }) => (
  <svg
    viewBox="0 0 360 46"
    width="100%"
    height="46"
    role="img"
    aria-label={`Rhythm of the plan: ${plan.contacts.length} contacts in ${plan.totalTimeS.toFixed(1)} seconds`}
  >
    {plan.contacts.map((contact, i) => (
      <rect
        key={i}
        x={2 + (352 * contact.timeS) / plan.totalTimeS}
        y={contact.foot === 'left' ? 0 : 18}
        width="4"
        height={contact.foot === 'left' ? 46 : 28}
        fill={contact.special ? 'var(--clay)' : 'var(--ink)'}
      />
    ))}
  </svg>
);

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

/** Who is up, what to say, and the answers under the thumb. */
export const Turn = ({
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
  const movement = toldTo(
    movementOf(approach?.movement ?? 'straight-run-up', bundle.movements),
    athlete,
    up.side,
  );
  const plan = useMemo(
    () => planOf(approach, movement, athlete, up.side),
    [approach, movement, athlete, up.side],
  );
  const drill =
    approach && isSequence(approach.choices) && approach.choices.drill
      ? drillOf(movement, approach.choices.drill)
      : undefined;
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
                {drill && `${drill.name}: `}
                {plan.firstFoot} foot first
                {plan.startM !== null && (
                  <>
                    , from <Length m={plan.startM} style={style} />
                  </>
                )}
              </>
            ) : (
              'no plan that fits; run by feel'
            )}
            {up.side === 'other' && plan && (
              <strong className="d-block">
                {plan.startM === null
                  ? 'other side, mirrored'
                  : `other side: take off ${plan.lastFoot}`}
              </strong>
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
            ? (faultOf(movement, own.cue.fault.code) ?? own.cue.fault).cue
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
              {plan.steps} steps in {plan.totalTimeS.toFixed(1)} s
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
