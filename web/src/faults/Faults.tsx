import { LIVE_RATE, type FaultState } from '@gravek/core';
import type { Athlete, AthleteFaults, FaultStanding, SquadFaults } from '@gravek/contract';
import { faultOf, toldTo } from '@gravek/library';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useAthletes, useSquadFaults } from '../api/queries';
import { PageHead } from '../controls/PageHead';
import { Empty, Loaded } from '../controls/Notice';
import { Segments } from '../controls/Segments';
import { StateMark } from '../drawing/StateMark';
import { useCatalogue, type Catalogue } from '../movements/useCatalogue';

const ALL = 'All';
const TELLING: readonly FaultState[] = ['back', 'stuck', 'clearing'];
/** Cleared is worth telling of a fault that once mattered. */
const ONCE_MATTERED = 8;

const isQuiet = ({ rate, state, seen }: FaultStanding): boolean =>
  rate < LIVE_RATE && !TELLING.includes(state) && !(state === 'cleared' && seen >= ONCE_MATTERED);

const Cell = ({ fault }: { fault: FaultStanding | undefined }) => {
  if (!fault || isQuiet(fault)) {
    return (
      <td className="fault-cell quiet" aria-label="not live">
        ·
      </td>
    );
  }
  const { rate, state } = fault;
  return (
    <td className={`fault-cell ${rate >= LIVE_RATE ? 'live' : ''}`}>
      <span className="figure">{Math.round(rate * 100)}</span>
      <span className="unit"> %</span>
      <StateMark state={state} wordless />
    </td>
  );
};

/** Who needs the coach most: back and stuck first, then by how often. */
const need = (one: AthleteFaults): number =>
  one.faults.reduce(
    (most, { rate, state }) =>
      Math.max(most, rate + (state === 'back' ? 2 : state === 'stuck' ? 1 : 0)),
    0,
  );

const Squad = ({
  athletes,
  seen,
  catalogue,
  onMovement,
}: {
  athletes: Athlete[];
  seen: SquadFaults & { movement: string };
  catalogue: Catalogue;
  onMovement: (code: string) => void;
}) => {
  const [squad, setSquad] = useState(ALL);
  const { movement: code, movements: codes } = seen;
  const nameOf = new Map(athletes.map((athlete) => [athlete.id, athlete]));
  const squads = [ALL, ...[...new Set(athletes.map((athlete) => athlete.squad))].sort()];
  const rows = seen.items
    .filter((item) => {
      const person = nameOf.get(item.athleteId);
      return person && (squad === ALL || person.squad === squad);
    })
    .sort((a, b) => need(b) - need(a));
  const movement = catalogue.of(code);
  return (
    <div className="stack">
      <div className="row-line">
        <Segments
          label="Squad"
          options={squads.map((value) => ({ value, label: value }))}
          value={squad}
          onChoose={setSquad}
        />
        {codes.length > 1 && (
          <Form.Select
            aria-label="Movement"
            style={{ width: 'auto' }}
            value={code}
            onChange={(event) => onMovement(event.target.value)}
          >
            {codes.map((code) => (
              <option key={code} value={code}>
                {catalogue.of(code).name}
              </option>
            ))}
          </Form.Select>
        )}
        <span className="row-line ms-auto small-text">
          {(['back', 'stuck', 'clearing', 'cleared', 'steady', 'new'] as const).map((state) => (
            <StateMark key={state} state={state} />
          ))}
        </span>
      </div>
      <div className="table-scroll">
        <table className="grid-table fault-table">
          <caption className="visually-hidden">Rate and state of each fault, by athlete</caption>
          <thead>
            <tr>
              <th>Athlete</th>
              <th>Cue for the next session</th>
              {movement.faults.map((fault) => (
                <th key={fault.code} className="fault-head">
                  {fault.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.athleteId}>
                <td>
                  <Link className="row-link" to={`/athletes/${row.athleteId}`}>
                    {nameOf.get(row.athleteId)!.name}
                  </Link>
                </td>
                <td>
                  {row.cue ? (
                    faultOf(toldTo(movement, nameOf.get(row.athleteId)!), row.cue.fault)?.cue
                  ) : (
                    <span className="quiet">none needed</span>
                  )}
                </td>
                {movement.faults.map((fault) => (
                  <Cell key={fault.code} fault={row.faults.find((it) => it.code === fault.code)} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="quiet small-text">
        Figures: share of reps that show the fault, recent sessions counting more. A dot: not live,
        under {Math.round(LIVE_RATE * 100)} %.
      </p>
    </div>
  );
};

export const Faults = () => {
  const [movement, setMovement] = useState<string | null>(null);
  const athletes = useAthletes();
  const squad = useSquadFaults(movement);
  const catalogue = useCatalogue();
  return (
    <>
      <PageHead title="Faults" over="What shows, how often, and where it is going" />
      <Loaded query={athletes} what="Getting the athletes …">
        {(people) => (
          <Loaded query={squad} what="Working out the rates …">
            {(seen) =>
              seen.movement === null ? (
                <Empty title="No reps yet.">
                  Run a session; each athlete’s faults and their trend appear here.
                  <div>
                    <Link className="btn btn-primary" to="/run">
                      Run a session
                    </Link>
                  </div>
                </Empty>
              ) : (
                <Squad
                  athletes={people}
                  seen={{ ...seen, movement: seen.movement }}
                  catalogue={catalogue}
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
