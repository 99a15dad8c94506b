import type { Movement } from '@gravek/contract/movement';
import type { FaultState } from '@gravek/core/cue/cueState';
import { faultOf } from '@gravek/library/movement/byCode';
import { toldTo } from '@gravek/library/movement/sides';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { dayName } from '../controls/dates';
import { counted } from '@gravek/core/words';
import { Empty } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { StateMark } from '../drawing/StateMark';
import { InSquad, type SquadLine } from '../parts/ledger/InSquad';
import { useMember } from '../member/member';

const STATES = ['cleared', 'clearing', 'stuck', 'back', 'steady'] as const;

/** Of each fault, for how many it stands how; those that most had first. */
const ByFault = ({ movement, lines }: { movement: Movement; lines: SquadLine[] }) => {
  const rows = movement.faults
    .map((fault) => {
      const states = lines.flatMap(
        (line) => line.faults.find((other) => other.code === fault.code)?.state ?? [],
      );
      return { fault, states };
    })
    .filter(({ states }) => states.length > 0)
    .sort((a, b) => b.states.length - a.states.length);
  const count = (states: readonly FaultState[], state: FaultState): number =>
    states.filter((other) => other === state).length;
  return (
    <section aria-label="Fault by fault" className="sheet-part">
      <h2>Fault by fault, athletes</h2>
      <div className="table-scroll" tabIndex={0} role="group" aria-label="States of faults">
        <table className="grid-table">
          <thead>
            <tr>
              <th>Fault</th>
              {STATES.map((state) => (
                <th key={state} className="num">
                  <StateMark state={state} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ fault, states }) => (
              <tr key={fault.code}>
                <td>{fault.name}</td>
                {STATES.map((state) => (
                  <td key={state} className="num">
                    {count(states, state) || <span className="quiet">·</span>}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
};

const ByAthlete = ({ movement, lines }: { movement: Movement; lines: SquadLine[] }) => {
  const faultName = (line: SquadLine, state: FaultState): string =>
    line.faults
      .filter((fault) => fault.state === state)
      .map((fault) => faultOf(movement, fault.code)?.name ?? fault.code)
      .join(', ');
  return (
    <section aria-label="Athlete by athlete" className="sheet-part">
      <h2>Athlete by athlete</h2>
      <div
        className="table-scroll"
        tabIndex={0}
        role="group"
        aria-label="Athletes, cleared faults and cues"
      >
        <table className="grid-table">
          <thead>
            <tr>
              <th>Athlete</th>
              <th className="num">Sessions</th>
              <th className="num">Reps</th>
              <th>Cleared</th>
              <th>The one cue now</th>
              <th>Since</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => {
              const { athlete, cue } = line;
              const fault = cue && faultOf(toldTo(movement, athlete), cue.fault);
              const state = line.faults.find((fault) => fault.code === cue?.fault)?.state;
              return (
                <tr key={athlete.id}>
                  <td className="text-nowrap">{athlete.name}</td>
                  <td className="num">{line.sessions}</td>
                  <td className="num">{line.reps}</td>
                  <td>{faultName(line, 'cleared') || <span className="quiet">none yet</span>}</td>
                  <td>
                    {fault ? (
                      <>
                        {fault.cue} {state && <StateMark state={state} />}
                      </>
                    ) : (
                      <span className="quiet">none</span>
                    )}
                  </td>
                  <td className="text-nowrap">
                    {cue && (cue.since ? dayName(cue.since) : <span className="quiet">next</span>)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
};

const Summary = ({
  movement,
  squad,
  lines: unsorted,
}: {
  movement: Movement;
  squad: string | null;
  lines: SquadLine[];
}) => {
  const lines = [...unsorted].sort((a, b) => a.athlete.name.localeCompare(b.athlete.name));
  const reps = lines.reduce((sum, line) => sum + line.reps, 0);
  const count = (state: FaultState): number =>
    lines.flatMap((line) => line.faults.filter((fault) => fault.state === state)).length;
  return (
    <>
      <p className="mt-2">
        <strong>
          {movement.name}
          {squad !== null && `, ${squad}`}
        </strong>
        : {counted(lines.length, 'athlete')}, {counted(reps, 'rep')}. Faults cleared:{' '}
        {count('cleared')}; clearing: {count('clearing')}; stuck: {count('stuck')}.
      </p>
      <ByFault movement={movement} lines={lines} />
      <ByAthlete movement={movement} lines={lines} />
    </>
  );
};

/** What a season came to in one movement, for a squad; to print. */
export const SeasonSummary = () => {
  const { club, today } = useMember();
  return (
    <>
      <PageHead over={`${club.name}, ${dayName(today)}`} title="The season so far">
        <Link className="btn btn-outline-dark no-print" to="/faults">
          Back
        </Link>
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      <InSquad
        empty={<Empty title="No reps yet.">Run a session; what comes of it stands here.</Empty>}
      >
        {({ choice, ...shown }) => (
          <div className="athlete-sheet">
            {choice}
            <Summary {...shown} />
          </div>
        )}
      </InSquad>
    </>
  );
};
