import type { Turn as OpenTurn } from '@gravek/core/runOrder';
import { variantFrom } from '@gravek/core/variants';
import { isSequence } from '@gravek/contract/choices';
import type { RunAthlete, RunBundle } from '@gravek/contract/run';
import type { Rep } from '@gravek/contract/session';
import { plannedRun } from '@gravek/library/measuredRun';
import { faultOf } from '@gravek/library/byCode';
import { LEAST_HOLD_S } from '@gravek/library/field/outcome';
import { exitsToCall, exitsToRead } from '@gravek/library/field/reads';
import {
  answersRead,
  faultsToShow,
  likelyFirst,
  phasesOfRep,
  tapsOf,
  wrongAnswerTo,
} from '@gravek/library/field/shows';
import { exitsOf } from '@gravek/library/plan';
import { bySchools } from '@gravek/library/schools';
import { sidePhrase, toldTo } from '@gravek/library/sides';
import { steadyTarget } from '@gravek/library/steadyCadence';
import { drillOfBase, exitName, fieldRun, variantWords } from '@gravek/library/work';
import { stepsIn } from '@gravek/library/stepWords';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useLengthStyle } from '../member/member';
import { Figure, Length } from '../controls/Figure';
import { clockMs } from '../controls/clock';
import { useKeys } from '../controls/keys';
import { LiveCadence, MeasureButton } from '../devices/LiveCadence';
import { takeMeasured } from '../devices/useDevice';
import { CallBar, CallButton } from './CallBar';
import { Rhythm } from './Rhythm';
import { clock, useHold, useSecondsTo } from './timers';
import { useSetCall } from './useSetCall';
import { Notes } from './Notes';
import { FaultPicker, useFaultPicks } from './FaultPicker';
import { askedExit, cueIn, type PhoneRow, type Seen, type SetRun } from './useRun';

/** A tap that comes later says nothing of how soon the athlete has moved, seconds. */
const LATEST_TAP_S = 3;
const NOTE_MAX = 200;

/** What was seen of a turn; what is marked goes with it, and counts where it is the answer. */
export type TurnAnswer = (seen: Seen) => void;

