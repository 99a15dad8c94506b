import type { Turn as OpenTurn } from '@gravek/core/session/runOrder';
import type { RunBundle } from '@gravek/contract/run';
import type { FieldRow, Seen } from '@gravek/library/field/log';
import { ownBeat } from '@gravek/library/field/ownBeat';
import { marksFrom, pressed, type Press } from '@gravek/library/field/press';
import type { SetRun } from '@gravek/library/field/sets';
import { cueSaid, faultsOffered, turnView } from '@gravek/library/field/turn';
import { stepsIn } from '@gravek/library/planning/stepWords';
import { Fragment, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useLengthStyle } from '../member/member';
import { Figure, Length } from '../controls/Figure';
import { clock, clockMs } from '../controls/clock';
import { useKeys } from '../controls/keys';
import { LiveCadence, MeasureButton } from '../parts/devices/LiveCadence';
import { firstStepAfter, measures, takeMeasured, useDevice } from '../parts/devices/useDevice';
import { sayCount } from '../hearing/caller';
import { Answers } from './Answers';
import { CallBar, CallButton } from '../parts/field/CallBar';
import { CueCard } from './CueCard';
import { FaultPicker, useFaultPicks } from './FaultPicker';
import { Notes } from './Notes';
import { How } from './How';
import { useSecondsTo } from './timers';
import {
  isPartnered,
  partnerRead,
  SilentButton,
  SilentCode,
  silentRead,
  silentSaid,
} from './Silent';
import { TurnHead, TurnNext } from './TurnHead';
import { useSilent, useSilentNow } from '../parts/silent/useSilent';
import { useSetCall } from '../parts/field/useSetCall';

const NOTE_MAX = 200;
/** A turn that has only just come up was not touched yet: the tap was meant for the one before. */
const SETTLES_MS = 700;

/** What was seen of a turn; what is marked goes with it, and counts where it is the answer. */
export type TurnAnswer = (seen: Seen) => void;

