import type { DrillSet } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import { splitsOf } from '@gravek/library/cue/results';
import { LEAST_HOLD_S } from '@gravek/library/field/outcome';
import type { Press, TurnMarks } from '@gravek/library/field/press';
import type { Exit } from '@gravek/library/field/reads';
import { wrongAnswerTo } from '@gravek/library/field/shows';
import { exitName } from '@gravek/library/session/setWords';
import { RunClock } from './RunClock';
import { useHold } from './timers';

type Does = (press: Press) => void;

const withFaults = (marks: TurnMarks) =>
  marks.faults.length > 0 && (
    <small>with {marks.faults.length === 1 ? 'the fault' : 'faults'}</small>
  );

const MadeOrMissed = ({ marks, onPress }: { marks: TurnMarks; onPress: Does }) => (
  <div className="two-answers">
    <button type="button" className="answer" onClick={() => onPress({ press: 'log', made: true })}>
      Made
      {withFaults(marks)}
    </button>
    <button
      type="button"
      className="answer answer-missed"
      onClick={() => onPress({ press: 'log', made: false })}
    >
      Missed
      {withFaults(marks)}
    </button>
  </div>
);

const Hold = ({
  name,
  amount,
  marks,
  onPress,
}: {
  name: string;
  /** seconds asked */
  amount: number;
  marks: TurnMarks;
  onPress: Does;
}) => {
  const hold = useHold((seconds) => onPress({ press: 'held', seconds }));
  const { askedS } = marks;
  if (askedS !== null)
    return (
      <>
        <div className="run-rule" role="status">
          {askedS < LEAST_HOLD_S
            ? `That was a tap of ${askedS.toFixed(1)} s: press and hold while ${name} holds.`
            : `${askedS.toFixed(1)} s were taken back.`}
        </div>
        <div className="two-answers">
          <button type="button" className="answer" onClick={() => onPress({ press: 'hold-again' })}>
            Hold again
          </button>
          <button
            type="button"
            className="answer answer-missed"
            onClick={() => onPress({ press: 'held', seconds: askedS })}
          >
            Count {askedS.toFixed(1)} s
          </button>
        </div>
      </>
    );
  return (
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
          <small>{amount} s are asked; less is not clean</small>
        </>
      ) : (
        `${hold.seconds.toFixed(1)} s`
      )}
    </button>
  );
};

const Touches = ({
  amount,
  marks,
  onTouch,
  onPress,
}: {
  /** touches asked */
  amount: number;
  marks: TurnMarks;
  onTouch: () => void;
  onPress: Does;
}) => {
  const { touchS } = marks;
  const splits = splitsOf(touchS);
  const last = splits.at(-1);
  const isWhole = touchS.length >= amount;
  const log = (
    <button
      type="button"
      className={`answer ${marks.faults.length > 0 ? 'answer-fault' : isWhole ? '' : 'answer-missed'}`}
      onClick={() => onPress({ press: 'log' })}
    >
      {marks.faults.length > 0 ? `Log ${faultsIn(marks)}` : isWhole ? 'Clean' : 'Log as it is'}
      <small>
        {touchS.length} of {amount}
        {splits.length > 0 && ` in ${touchS.at(-1)!.toFixed(1)} s`}
      </small>
    </button>
  );
  return (
    <>
      <div className="run-rule" role="status">
        {touchS.length === 0
          ? 'Tap at each touch, or let the microphone hear them.'
          : `Touch ${touchS.length} of ${amount}${last === undefined ? '' : `, ${last.toFixed(2)} s after the one before`}`}
        {touchS.length > 0 && (
          <button
            type="button"
            className="cue-change ms-2"
            onClick={() => onPress({ press: 'touches-anew' })}
          >
            Count anew
          </button>
        )}
      </div>
      <div className="two-answers">
        {!isWhole && (
          // As the hand comes down, not when it is lifted.
          <button
            type="button"
            className="answer answer-touch"
            onPointerDown={onTouch}
            onKeyDown={(event) => {
              if ((event.key === 'Enter' || event.key === ' ') && !event.repeat) onTouch();
            }}
          >
            {touchS.length === 0 ? 'First touch' : `Touch ${touchS.length + 1}`}
            <small>of {amount}</small>
          </button>
        )}
        {touchS.length > 0 && log}
      </div>
    </>
  );
};