/** Who is up, what to do, what to say, and the answers under the thumb. */
export const Turn = ({
  bundle,
  log,
  at,
  up,
  said,
  takenBack,
  parts,
  onAnswer,
  onUndo,
  onForward,
  onPeople,
}: {
  bundle: RunBundle;
  log: readonly PhoneRow[];
  at: SetRun;
  up: OpenTurn;
  /** what became of the answer before */
  said: string | null;
  /** the answer that was just taken back, where it was of this turn */
  takenBack: PhoneRow | null;
  /** who does what else while this one performs, in words */
  parts: readonly string[];
  onAnswer: TurnAnswer;
  onUndo: () => void;
  onForward: (athleteId: string) => void;
  onPeople: () => void;
}) => {
  const { set, plan, base, last, away, fewer } = at;
  const { next, readyAtMs, open } = at.state;
  const [marked, setMarked] = useState<string[]>(() =>
    takenBack ? tapsOf(at.movementOf(variantFrom(up.variant, up.side)), takenBack) : [],
  );
  /** seconds of a press that was no hold, while it is asked what was meant */
  const [tapped, setTapped] = useState<number | null>(null);
  /** what was called and how it was answered, where that was wrong */
  const [wrong, setWrong] = useState<Pick<Rep, 'exit' | 'taken' | 'lateS'> | null>(null);
  const [recue, setRecue] = useState<string | null | undefined>(undefined);
  const [choosing, setChoosing] = useState(false);
  const [note, setNote] = useState<string | null>(null);
  // Another phone's clock may be minutes ahead; nobody rests longer than was asked.
  const rest = Math.min(useSecondsTo(readyAtMs), Math.max(set.restS, set.setRestS));
  const athlete: RunAthlete = at.athleteOf(up.athleteId);
  const style = useLengthStyle(athlete.shoeM);
  const variant = variantFrom(up.variant, up.side);
  const run = plan && base ? fieldRun(plan, base, variant, athlete) : null;
  const outline = run?.outline ?? null;
  const code = base ? at.movementOf(variant) : null;
  const taught = code && bySchools(code, base?.choices?.schools);
  const movement = taught && toldTo(taught, athlete, up.side);
  const drill = base && drillOfBase(base);
  // A steady run is to be held at its week's target; of any other the plan's own steps say it.
  const cadence = base?.choices && isSequence(base.choices) ? base.choices.cadence : null;
  const steady = movement && athlete.body && steadyTarget(movement, cadence, athlete.body);
  const planned = plannedRun(outline, run?.steps ?? [], steady || null);
  const own = bundle.cues.find(
    (cue) => cue.athleteId === athlete.id && cue.movement === movement?.code,
  );
  const cue = recue === undefined ? cueIn(log, athlete.id, code?.code ?? '', own) : recue;
  const cued = cue && movement ? faultOf(movement, cue) : undefined;
  const firstName = (id: string): string => at.athleteOf(id).name.split(' ')[0] ?? '';
  const exits = exitsToRead(movement || null, base?.choices ?? null);
  const callable = exitsToCall(exits, base?.choices ?? null, variant);
  const call = useSetCall(set, callable, outline);
  const reading = set.call?.kind === 'reads' && exits.length > 0;
  // What is offered follows the exit that was called, then the one that was taken.
  const before = reading ? (takenBack?.exit ?? null) : null;
  const asked = call.read?.exit.code ?? (wrong ? wrong.exit : before);
  const onWay = wrong?.taken ?? asked ?? askedExit(base, variant);
  const faults =
    base && movement
      ? likelyFirst(
          faultsToShow(
            movement,
            phasesOfRep(base, variant, onWay, athlete.body ?? undefined),
            asked,
          ),
          drill?.code ?? null,
          { fault: cue, likely: own?.likely ?? [] },
        )
      : [];
  const picks = useFaultPicks(faults);

  const answer = (outcome: Seen['outcome'], more: Partial<Seen> = {}): void => {
    const seen = outcome === 'clean' && marked.length > 0 ? 'fault' : outcome;
    call.stop();
    const { run: measured, unread } = takeMeasured(athlete.id, planned);
    onAnswer({
      turn: up,
      outcome: seen,
      faults: marked,
      cue,
      note: [note ?? '', ...(unread ? [`times ${unread}`] : [])]
        .join(' ')
        .trim()
        .slice(0, NOTE_MAX),
      // What was not run was not measured either.
      measured: seen === 'skip' || seen === 'pain' ? null : measured,
      ...more,
    });
    setMarked([]);
    setTapped(null);
    setWrong(null);
    picks.setOpen(false);
    setNote(null);
  };
  const toggle = (fault: string): void =>
    setMarked(marked.includes(fault) ? marked.filter((one) => one !== fault) : [...marked, fault]);
  const took = (exit: string): void => {
    const wanted = asked ?? askedExit(base, variant);
    const lateS = call.read ? Math.round((clockMs() - call.read.atMs) / 10) / 100 : null;
    const seen = {
      taken: exit,
      exit: wanted,
      lateS: lateS !== null && lateS <= LATEST_TAP_S ? lateS : null,
    };
    if (!movement || wanted === null || answersRead(movement, wanted, exit)) {
      answer('clean', seen);
      return;
    }
    // What else showed on the way that was taken is asked before it is logged.
    call.stop();
    setWrong(seen);
    const fault = wrongAnswerTo(movement, wanted)?.code;
    if (fault && !marked.includes(fault)) setMarked([...marked, fault]);
  };
  const hold = useHold((seconds) => {
    if (seconds < LEAST_HOLD_S) setTapped(seconds);
    else answer('clean', { heldS: seconds });
  });
  const made = open.length > 0 && set.target === 'makes' ? at.madeSoFar(up) : null;

  // For a laptop on a bench.
  useKeys((key) => {
    const fault = picks.shown[Number(key) - 1];
    if (fault) toggle(fault.code);
    else if (key === 'c' && set.target === 'attempts' && !reading && marked.length === 0)
      answer('clean');
    else if (key === 'l' && (marked.length > 0 || wrong)) answer('clean', wrong ?? {});
    else if (key === 'm' && set.target === 'makes') answer('clean', { made: true });
    else if (key === 'n' && set.target === 'makes') answer('clean', { made: false });
    else if (key === 'r') answer('again');
    else if (key === 's') answer('skip');
    else if (key === 'u' && last) onUndo();
    else if (key === ' ' && set.call) call.call(up);
  });

  const exitIn = (exit: string | null): string =>
    exit === null ? '' : exitName(movement || null, exit);
  const what = [
    ...(movement ? [movement.name] : [base?.name ?? 'Drill set']),
    ...(drill ? [drill.name] : []),
    ...(base?.movement && base.choices && variant.exit === null
      ? exitsOf(toldTo(base.movement, athlete, up.side), base.choices)
      : []),
    ...variantWords({ movement: movement || null }, variant).filter(
      (word) => variant.move === null || !movement || !movement.name.includes(word),
    ),
  ];
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
            <div className="run-what">{what.join(' · ')}</div>
            {movement && (
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
                {(up.side === 'other' || set.vary.sides.length > 1) && taught && (
                  <strong className="d-block">
                    {outline && outline.startM !== null
                      ? `take off ${outline.lastFoot}`
                      : sidePhrase(taught, athlete, up.side)}
                  </strong>
                )}
              </div>
            )}
          </div>
          <div className="rep-no">
            {made ? (
              <Figure parts={[{ figure: String(made.made), unit: `of ${set.amount} made` }]} />
            ) : (
              <Figure
                parts={[
                  { figure: String(up.rep), unit: `of ${fewer.get(athlete.id) ?? set.reps}` },
                ]}
              />
            )}
            <div className="run-next">
              {made && `try ${up.rep} of ${fewer.get(athlete.id) ?? set.reps}, `}
              {set.sets > 1 || !made ? `set ${up.set} of ${set.sets}` : 'then on'}
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
          {parts.length > 0 && <span className="run-parts">{parts.join(' · ')}</span>}
        </div>
        {fewer.has(athlete.id) && (
          <div className="note small-text" role="status">
            {firstName(athlete.id)} is on reduced volume: {fewer.get(athlete.id)} of {set.reps}{' '}
            reps.
          </div>
        )}
        <Notes away={away} cautions={plan?.cautions ?? []} />
        {movement && (
          <div className="cue-card">
            <div className="row-line">
              <span className="figure-label">The one cue</span>
              <button
                type="button"
                className="cue-change ms-auto"
                aria-expanded={note !== null}
                onClick={() => setNote(note === null ? '' : null)}
              >
                Note
              </button>
              <button
                type="button"
                className="cue-change"
                aria-expanded={choosing}
                onClick={() => setChoosing(!choosing)}
              >
                {choosing ? 'Keep it' : 'Change'}
              </button>
            </div>
            {note !== null && (
              <Form.Control
                aria-label="Note on this rep"
                maxLength={NOTE_MAX}
                autoFocus
                value={note}
                placeholder="goes with the next answer"
                onChange={(event) => setNote(event.target.value)}
              />
            )}
            {choosing ? (
              <Form.Select
                aria-label="Another cue"
                value={cue ?? ''}
                onChange={(event) => {
                  setRecue(event.target.value || null);
                  setChoosing(false);
                }}
              >
                <option value="">none: watch, say nothing</option>
                {faults.map((fault) => (
                  <option key={fault.code} value={fault.code}>
                    {fault.cue}
                  </option>
                ))}
              </Form.Select>
            ) : (
              <div className="cue-words">
                {cued
                  ? cued.cue
                  : own && own.reps >= 10
                    ? 'Nothing to fix: let it run'
                    : 'Watch first, say nothing'}
              </div>
            )}
          </div>
        )}
        {set.freeze && <div className="run-rule">Freeze after it; look, correct one thing.</div>}
        {set.redo && <div className="run-rule">Who misses the finish mark goes again: Redo.</div>}
        {movement && (
          <LiveCadence
            movement={movement}
            plan={planned}
            who={{ id: athlete.id, name: firstName(athlete.id) }}
            turn={JSON.stringify(up)}
            marked={marked}
            onFault={toggle}
          />
        )}
        <div className="run-rest" role="timer" aria-label="Rest">
          <span>{rest > 0 ? `${firstName(up.athleteId)} rests` : 'Ready'}</span>
          {movement && <MeasureButton />}
          <Figure parts={[{ figure: clock(rest), unit: '' }]} />
        </div>
        {set.call && <CallBar call={set.call} at={call} />}
        {outline && !set.call && (
          <div>
            <Rhythm plan={outline} />
            <div className="row-line small-text quiet">
              <span>{stepsIn(outline.steps, outline.totalTimeS)}</span>
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
        {faults.length > 0 && <FaultPicker picks={picks} marked={marked} onToggle={toggle} />}
        {set.target === 'makes' ? (
          <div className="two-answers">
            <button
              type="button"
              className="answer"
              onClick={() => answer('clean', { made: true })}
            >
              Made
              {marked.length > 0 && (
                <small>with {marked.length === 1 ? 'the fault' : 'faults'}</small>
              )}
            </button>
            <button
              type="button"
              className="answer answer-missed"
              onClick={() => answer('clean', { made: false })}
            >
              Missed
              {marked.length > 0 && (
                <small>with {marked.length === 1 ? 'the fault' : 'faults'}</small>
              )}
            </button>
          </div>
        ) : tapped !== null ? (
          <>
            <div className="run-rule" role="status">
              That was a tap of {tapped.toFixed(1)} s: press and hold while {firstName(athlete.id)}{' '}
              holds.
            </div>
            <div className="two-answers">
              <button type="button" className="answer" onClick={() => setTapped(null)}>
                Hold again
              </button>
              <button
                type="button"
                className="answer answer-missed"
                onClick={() => answer('clean', { heldS: tapped })}
              >
                Count {tapped.toFixed(1)} s
              </button>
            </div>
          </>
        ) : set.target === 'seconds' ? (
          <button
            type="button"
            className={hold.seconds === null ? 'answer' : 'answer answer-held'}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              hold.begin();
            }}
            onPointerUp={hold.end}
            onPointerCancel={hold.end}
            onKeyDown={(event) => {
              if ((event.key === 'Enter' || event.key === ' ') && !event.repeat) hold.begin();
            }}
            onKeyUp={(event) => {
              if (event.key === 'Enter' || event.key === ' ') hold.end();
            }}
          >
            {hold.seconds === null ? (
              <>
                Hold while it lasts
                <small>{set.amount} s are asked; less is not clean</small>
              </>
            ) : (
              `${hold.seconds.toFixed(1)} s`
            )}
          </button>
        ) : wrong ? (
          <>
            <div className="run-rule" role="status">
              {`Asked “${exitIn(wrong.exit)}”, took “${exitIn(wrong.taken)}”: what else showed?`}
            </div>
            <div className="two-answers">
              <button
                type="button"
                className="answer answer-fault"
                onClick={() => answer('clean', wrong)}
              >
                {marked.length > 1 ? (
                  `Log ${marked.length} faults`
                ) : (
                  <>
                    Log <small>the wrong answer</small>
                  </>
                )}
              </button>
              <button
                type="button"
                className="answer answer-missed"
                onClick={() => {
                  const fault = movement && wrongAnswerTo(movement, wrong.exit!)?.code;
                  setMarked(marked.filter((code) => code !== fault));
                  setWrong(null);
                }}
              >
                Back
              </button>
            </div>
          </>
        ) : reading ? (
          <div className="two-answers" role="group" aria-label="Which way was taken">
            {exits.map((exit) => (
              <button
                key={exit.code}
                type="button"
                className={
                  call.read?.exit.code === exit.code ? 'answer answer-way' : 'answer answer-missed'
                }
                onClick={() => took(exit.code)}
              >
                {exit.name}
              </button>
            ))}
          </div>
        ) : marked.length > 0 ? (
          <button type="button" className="answer answer-fault" onClick={() => answer('clean')}>
            Log {marked.length === 1 ? 'the fault' : `${marked.length} faults`}
          </button>
        ) : (
          <button
            type="button"
            className="answer"
            onClick={() => answer(movement ? 'clean' : 'done')}
          >
            {movement ? 'Clean' : 'Done'}
          </button>
        )}
        <div className="others">
          {set.call && <CallButton call={set.call} at={call} onCall={() => call.call(up)} />}
          <Button variant="outline-dark" disabled={!last} onClick={onUndo}>
            {last ? `Undo ${set.call ? '' : firstName(last.athleteId)}` : 'Undo'}
          </Button>
          {movement && (
            <Button variant="outline-dark" onClick={() => answer('again')}>
              Redo
            </Button>
          )}
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
