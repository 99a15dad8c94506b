import { runThroughs } from '@gravek/core/measuring/measures';
import type { LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import { memo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Length } from '../../controls/Figure';
import { dayName } from '../../controls/dates';
import { opened } from '../../controls/opened';

const ReadingForm = opened(async () => (await import('./ReadingForm')).ReadingForm);

/**
 * What the newest run-throughs of an athlete say of the plan: whether the start mark moves. Their spread
 * gives the aim, under how well the plan holds.
 */
export const RunThroughs = memo(
  ({
    athlete,
    target,
    style,
    onMove,
  }: {
    athlete: Athlete;
    target: string;
    style: LengthStyle;
    /** moves the start mark away from the target; absent where nothing may be changed */
    onMove: ((byM: number) => void) | undefined;
  }) => {
    const [adding, setAdding] = useState(false);
    const newest = athlete.readings.find((row) => row.reading.kind === 'run-through');
    const seen =
      newest?.reading.kind === 'run-through' ? runThroughs(newest.reading.missesM) : null;
    const small = { ...style, small: true };
    return (
      <section className="panel no-print" aria-label="Run-throughs">
        <h2>Run-throughs at the {target}</h2>
        {seen && newest ? (
          <>
            <p className="mb-2">
              {seen.n === 1 ? 'One run' : `${seen.n} runs`} of {dayName(newest.takenOn)}: on average{' '}
              <strong>
                {Math.abs(seen.meanM) < 0.005 ? (
                  'on the line'
                ) : (
                  <>
                    <Length m={Math.abs(seen.meanM)} style={small} />{' '}
                    {seen.meanM > 0 ? 'over' : 'short of'} the line
                  </>
                )}
              </strong>
              .
            </p>
            {seen.moveM !== 0 ? (
              <div className="note mb-2">
                Move the start mark <Length m={Math.abs(seen.moveM)} style={small} />{' '}
                {seen.moveM > 0 ? 'back' : 'in'}: 9 in 10 sure that it is between{' '}
                <Length
                  m={Math.min(...[seen.interval!.lowM, seen.interval!.highM].map(Math.abs))}
                  style={small}
                />{' '}
                and{' '}
                <Length
                  m={Math.max(...[seen.interval!.lowM, seen.interval!.highM].map(Math.abs))}
                  style={small}
                />
                .{' '}
                {onMove && (
                  <Button size="sm" variant="outline-dark" onClick={() => onMove(seen.moveM)}>
                    Move it
                  </Button>
                )}
              </div>
            ) : (
              <p className="quiet">
                {seen.interval
                  ? 'That may be chance: the start mark stays. More runs would tell.'
                  : 'One run says nothing of the start mark.'}
              </p>
            )}
          </>
        ) : (
          <p className="quiet">
            None yet. Six run-throughs tell whether the start mark is right, and give the aim behind
            the line its spread.
          </p>
        )}
        {onMove &&
          (adding ? (
            <div className="mt-2">
              <ReadingForm
                athlete={athlete}
                kind="run-through"
                style={style}
                onDone={() => setAdding(false)}
              />
            </div>
          ) : (
            <Button
              size="sm"
              variant="outline-dark"
              className="mt-2"
              onClick={() => setAdding(true)}
            >
              Log run-throughs
            </Button>
          ))}
      </section>
    );
  },
);
