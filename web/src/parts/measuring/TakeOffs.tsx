import { takeOffMisses, type RunThroughs, type TakeOffSpot } from '@gravek/core/measuring/measures';
import type { LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Length } from '../../controls/Figure';
import { dayName } from '../../controls/dates';
import { counted } from '@gravek/core/words';
import { opened } from '../../controls/opened';

const ReadingForm = opened(async () => (await import('./ReadingForm')).ReadingForm);

/** What one of the two ways says of the marks: they move against the miss, once that is surely none by chance. */
const Moves = ({
  seen: { moveM, interval },
  ways: [less, more],
  style,
}: {
  seen: RunThroughs;
  /** which way the marks go for feet that came down beyond the spot, and short of it */
  ways: readonly [less: string, more: string];
  style: LengthStyle;
}) => {
  if (moveM === 0 || !interval) return null;
  const [low, high] = [interval.lowM, interval.highM].map(Math.abs).sort((a, b) => a - b);
  return (
    <div className="note mb-2">
      Move the start and the mark of the curve <Length m={Math.abs(moveM)} style={style} />{' '}
      {moveM > 0 ? less : more}: 9 in 10 sure that it is between <Length m={low!} style={style} />{' '}
      and <Length m={high!} style={style} />.
    </div>
  );
};

/** How the newest take-offs of an athlete lie to the planned spot at the bar. */
export const TakeOffs = ({
  athlete,
  planned,
  style: club,
  disabled,
}: {
  athlete: Athlete;
  planned: TakeOffSpot;
  style: LengthStyle;
  disabled: boolean;
}) => {
  const [adding, setAdding] = useState(false);
  const style = { ...club, small: true };
  const newest = athlete.readings.find((row) => row.reading.kind === 'take-offs');
  const spots = newest?.reading.kind === 'take-offs' ? newest.reading.spots : null;
  const seen = spots && takeOffMisses(spots, planned);
  return (
    <section className="panel no-print" aria-label="Take-offs">
      <h2>Take-offs at the bar</h2>
      {seen && newest ? (
        <>
          <p className="mb-2">
            {counted(seen.out.n, 'run')} of {dayName(newest.takenOn)}: on average{' '}
            <strong>
              <Length m={Math.abs(seen.out.meanM)} style={style} />{' '}
              {seen.out.meanM < 0 ? 'nearer to the bar' : 'further from the bar'}
            </strong>{' '}
            and{' '}
            <strong>
              <Length m={Math.abs(seen.along.meanM)} style={style} />{' '}
              {seen.along.meanM < 0 ? 'nearer to the upright' : 'further in'}
            </strong>{' '}
            than planned.
            {seen.out.sdM !== null && seen.along.sdM !== null && (
              <>
                {' '}
                From run to run they differ by <Length m={seen.out.sdM} style={style} /> out and{' '}
                <Length m={seen.along.sdM} style={style} /> along.
              </>
            )}
          </p>
          <Moves seen={seen.out} ways={['towards the bar', 'away from the bar']} style={style} />
          <Moves
            seen={seen.along}
            ways={['out, towards the near upright', 'in, along the bar']}
            style={style}
          />
          {seen.out.moveM === 0 && seen.along.moveM === 0 && (
            <p className="quiet">
              {seen.out.interval
                ? 'That may be chance: the marks stay. More runs would tell.'
                : 'One run says nothing of the marks.'}
            </p>
          )}
        </>
      ) : (
        <p className="quiet">
          None yet. Six take-offs tell whether the marks are right, and how much they differ.
        </p>
      )}
      {!disabled &&
        (adding ? (
          <div className="mt-2">
            <ReadingForm
              athlete={athlete}
              kind="take-offs"
              style={club}
              onDone={() => setAdding(false)}
            />
          </div>
        ) : (
          <Button size="sm" variant="outline-dark" onClick={() => setAdding(true)}>
            Log take-offs
          </Button>
        ))}
    </section>
  );
};
