import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { PhoneRow, SetRun } from './useRun';

/** Everybody of a drill set: who goes next, who is out for today, who comes back. */
export const People = ({
  at: { people, state, away, left, athleteOf },
  others,
  onJoin,
  onForward,
  onOut,
  onBack,
  onClose,
}: {
  at: SetRun;
  /** those of the club who are not in it */
  others: readonly { id: string; name: string }[];
  onJoin: (athleteId: string) => void;
  onForward: (athleteId: string) => void;
  onOut: (athleteId: string) => void;
  /** takes back the row with which somebody has left */
  onBack: (row: PhoneRow) => void;
  onClose: () => void;
}) => (
  <>
    <div className="run-body">
      <ul className="list-plain run-people" aria-label="Everybody of this drill set">
        {people.map((id) => {
          const { name } = athleteOf(id);
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
      {others.length > 0 && (
        <Form.Select
          aria-label="Somebody comes late"
          value=""
          onChange={(event) => onJoin(event.target.value)}
        >
          <option value="">Somebody comes late …</option>
          {others.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Form.Select>
      )}
    </div>
    <div className="run-answers">
      <Button variant="outline-dark" size="lg" onClick={onClose}>
        Back to the turn
      </Button>
    </div>
  </>
);
