import { groupsAt } from '@gravek/library/field/stations';
import type { RunBundle } from '@gravek/contract/run';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { clock as asClock } from '../../controls/clock';
import { Figure } from '../../controls/Figure';
import { roundToGoBy, secondsLeft, type SessionClockHere, useClockPart } from './useSessionClock';

/** Over a station on the phone: who is here in this round, what time is left, who comes next. */
export const StationStrip = ({
  session,
  setId,
  clock,
}: {
  session: RunBundle['session'];
  setId: string;
  clock: SessionClockHere;
}) => {
  const round = useClockPart(clock, roundToGoBy, 0);
  const left = useClockPart(clock, secondsLeft, 0);
  const state = useClockPart(
    clock,
    ({ running, held, over, changing }) =>
      over ? 'over' : !running ? 'before' : held ? 'held' : changing ? 'change' : 'on',
    'before',
  );
  const groupIn = (of: number): string | null => {
    const at = groupsAt(session, of).find((station) => station.setId === setId);
    return at && at.group !== null ? session.circuit!.groups[at.group]!.name : null;
  };
  const here = groupIn(round);
  const next = round > 0 && round < clock.plan.stations ? groupIn(round + 1) : null;
  const words = {
    before: left > 0 ? 'The groups begin in' : 'The groups’ clock has not begun.',
    on: here ? `${here} here` : 'Nobody here in this round',
    held: `${here ?? 'Nobody'} here, the clock is held`,
    change: here ? `Change: ${here} come here` : 'Change: nobody comes here',
    over: 'All rounds are over.',
  }[state];
  return (
    <div className={state === 'change' ? 'station-strip changing' : 'station-strip'}>
      <div role="status">
        <strong>{words}</strong>
        {next && state !== 'change' && <span className="small-text"> then {next}</span>}
        {round > 0 && (
          <div className="small-text">
            round {round} of {clock.plan.stations}
            {clock.waiting > 0 && ', not sent yet'}
          </div>
        )}
      </div>
      {state !== 'over' && left > 0 && (
        <span role="timer">
          <Figure parts={[{ figure: asClock(left), unit: '' }]} />
        </span>
      )}
      {state === 'before' && left === 0 ? (
        <Button variant="outline-dark" onClick={() => clock.press('start')}>
          Start
        </Button>
      ) : (
        <Link to={`/run/${session.id}/clock`}>Clock</Link>
      )}
    </div>
  );
};