const faultsIn = ({ faults }: TurnMarks): string =>
  faults.length === 1 ? 'the fault' : `${faults.length} faults`;

const WrongWay = ({
  movement,
  marks,
  onPress,
}: {
  movement: Movement;
  marks: TurnMarks;
  onPress: Does;
}) => {
  const { exit, taken } = marks.wrong!;
  const wrong = wrongAnswerTo(movement, exit!)?.code;
  const isMore = marks.faults.some((code) => code !== wrong);
  return (
    <>
      <div className="run-rule" role="status">
        {`Asked “${exitName(movement, exit!)}”, took “${exitName(movement, taken!)}”: what else showed?`}
      </div>
      <div className="two-answers">
        <button
          type="button"
          className="answer answer-fault"
          onClick={() => onPress({ press: 'log' })}
        >
          {isMore ? (
            `Log ${faultsIn(marks)}`
          ) : (
            <>
              Log <small>the wrong answer</small>
            </>
          )}
        </button>
        <button
          type="button"
          className="answer answer-missed"
          onClick={() => onPress({ press: 'not-that-way' })}
        >
          Back
        </button>
      </div>
    </>
  );
};

/** The answers to a turn, by what counts in its set. */
export const Answers = ({
  set,
  movement,
  name,
  marks,
  ways,
  calledExit,
  clockName,
  onTouch,
  onWay,
  onPress,
}: {
  set: Pick<DrillSet, 'target' | 'amount'>;
  /** null for a warm-up */
  movement: Movement | null;
  /** whose turn it is */
  name: string;
  marks: TurnMarks;
  /** exits to choose from, where a read is called; none otherwise */
  ways: readonly Exit[];
  calledExit: string | null;
  /** what the running clock of this turn is kept under */
  clockName: string;
  onTouch: () => void;
  onWay: (exit: string) => void;
  onPress: Does;
}) => {
  if (movement === null)
    return (
      <button type="button" className="answer" onClick={() => onPress({ press: 'log' })}>
        Done
      </button>
    );
  if (marks.wrong) return <WrongWay movement={movement} marks={marks} onPress={onPress} />;
  if (set.target === 'makes') return <MadeOrMissed marks={marks} onPress={onPress} />;
  if (set.target === 'seconds')
    return <Hold name={name} amount={set.amount} marks={marks} onPress={onPress} />;
  if (set.target === 'touches')
    return <Touches amount={set.amount} marks={marks} onTouch={onTouch} onPress={onPress} />;
  if (ways.length > 0)
    return (
      <div className="two-answers" role="group" aria-label="Which way was taken">
        {ways.map((exit) => (
          <button
            key={exit.code}
            type="button"
            className={calledExit === exit.code ? 'answer answer-way' : 'answer answer-missed'}
            onClick={() => onWay(exit.code)}
          >
            {exit.name}
          </button>
        ))}
      </div>
    );
  const isTimed = set.target === 'metres' || set.target === 'minutes';
  if (isTimed)
    return (
      <RunClock
        key={clockName}
        name={clockName}
        set={set}
        faults={marks.faults.length > 0 ? faultsIn(marks) : null}
        takenBackS={marks.ranS}
        onRan={(ranS) => onPress({ press: 'log', ranS })}
      />
    );
  return marks.faults.length > 0 ? (
    <button type="button" className="answer answer-fault" onClick={() => onPress({ press: 'log' })}>
      Log {faultsIn(marks)}
    </button>
  ) : (
    <button type="button" className="answer" onClick={() => onPress({ press: 'log' })}>
      Clean
    </button>
  );
};