/**
 * Who is up, what to do, what to say, and the answers under the thumb. What a press means is decided by
 * `library/field/press`; here it is only heard.
 */
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
  log: readonly FieldRow[];
  at: SetRun;
  up: OpenTurn;
  /** what became of the answer before */
  said: string | null;
  /** the answer that was just taken back, where it was of this turn */
  takenBack: FieldRow | null;
  /** who does what else while this one performs, in words */
  parts: readonly string[];
  onAnswer: TurnAnswer;
  onUndo: () => void;
  onForward: (athleteId: string) => void;
  onPeople: () => void;
}) => {
  const { set, plan, last, away } = at;
  const view = turnView(bundle, log, at, up);
  const { athlete, movement, outline, layout, planned, exits } = view;
  const [marks, setMarks] = useState(() => marksFrom(movement, takenBack));
  const [note, setNote] = useState<string | null>(null);
  // Another phone's clock may be minutes ahead; nobody rests longer than was asked.
  const rest = Math.min(useSecondsTo(at.state.readyAtMs), Math.max(set.restS, set.setRestS));
  const style = useLengthStyle(athlete.shoeM);
  const name = athlete.name.split(' ')[0] ?? '';
  const { call: ownCall } = ownBeat(set.call, at.base, [athlete]);
  const call = useSetCall({ ...set, call: ownCall }, view.callable, outline);
  const silent = useSilentNow();
  const code = useSilent((state) => state.code);
  // What a partner shows takes the place of what is called.
  const shown = partnerRead(view, at);
  const isShown = isPartnered(silent, shown);
  const read = (isShown && silentRead(silent, view)) || call.read;
  const isReading = (set.call?.kind === 'reads' || isShown) && exits.length > 0;
  // What is offered follows the exit that was called, then the one that was taken.
  const before = isReading ? (takenBack?.exit ?? null) : null;
  const calledExit = read?.exit.code ?? (marks.wrong ? marks.wrong.exit : before);
  const cue = marks.cue === undefined ? view.cue : marks.cue;
  const faults = faultsOffered(
    at,
    view,
    { asked: calledExit, taken: marks.wrong?.taken ?? null },
    cue,
  );
  const picks = useFaultPicks(faults);

  const press = (what: Press): void => {
    const wanted = calledExit ?? view.askedExit;
    const { marks: after, answer } = pressed(marks, what, { turn: up, set, movement, wanted, cue });
    if (after.wrong && !marks.wrong) call.stop();
    setMarks(after);
    if (!answer) return;
    call.stop();
    const { run, unread } = takeMeasured(athlete.id, planned);
    onAnswer({
      ...answer,
      note: [note ?? '', ...(unread ? [`times ${unread}`] : [])]
        .join(' ')
        .trim()
        .slice(0, NOTE_MAX),
      measured: run,
    });
    picks.setOpen(false);
    setNote(null);
  };
  const tookWay = (exit: string): void => {
    const heard = read && firstStepAfter(athlete.id, read);
    press({
      press: 'way',
      exit,
      ...(heard ?? { lateS: read && (clockMs() - read.fromMs) / 1000, lateBy: 'tap' }),
    });
  };

  const shownMs = useRef(clockMs());
  const beganMs = useRef<number | null>(null);
  /** Touches at moments of the page's clock; those that come before anybody can have touched are none. */
  const touched = (moments: readonly number[]): void => {
    const untilMs = Math.max(shownMs.current + SETTLES_MS, call.go?.untilMs ?? 0);
    const next = moments
      .filter((atMs) => atMs > untilMs)
      .reduce((before, atMs) => {
        if (before.touchS.length === 0 || beganMs.current === null)
          beganMs.current = call.go?.fromMs ?? atMs;
        const atS = (atMs - (beganMs.current ?? atMs)) / 1000;
        const on = { turn: up, set, movement, wanted: null, cue };
        return pressed(before, { press: 'touched', atS }, on).marks;
      }, marks);
    if (next === marks || next.touchS.join() === marks.touchS.join()) return;
    setMarks(next);
    // A microphone would hear the count as well.
    if (useDevice.getState().device?.by !== 'sound') sayCount(next.touchS.length);
  };
  const { device, of, landedMs } = useDevice();
  const heardMs = useRef(clockMs());
  useEffect(() => {
    if (set.target !== 'touches' || !measures({ device, of }, athlete.id)) return;
    const fresh = landedMs.filter((atMs) => atMs > heardMs.current);
    heardMs.current = fresh.at(-1) ?? heardMs.current;
    if (fresh.length > 0) touched(fresh);
    // Each landing once, whatever else changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [landedMs]);

  const isPlain = set.target === 'attempts' || movement === null;
  // For a laptop on a bench.
  useKeys((key) => {
    const fault = picks.shown[Number(key) - 1];
    if (fault) press({ press: 'fault', fault: fault.code });
    else if (key === 'c' && isPlain && !isReading && marks.faults.length === 0)
      press({ press: 'log' });
    else if (key === 'l' && (marks.faults.length > 0 || marks.wrong)) press({ press: 'log' });
    else if (key === 'm' && set.target === 'makes') press({ press: 'log', made: true });
    else if (key === 'n' && set.target === 'makes') press({ press: 'log', made: false });
    else if (key === 't' && set.target === 'touches') touched([clockMs()]);
    else if (key === 'r') press({ press: 'again' });
    else if (key === 's') press({ press: 'skip' });
    else if (key === 'u' && last) onUndo();
    else if (key === ' ' && set.call) call.call(up);
  });

  return (
    <>
      <div className="run-body">
        {said && (
          <div className="note small-text" role="status">
            {said}
          </div>
        )}
        <TurnHead at={at} up={up} view={view} onPeople={onPeople} />
        {movement && (
          <CueCard
            said={cueSaid(view, cue)}
            cue={cue}
            faults={faults}
            note={note}
            onCue={(fault) => press({ press: 'cue', fault })}
            onNote={setNote}
          />
        )}
        <TurnNext at={at} up={up} parts={parts} onForward={onForward} />
        {set.freeze && <div className="run-rule">Freeze after it; look, correct one thing.</div>}
        {set.redo && <div className="run-rule">Who misses the finish mark goes again: Redo.</div>}
        <Notes away={away} cautions={plan?.cautions ?? []} />
        {movement && (
          <LiveCadence
            movement={movement}
            plan={planned}
            who={{ id: athlete.id, name }}
            turn={JSON.stringify(up)}
            marked={marks.faults}
            onFault={(fault) => press({ press: 'fault', fault })}
          />
        )}
      </div>
      <div className="run-now">
        <How how={view.how} />
        <SilentCode code={code} at={silent} />
        <CallBar call={ownCall} at={call} layout={layout} />
        <div className="run-rest" role="timer" aria-label="Rest">
          <span>{(isShown && silentSaid(silent)) || (rest > 0 ? `${name} rests` : 'Ready')}</span>
          {outline && !set.call && rest === 0 && !silent.round && (
            <span className="small-text quiet">
              {stepsIn(outline.steps, outline.totalTimeS)}
              {outline.checkMarks.slice(0, 1).map((mark) => (
                <Fragment key={mark.stepsOut}>
                  , {mark.stepsOut} out at <Length m={mark.toTargetM} style={style} />
                </Fragment>
              ))}
            </span>
          )}
          <SilentButton read={shown} at={silent} />
          {movement && <MeasureButton />}
          {rest > 0 && <Figure parts={[{ figure: clock(rest), unit: '' }]} />}
        </div>
      </div>
      <div className="run-answers">
        {faults.length > 0 && (
          <FaultPicker
            picks={picks}
            marked={marks.faults}
            onToggle={(fault) => press({ press: 'fault', fault })}
          />
        )}
        <Answers
          set={set}
          movement={movement}
          name={name}
          marks={marks}
          ways={isReading ? exits : []}
          calledExit={read?.exit.code ?? null}
          clockName={`${bundle.session.id} ${up.key}`}
          onTouch={() => touched([clockMs()])}
          onWay={tookWay}
          onPress={press}
        />
        <div className="others">
          {set.call && <CallButton call={set.call} at={call} onCall={() => call.call(up)} />}
          <Button variant="outline-dark" disabled={!last} onClick={onUndo}>
            {last
              ? `Undo ${set.call ? '' : (at.athleteOf(last.athleteId).name.split(' ')[0] ?? '')}`
              : 'Undo'}
          </Button>
          {movement && (
            <Button variant="outline-dark" onClick={() => press({ press: 'again' })}>
              Redo
            </Button>
          )}
          <Button variant="outline-dark" onClick={() => press({ press: 'skip' })}>
            Skip
          </Button>
          <Button variant="outline-dark" onClick={() => press({ press: 'pain' })}>
            Pain
          </Button>
        </div>
      </div>
    </>
  );
};
