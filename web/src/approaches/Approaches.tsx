import { formatLength, type LengthStyle } from '@gravek/core';
import { isSequence, straightOf, type Approach } from '@gravek/contract';
import { outlineOf } from '@gravek/library';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useApproaches, useAthletes } from '../api/queries';
import { usePutAway } from '../api/usePutAway';
import { useLengthStyle, useMayPlan } from '../app/member';
import { PageHead } from '../app/Shell';
import { Empty, Loaded } from '../controls/Notice';
import { useCatalogue } from '../movements/useCatalogue';

const startMarks = (approach: Approach, style: LengthStyle): string => {
  const marks = approach.solved.flatMap((one) => {
    const result = straightOf(one);
    return result?.feasible ? [result.distanceM] : [];
  });
  if (marks.length === 0) return '–';
  const [low, high] = [Math.min(...marks), Math.max(...marks)];
  const write = (m: number): string => formatLength(m, style);
  return high - low < 0.005 ? write(low) : `${write(low)} – ${write(high)}`;
};

const List = ({ list }: { list: Approach[] }) => {
  const [away, setAway] = useState(false);
  const { unit } = useLengthStyle();
  const style: LengthStyle = { unit: unit === 'shoes' ? 'metric' : unit };
  const mayPlan = useMayPlan();
  const athletes = useAthletes().data ?? [];
  const putAway = usePutAway('approaches');
  const catalogue = useCatalogue();
  const nameOf = new Map(athletes.map((one) => [one.id, one.name]));
  const shown = list.filter((one) => one.archived === away);
  return (
    <div className="stack">
      <Form.Check
        type="switch"
        id="away"
        label="Put away"
        checked={away}
        onChange={(event) => setAway(event.target.checked)}
      />
      {shown.length === 0 ? (
        <Empty title={away ? 'Nothing is put away.' : 'No approach yet.'}>
          {!away && 'Plan a run-up for an athlete; it can then be run in a session.'}
        </Empty>
      ) : (
        <div className="table-scroll">
          <table className="grid-table">
            <thead>
              <tr>
                <th>Approach</th>
                <th>Movement</th>
                <th className="num">Steps</th>
                <th>Start mark</th>
                <th>Athletes</th>
                <th>Saved</th>
                {away && mayPlan && <th />}
              </tr>
            </thead>
            <tbody>
              {shown.map((one) => {
                const misfit = one.solved.filter(({ result }) => !outlineOf(result));
                const { choices } = one;
                const steps = isSequence(choices)
                  ? one.solved[0] && outlineOf(one.solved[0].result)?.steps
                  : choices.steps;
                return (
                  <tr key={one.id}>
                    <td>
                      <Link className="row-link" to={`/approaches/${one.id}`}>
                        {one.name}
                      </Link>
                    </td>
                    <td>
                      {catalogue.of(one.movement).name}
                      {!isSequence(choices) && (
                        <span className="quiet small-text">, to the {choices.target}</span>
                      )}
                    </td>
                    <td className="num">
                      <span className="figure">{steps ?? '–'}</span>
                    </td>
                    <td>
                      <span className="figure">{startMarks(one, style)}</span>{' '}
                      {!isSequence(choices) && (
                        <span className="quiet small-text">
                          {choices.distanceM === null ? 'each their own' : 'fixed'}
                        </span>
                      )}
                    </td>
                    <td>
                      {one.athleteIds.map((id) => nameOf.get(id)?.split(' ')[0]).join(', ')}
                      {misfit.length > 0 && (
                        <div className="field-message">
                          does not fit{' '}
                          {misfit.map(({ athleteId }) => nameOf.get(athleteId)).join(', ')}
                        </div>
                      )}
                    </td>
                    <td className="quiet">{one.savedAt.slice(0, 10)}</td>
                    {away && mayPlan && (
                      <td>
                        <button
                          type="button"
                          className="btn btn-sm btn-outline-dark"
                          onClick={() =>
                            void putAway(`/approaches/${one.id}`, `${one.name} is back.`, false)
                          }
                        >
                          Bring back
                        </button>
                      </td>
                    )}
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
};

export const Approaches = () => {
  const approaches = useApproaches();
  const mayPlan = useMayPlan();
  return (
    <>
      <PageHead title="Approaches" over="How many steps, how long, from where">
        {mayPlan && (
          <>
            <Link className="btn btn-outline-dark" to="/movements">
              Plan another movement
            </Link>
            <Link className="btn btn-primary" to="/approaches/new">
              Plan a run-up
            </Link>
          </>
        )}
      </PageHead>
      <Loaded query={approaches} what="Getting the approaches …">
        {(list) => <List list={list} />}
      </Loaded>
    </>
  );
};
