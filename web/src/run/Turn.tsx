import { type Turn as OpenTurn } from '@gravek/core';
import type { Outline, RunBundle, RunPlan } from '@gravek/contract';
import {
  bySchools,
  drillOf,
  faultOf,
  likelyFaults,
  movementOf,
  sideWord,
  toldTo,
} from '@gravek/library';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useLengthStyle } from '../member/member';
import { Figure, Length } from '../controls/Figure';
import { useKeys } from '../controls/keys';
import { paceName } from '../movements/PaceChoices';
import type { Run as RunHandle, SetRun } from './useRun';

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

/** What was seen of a turn; what is marked goes with it, and counts where it is the answer. */
export type TurnAnswer = (
  turn: OpenTurn,
  outcome: 'clean' | 'fault' | 'again' | 'skip' | 'pain',
  faults: string[],
  cue: string | null,
) => void;

/** Who is up, what to do, what to say, and the answers under the thumb. */
export const Turn = ({
  bundle,
  run,
  at,
  plan,
  up,
  said,
  onAnswer,
  onForward,
  onPeople,
}: {
  bundle: RunBundle;
  run: RunHandle;
  at: SetRun;
  plan: RunPlan;
  up: OpenTurn;
  /** what became of the answer before */
  said: string | null;
  onAnswer: TurnAnswer;
  onForward: (athleteId: string) => void;
  onPeople: () => void;
}) => {
  const { set, last, away, fewer } = at;
  const { next, readyAtMs } = at.state;
  const [marked, setMarked] = useState<string[]>([]);
  const [others, setOthers] = useState(false);
  // Another phone's clock may be minutes ahead; nobody rests longer than was asked.
  const rest = Math.min(useSecondsTo(readyAtMs), Math.max(set.restS, set.setRestS));
  const athlete = bundle.athletes.find((athlete) => athlete.id === up.athleteId)!;
  const style = useLengthStyle(athlete.shoeM);
  const taught = useMemo(
    () => bySchools(movementOf(plan.movement, bundle.movements), plan.schools),
    [plan, bundle.movements],
  );
  const movement = toldTo(taught, athlete, up.side);
  const outline =
    plan.outlines.find((outline) => outline.athleteId === athlete.id)?.[up.side] ?? null;
  const slower = paceName(plan.pace);
  const drill = plan.part === null ? undefined : drillOf(movement, plan.part);
  const own = bundle.cues.find(
    (cue) => cue.athleteId === athlete.id && cue.movement === plan.movement,
  );
  const cued = own?.fault ? faultOf(movement, own.fault) : undefined;
  const faults = likelyFaults(movement, own);
  const shown = others ? faults : faults.slice(0, LIKELY);
  const firstName = (id: string): string =>
    bundle.athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '';

  const answer = (outcome: Parameters<TurnAnswer>[1]): void => {
    onAnswer(up, outcome, marked, own?.fault ?? null);
    setMarked([]);
    setOthers(false);
  };
  const toggle = (code: string): void =>
    setMarked(marked.includes(code) ? marked.filter((one) => one !== code) : [...marked, code]);

  // For a laptop on a bench.
  useKeys((key) => {
    const fault = shown[Number(key) - 1];
    if (fault) toggle(fault.code);
    else if (key === 'c' && marked.length === 0) answer('clean');
    else if (key === 'l' && marked.length > 0) answer('fault');
    else if (key === 'r') answer('again');
    else if (key === 's') answer('skip');
    else if (key === 'u' && last) void run.undo(last);
  });

  return (
    <>
      <div className="run-body">
        {said && (
          <div className="note small-text" role="status">
            {said}
          </div>
        )}
        <div className="run-who">
          <div>
            <h1>
              <button type="button" className="run-name" aria-haspopup="true" onClick={onPeople}>
                {athlete.name.split(' ')[0]}
              </button>
            </h1>
            <div className="run-what">
              {[
                movement.name,
                ...(drill ? [drill.name] : []),
                ...plan.exits,
                ...(slower ? [slower] : []),
              ].join(' · ')}
            </div>
            <div className="quiet">
              {outline ? (
                <>
                  {outline.firstFoot} foot first
                  {outline.startM !== null && (
                    <>
                      , from <Length m={outline.startM} style={style} />
                    </>
                  )}
                </>
              ) : (
                'no plan that fits; run by feel'
              )}
              {up.side === 'other' && outline && (
                <strong className="d-block">
                  {outline.startM === null
                    ? `${sideWord(taught, athlete, 'other')}, mirrored`
                    : `take off ${outline.lastFoot}`}
                </strong>
              )}
            </div>
          </div>
          <div className="rep-no">
            <Figure
              parts={[{ figure: String(up.rep), unit: `of ${fewer.get(athlete.id) ?? set.reps}` }]}
            />
            <div className="run-next">
              set {up.set} of {set.sets}
            </div>
          </div>
        </div>
        <div className="run-next row-line">
          {next.length > 0 ? (
            <>
              then
              {next.slice(0, 3).map((id) => (
                <button
                  key={id}
                  type="button"
                  className="run-chip"
                  aria-label={`${firstName(id)} now`}
                  onClick={() => onForward(id)}
                >
                  {firstName(id)}
                </button>
              ))}
            </>
          ) : (
            'nobody else waits'
          )}
        </div>
        {[...away].map(([id, why]) => (
          <div key={id} className="note small-text" role="status">
            {why}
          </div>
        ))}
        {fewer.has(athlete.id) && (
          <div className="note small-text" role="status">
            {firstName(athlete.id)} is on reduced volume: {fewer.get(athlete.id)} of {set.reps}{' '}
            reps.
          </div>
        )}
        {plan.cautions.length > 0 && (
          <div className="caution small-text">{plan.cautions.join(' ')}</div>
        )}
        <div className="cue-card">
          <div className="figure-label">The one cue</div>
          <div className="cue-words">
            {cued
              ? cued.cue
              : own && own.reps >= 10
                ? 'Nothing to fix: let it run'
                : 'Watch first, say nothing'}
          </div>
        </div>
        <div className="run-rest" role="timer" aria-label="Rest">
          <span>{rest > 0 ? `${firstName(up.athleteId)} rests` : 'Ready'}</span>
          <Figure parts={[{ figure: clock(rest), unit: '' }]} />
        </div>
        {outline && (
          <div>
            <Rhythm plan={outline} />
            <div className="row-line small-text quiet">
              <span>
                {outline.steps} steps in {outline.totalTimeS.toFixed(1)} s
              </span>
              {outline.checkMarks.map((mark) => (
                <span key={mark.stepsOut} className="ms-auto">
                  {mark.stepsOut} out at <Length m={mark.toTargetM} style={style} />
                </span>
              ))}
            </div>
          </div>
        )}
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
            Redo
          </Button>
          <Button variant="outline-dark" onClick={() => answer('skip')}>
            Skip
          </Button>
          <Button variant="outline-dark" onClick={() => answer('pain')}>
            Pain
          </Button>
        </div>
      </div>
    </>
  );
};
