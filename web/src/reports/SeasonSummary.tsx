import type { Athlete, Movement, SquadFaults } from '@gravek/contract';
import type { FaultState } from '@gravek/core';
import { faultOf, toldTo } from '@gravek/library';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useAthletes, useSquadFaults } from '../api/queries';
import { counted, dayName } from '../controls/dates';
import { Empty, Loaded } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { Segments } from '../controls/Segments';
import { StateMark } from '../drawing/StateMark';
import { useMember } from '../member/member';
import { useCatalogue } from '../movements/useCatalogue';

const ALL = 'All';
const STATES = ['cleared', 'clearing', 'stuck', 'back', 'steady'] as const;

type Line = SquadFaults['items'][number] & { athlete: Athlete };

/** Of each fault, for how many it stands how; those that most had first. */
const ByFault = ({ movement, lines }: { movement: Movement; lines: Line[] }) => {
  const rows = movement.faults
    .map((fault) => {
      const states = lines.flatMap(
        (line) => line.faults.find((one) => one.code === fault.code)?.state ?? [],
      );
      return { fault, states };
    })
    .filter(({ states }) => states.length > 0)
    .sort((a, b) => b.states.length - a.states.length);
  const count = (states: readonly FaultState[], state: FaultState): number =>
    states.filter((one) => one === state).length;
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

const ByAthlete = ({ movement, lines }: { movement: Movement; lines: Line[] }) => {
  const named = (line: Line, state: FaultState): string =>
    line.faults
      .filter((one) => one.state === state)
      .map((one) => faultOf(movement, one.code)?.name ?? one.code)
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
              const state = line.faults.find((one) => one.code === cue?.fault)?.state;
              return (
                <tr key={athlete.id}>
                  <td className="text-nowrap">{athlete.name}</td>
                  <td className="num">{line.sessions}</td>
                  <td className="num">{line.reps}</td>
                  <td>{named(line, 'cleared') || <span className="quiet">none yet</span>}</td>
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
  athletes,
  seen,
  onMovement,
}: {
  athletes: Athlete[];
  seen: SquadFaults & { movement: string };
  onMovement: (code: string) => void;
}) => {
  const catalogue = useCatalogue();
  const [squad, setSquad] = useState(ALL);
  const movement = catalogue.of(seen.movement);
  const people = new Map(athletes.map((one) => [one.id, one]));
  const all = seen.items.flatMap((item): Line[] => {
    const athlete = people.get(item.athleteId);
    return athlete ? [{ ...item, athlete }] : [];
  });
  const squads = [ALL, ...new Set(all.map(({ athlete }) => athlete.squad))];
  const lines = all
    .filter(({ athlete }) => squad === ALL || athlete.squad === squad)
    .sort((a, b) => a.athlete.name.localeCompare(b.athlete.name));
  const sum = (of: (line: Line) => number): number =>
    lines.reduce((total, line) => total + of(line), 0);
  return (
    <div className="athlete-sheet">
      <div className="row-line no-print mb-2">
        <Segments
          label="Squad"
          options={squads.map((value) => ({ value, label: value }))}
          value={squad}
          onChoose={setSquad}
        />
        <Form.Select
          aria-label="Movement"
          style={{ width: 'auto' }}
          value={seen.movement}
          onChange={(event) => onMovement(event.target.value)}
        >
          {seen.movements.map((code) => (
            <option key={code} value={code}>
              {catalogue.of(code).name}
            </option>
          ))}
        </Form.Select>
      </div>
      <p>
        <strong>
          {movement.name}
          {squad !== ALL && `, ${squad}`}
        </strong>
        : {counted(lines.length, 'athlete')},{' '}
        {counted(
          sum((line) => line.reps),
          'rep',
        )}
        . Faults cleared:{' '}
        {sum((line) => line.faults.filter((one) => one.state === 'cleared').length)}; clearing:{' '}
        {sum((line) => line.faults.filter((one) => one.state === 'clearing').length)}; stuck:{' '}
        {sum((line) => line.faults.filter((one) => one.state === 'stuck').length)}.
      </p>
      <ByFault movement={movement} lines={lines} />
      <ByAthlete movement={movement} lines={lines} />
    </div>
  );
};

/** What a season came to in one movement, for a squad; to print. */
export const SeasonSummary = () => {
  const { club, today } = useMember();
  const [movement, setMovement] = useState<string | null>(null);
  const athletes = useAthletes();
  const squad = useSquadFaults(movement);
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
      <Loaded query={athletes} what="Getting the athletes …">
        {(people) => (
          <Loaded query={squad} what="Working out the rates …">
            {(seen) =>
              seen.movement === null ? (
                <Empty title="No reps yet.">Run a session; what comes of it stands here.</Empty>
              ) : (
                <Summary
                  athletes={people}
                  seen={{ ...seen, movement: seen.movement }}
                  onMovement={setMovement}
                />
              )
            }
          </Loaded>
        )}
      </Loaded>
    </>
  );
};
