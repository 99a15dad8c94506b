import { isAnswer, standing } from '@gravek/core/session/repLog';
import { type ClockAct, stationOf } from '@gravek/core/session/circuit';
import { counted } from '@gravek/core/words';
import type { RunBundle } from '@gravek/contract/run';
import type { FieldRow } from '@gravek/library/field/log';
import type { SetRun } from '@gravek/library/field/sets';
import { groupsAt } from '@gravek/library/field/stations';
import { stationsOf } from '@gravek/library/session/timeAxis';
import { useMemo, useState } from 'react';
import { useTitle } from '../controls/useTitle';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { clock as asClock } from '../controls/clock';
import { Empty, Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { serverTimeErrorS } from '../parts/clock/serverTime';
import { useClockCalls } from '../parts/clock/useClockCalls';
import {
  roundToGoBy,
  secondsLeft,
  type SessionClockHere,
  useClockPart,
  useSessionClock,
} from '../parts/clock/useSessionClock';
import { useBundle, useRun } from './useRun';
import { useAwake } from './Waiting';

type Grouped = RunBundle['session'] & { circuit: NonNullable<RunBundle['session']['circuit']> };

const SAID: Partial<Record<ClockAct['kind'], string>> = {
  start: 'The clock runs.',
  hold: 'The clock is held.',
  resume: 'The clock goes on.',
  more: 'A minute more.',
  change: 'The groups change now.',
  end: 'The clock is ended.',
};

/** How far the group that is at a station has come there. */
const repsOf = (at: SetRun, log: readonly FieldRow[], ids: readonly string[]): string => {
  const done = standing(log.filter((row) => row.drillSetId === at.set.id)).filter(
    (row) => isAnswer(row) && ids.includes(row.athleteId),
  ).length;
  const open = at.state.open.filter((turn) => ids.includes(turn.athleteId)).length;
  return `${done} of ${counted(done + open, 'rep')}`;
};

/** One station: what is done there, who is there in this round. */
const StationCard = ({
  number,
  at,
  log,
  group,
  next,
  nameOf,
}: {
  number: number;
  at: SetRun;
  log: readonly FieldRow[];
  group: Grouped['circuit']['groups'][number] | null;
  /** who comes after; null where nobody does */
  next: string | null;
  nameOf: (id: string) => string;
}) => (
  <li className={group ? 'station-card' : 'station-card nobody'}>
    <div className="quiet">
      {number}
      {at.set.coach && ` · ${at.set.coach}`}
    </div>
    <h2>{at.base?.name ?? 'Drill set'}</h2>
    {group ? (
      <>
        <h3>{group.name}</h3>
        <div>{group.athleteIds.map(nameOf).join(', ')}</div>
        {at.base?.movement && (
          <div className="figure station-reps">{repsOf(at, log, group.athleteIds)}</div>
        )}
      </>
    ) : (
      <div className="quiet">nobody in this round</div>
    )}
    {next && <div className="quiet mt-auto">then {next}</div>}
  </li>
);

/** Each group's rounds on one axis, and where the clock stands. */
const Rounds = ({ session, clock }: { session: Grouped; clock: SessionClockHere }) => {
  const { stations, minutes, changeS } = clock.plan;
  const isOver = useClockPart(clock, ({ over }) => over, false);
  /** thousandths of the round that runs; while they change it is over */
  const done = useClockPart(
    clock,
    ({ round, changing, leftS }) =>
      round === 0
        ? 0
        : Math.round(
            1000 *
              (round - 1 + (changing ? 1 : Math.max(0, 1 - leftS / Math.max(leftS, 60 * minutes)))),
          ),
    0,
  );
  const passed = isOver ? stations : done / 1000;
  return (
    <div
      className="clock-rounds"
      role="img"
      aria-label={`${stations} rounds of ${minutes} minutes, ${changeS} seconds to change`}
    >
      {session.circuit.groups.map(({ name }, i) => (
        <div key={i} className="clock-round">
          <span>{name}</span>
          <span className="clock-bars">
            {Array.from({ length: stations }, (_, round) => (
              <span key={round} className="clock-bar">
                <span style={{ width: `${100 * Math.min(1, Math.max(0, passed - round))}%` }} />
                <small>{stationOf(i, round + 1, stations) + 1}</small>
              </span>
            ))}
          </span>
        </div>
      ))}
    </div>
  );
};

const Acts = ({ clock }: { clock: SessionClockHere }) => {
  const state = useClockPart(
    clock,
    ({ running, held, over, leftS }) =>
      over ? 'over' : running ? (held ? 'held' : 'on') : leftS > 0 ? 'coming' : 'before',
    'before',
  );
  const press = (kind: Exclude<ClockAct['kind'], 'undo'>): void => {
    const id = clock.press(kind);
    tell(SAID[kind]!, () => clock.undo(id));
  };
  if (state === 'before') {
    return (
      <Button size="lg" onClick={() => press('start')}>
        Start the clock
      </Button>
    );
  }
  return (
    <>
      <Button variant="link" onClick={() => press('end')}>
        {state === 'over' ? 'Begin anew' : 'End'}
      </Button>
      {(state === 'on' || state === 'held') && (
        <>
          <Button
            variant="outline-dark"
            size="lg"
            onClick={() => press(state === 'held' ? 'resume' : 'hold')}
          >
            {state === 'held' ? 'Go on' : 'Hold the clock'}
          </Button>
          <Button variant="outline-dark" size="lg" onClick={() => press('more')}>
            One minute more
          </Button>
          <Button size="lg" onClick={() => press('change')}>
            Change now
          </Button>
        </>
      )}
    </>
  );
};

const GroupClock = ({ bundle, session }: { bundle: RunBundle; session: Grouped }) => {
  useAwake();
  const stations = useMemo(() => stationsOf(session)!, [session]);
  useTitle(`Clock, ${session.title}`);
  const clock = useSessionClock(session.id, stations.plan)!;
  const round = useClockPart(clock, roundToGoBy, 0);
  const run = useRun(bundle, null, round);
  const [isHeard, setHeard] = useState(false);
  useClockCalls(clock, isHeard);
  const left = useClockPart(clock, secondsLeft, 0);
  const head = useClockPart(
    clock,
    ({ round: now, changing, held, over, running, leftS }) =>
      over
        ? 'All rounds are over'
        : !running
          ? leftS > 0
            ? 'Ready'
            : `${counted(stations.plan.stations, 'round')} of ${stations.plan.minutes} min`
          : changing
            ? `Change to round ${now + 1} of ${stations.plan.stations}`
            : `Round ${now} of ${stations.plan.stations}${held ? ', held' : ''}`,
    '',
  );
  const isChanging = useClockPart(clock, ({ changing }) => changing, false);
  // Before they begin each stands at the first station; after the last nobody does.
  const shownRound = round === 0 ? 1 : round;
  const at = groupsAt(session, shownRound);
  const after = groupsAt(session, shownRound < stations.plan.stations ? shownRound + 1 : 0);
  const { groups } = session.circuit;
  const nameOf = (id: string): string =>
    bundle.athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '?';
  const errorS = serverTimeErrorS();
  return (
    <main className={isChanging ? 'clock-page changing' : 'clock-page'}>
      <header className="clock-head">
        <div>
          <div className="quiet">
            <Link to={`/run/${session.id}`}>Field screen</Link> · {session.title}
          </div>
          <h1 aria-live="polite">{head}</h1>
        </div>
        <div className="clock-left">
          <div className="quiet">{isChanging ? 'next round in' : 'change in'}</div>
          <div className="figure" role="timer">
            {asClock(left)}
          </div>
        </div>
      </header>
      <ul className="station-cards">
        {at.map(({ setId, group }, i) => {
          const set = run.sets.find(({ set: { id } }) => id === setId)!;
          const coming = after[i]?.group ?? null;
          return (
            <StationCard
              key={setId}
              number={i + 1}
              at={set}
              log={run.log}
              group={group === null ? null : groups[group]!}
              next={coming === null ? null : groups[coming]!.name}
              nameOf={nameOf}
            />
          );
        })}
      </ul>
      <Rounds session={session} clock={clock} />
      <footer className="clock-foot">
        <label className="clock-heard">
          <input
            type="checkbox"
            checked={isHeard}
            onChange={(event) => setHeard(event.target.checked)}
          />{' '}
          Heard from this device: last minute, change, ready, go.
        </label>
        <div className="quiet small-text">
          {errorS === null
            ? 'Without the server this device goes by its own clock.'
            : `Every phone keeps the same time, this one to within ${Math.max(0.01, errorS).toFixed(2)} s.`}
          {clock.waiting > 0 && ` ${counted(clock.waiting, 'press', 'presses')} not sent yet.`}
        </div>
        <div className="clock-acts">
          <Acts clock={clock} />
        </div>
      </footer>
    </main>
  );
};

/** The clock of a session's groups, for a laptop beside the court: who is where, what time is left. */
export const Clock = () => {
  const { sessionId = '' } = useParams();
  const bundle = useBundle(sessionId);
  return (
    <Loaded query={bundle} what="Getting the session …">
      {(found) => {
        const { session } = found;
        return session.circuit && stationsOf(session) ? (
          <GroupClock bundle={found} session={{ ...session, circuit: session.circuit }} />
        ) : (
          <Empty title="No groups go round in this session.">
            <Link className="btn btn-primary" to={`/sessions/${sessionId}`}>
              Make groups
            </Link>
          </Empty>
        );
      }}
    </Loaded>
  );
};
