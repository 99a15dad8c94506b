import { LIVE_RATE, type FaultState } from '@gravek/core';
import type { Athlete, FaultCount } from '@gravek/contract';
import { faultOf, toldTo, type AthleteFaults, type FaultPicture } from '@gravek/library';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useAthletes, useFaultCounts } from '../api/queries';
import { PageHead } from '../app/Shell';
import { Empty, Loaded } from '../controls/Notice';
import { Segments } from '../controls/Segments';
import { StateMark } from '../drawing/StateMark';
import { useCatalogue, type Catalogue } from '../movements/useCatalogue';
import { usePicture } from './usePicture';

const ALL = 'All';
const TELLING: readonly FaultState[] = ['back', 'stuck', 'clearing'];
/** Cleared is worth telling of a fault that once mattered. */
const ONCE_MATTERED = 8;

const isQuiet = ({ trend, seen }: FaultPicture): boolean =>
  trend.now.rate < LIVE_RATE &&
  !TELLING.includes(trend.state) &&
  !(trend.state === 'cleared' && seen >= ONCE_MATTERED);

const Cell = ({ fault }: { fault: FaultPicture | undefined }) => {
  if (!fault || isQuiet(fault)) {
    return (
      <td className="fault-cell quiet" aria-label="not live">
        ·
      </td>
    );
  }
  const { now, state } = fault.trend;
  return (
    <td className={`fault-cell ${now.rate >= LIVE_RATE ? 'live' : ''}`}>
      <span className="figure">{Math.round(now.rate * 100)}</span>
      <span className="unit"> %</span>
      <StateMark state={state} wordless />
    </td>
  );
};

/** Who needs the coach most: back and stuck first, then by how often. */
const need = (one: AthleteFaults): number =>
  one.faults.reduce(
    (most, { trend }) =>
      Math.max(
        most,
        trend.now.rate + (trend.state === 'back' ? 2 : trend.state === 'stuck' ? 1 : 0),
      ),
    0,
  );

const Squad = ({
  athletes,
  pictures,
  catalogue,
}: {
  athletes: Athlete[];
  pictures: AthleteFaults[];
  catalogue: Catalogue;
}) => {
  const [squad, setSquad] = useState(ALL);
  const codes = [...new Set(pictures.map((one) => one.movement))];
  const [chosen, setChosen] = useState(codes[0]!);
  const code = codes.includes(chosen) ? chosen : codes[0]!;
  const nameOf = new Map(athletes.map((one) => [one.id, one]));
  const squads = [ALL, ...[...new Set(athletes.map((one) => one.squad))].sort()];
  const rows = pictures
    .filter((one) => one.movement === code)
    .filter((one) => {
      const person = nameOf.get(one.athleteId);
      return person && !person.archived && (squad === ALL || person.squad === squad);
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
            onChange={(event) => setChosen(event.target.value)}
          >
            {codes.map((one) => (
              <option key={one} value={one}>
                {catalogue.of(one).name}
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
            {rows.map((one) => (
              <tr key={one.athleteId}>
                <td>
                  <Link className="row-link" to={`/athletes/${one.athleteId}`}>
                    {nameOf.get(one.athleteId)!.name}
                  </Link>
                </td>
                <td>
                  {one.cue ? (
                    faultOf(toldTo(movement, nameOf.get(one.athleteId)!), one.cue.fault.code)?.cue
                  ) : (
                    <span className="quiet">none needed</span>
                  )}
                </td>
                {movement.faults.map((fault) => (
                  <Cell key={fault.code} fault={one.faults.find((it) => it.code === fault.code)} />
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

const WithCounts = ({ athletes, counts }: { athletes: Athlete[]; counts: FaultCount[] }) => {
  const catalogue = useCatalogue();
  const picture = usePicture(counts, catalogue.documents);
  if (counts.length === 0) {
    return (
      <Empty title="No reps yet.">
        Run a session; each athlete’s faults and their trend appear here.
        <div>
          <Link className="btn btn-primary" to="/run">
            Run a session
          </Link>
        </div>
      </Empty>
    );
  }
  return (
    <Loaded query={picture} what="Working out the rates …">
      {(pictures) => <Squad athletes={athletes} pictures={pictures} catalogue={catalogue} />}
    </Loaded>
  );
};

export const Faults = () => {
  const athletes = useAthletes();
  const counts = useFaultCounts();
  return (
    <>
      <PageHead title="Faults" over="What shows, how often, and where it is going" />
      <Loaded query={athletes} what="Getting the athletes …">
        {(people) => (
          <Loaded query={counts} what="Getting the reps …">
            {(list) => <WithCounts athletes={people} counts={list} />}
          </Loaded>
        )}
      </Loaded>
    </>
  );
};
