import type { RunAthlete } from '@gravek/contract';
import Button from 'react-bootstrap/Button';
import type { PhoneRow, SetRun } from './useRun';

/** Everybody of a drill set: who goes next, who is out for today, who comes back. */
export const People = ({
  at: { set, state, away, left },
  athletes,
  onForward,
  onOut,
  onBack,
  onClose,
}: {
  at: SetRun;
  athletes: readonly RunAthlete[];
  onForward: (athleteId: string) => void;
  onOut: (athleteId: string) => void;
  /** takes back the row with which somebody has left */
  onBack: (row: PhoneRow) => void;
  onClose: () => void;
}) => (
  <>
    <div className="run-body">
      <ul className="list-plain run-people" aria-label="Everybody of this drill set">
        {set.athleteIds.map((id) => {
          const name = athletes.find((one) => one.id === id)?.name ?? 'An athlete';
          const open = state.open.filter((turn) => turn.athleteId === id).length;
          const row = left.get(id);
          const why = away.get(id);
          return (
            <li key={id} className="row-line">
              <span className="run-person">
                <strong>{name}</strong>
                <span className="quiet small-text d-block">
                  {why ?? (open === 0 ? 'done' : `${open} to go`)}
                </span>
              </span>
              {row && (
                <Button size="sm" variant="outline-dark" onClick={() => onBack(row)}>
                  {row.outcome === 'pain' ? 'Take the stop back' : 'Back in'}
                </Button>
              )}
              {!why && open > 0 && (
                <Button
                  size="sm"
                  variant="outline-dark"
                  disabled={state.up?.athleteId === id}
                  aria-label={`${name} now`}
                  onClick={() => onForward(id)}
                >
                  {state.up?.athleteId === id ? 'Up now' : 'Now'}
                </Button>
              )}
              {!why && (
                <Button
                  size="sm"
                  variant="outline-dark"
                  aria-label={`${name} out for today`}
                  onClick={() => onOut(id)}
                >
                  Out today
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </div>
    <div className="run-answers">
      <Button variant="outline-dark" size="lg" onClick={onClose}>
        Back to the turn
      </Button>
    </div>
  </>
);
