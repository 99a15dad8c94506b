import { standing, wasRun } from '@gravek/core';
import type { DrillSet, RunAthlete } from '@gravek/contract';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { PhoneRow } from './useRun';

export const SetDone = ({
  set,
  log,
  athletes,
  next,
  onNext,
  onUndo,
}: {
  set: DrillSet;
  log: readonly PhoneRow[];
  athletes: readonly RunAthlete[];
  next: DrillSet | undefined;
  onNext: () => void;
  onUndo: (() => void) | null;
}) => {
  const rows = standing(log).filter((rep) => rep.drillSetId === set.id);
  return (
    <div className="run-body">
      <h1>Drill set done</h1>
      <ul className="list-plain">
        {set.athleteIds.map((id) => {
          const own = rows.filter((rep) => rep.athleteId === id);
          const counted = own.filter(wasRun);
          const clean = counted.filter((rep) => rep.outcome === 'clean').length;
          return (
            <li key={id} className="row-line">
              <span>{athletes.find((athlete) => athlete.id === id)?.name}</span>
              <span className="ms-auto figure">
                {clean}
                <span className="unit"> clean of </span>
                {counted.length}
              </span>
            </li>
          );
        })}
      </ul>
      <div className="run-answers">
        {next ? (
          <button type="button" className="answer" onClick={onNext}>
            Next drill set
          </button>
        ) : (
          <Link
            className="answer d-grid text-decoration-none"
            style={{ placeItems: 'center' }}
            to="/faults"
          >
            See the faults
          </Link>
        )}
        <div className="others">
          {onUndo && (
            <Button variant="outline-dark" onClick={onUndo}>
              Undo the last
            </Button>
          )}
          <Link
            className="btn btn-outline-dark"
            to="/"
            style={{ minHeight: 46, lineHeight: '32px' }}
          >
            Finish
          </Link>
        </div>
      </div>
    </div>
  );
};
