import { inLogOrder, isLeaving, standing } from '@gravek/core/session/repLog';
import { variantFrom } from '@gravek/core/session/variants';
import { faultOf } from '@gravek/library/movement/byCode';
import type { FieldRow } from '@gravek/library/field/log';
import type { SetRun } from '@gravek/library/field/sets';
import { clock } from '../controls/clock';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';

/** So many of the last turns can be taken back one by one. */
const LAST = 8;

/** What came of a turn, in a few words. */
const seenWords = (row: FieldRow, at: SetRun): string => {
  const movement = at.movementOf(variantFrom(row.variant, row.side));
  const faults = row.faults.map(
    (fault) => (movement && faultOf(movement, fault)?.name.toLowerCase()) ?? fault,
  );
  const outcome = {
    ...{ clean: 'clean', fault: faults.join(', '), again: 'once more', skip: 'skipped' },
    ...{ done: 'done', in: 'came late', out: 'out', pain: 'pain', void: '' },
  }[row.outcome];
  return [
    `rep ${row.rep}`,
    ...(row.made === null ? [] : [row.made ? 'made' : 'missed']),
    ...(row.heldS === null ? [] : [`${row.heldS.toFixed(1)} s`]),
    ...(row.touchS === null
      ? []
      : [`${row.touchS.length} touches in ${row.touchS.at(-1)!.toFixed(1)} s`]),
    ...(row.ranS === null ? [] : [`run in ${clock(Math.round(row.ranS))}`]),
    ...(row.made === null || row.outcome === 'fault' ? [outcome] : []),
  ].join(', ');
};

/** Everybody of a drill set: who goes next, who is out for today, who comes back; what was logged last. */
export const People = ({
  at,
  log,
  device,
  others,
  onJoin,
  onForward,
  onOut,
  onBack,
  onClose,
}: {
  at: SetRun;
  log: readonly FieldRow[];
  /** what this phone calls itself */
  device: string;
  /** those of the club who are not in it */
  others: readonly { id: string; name: string }[];
  onJoin: (athleteId: string) => void;
  onForward: (athleteId: string) => void;
  onOut: (athleteId: string) => void;
  /** takes a row back: of a turn, or one with which somebody has left */
  onBack: (row: FieldRow) => void;
  onClose: () => void;
}) => {
  const { set, people, state, away, elsewhere, left, athleteOf } = at;
  const last = inLogOrder(standing(log.filter((row) => row.drillSetId === set.id)))
    .filter((row) => !isLeaving(row))
    .slice(-LAST)
    .reverse();
  return (
    <>
      <div className="run-body">
        <ul className="list-plain run-people" aria-label="Everybody of this drill set">
          {people.map((id) => {
            const { name } = athleteOf(id);
            const open = state.open.filter((turn) => turn.athleteId === id).length;
            const row = left.get(id);
            const why = away.get(id) ?? elsewhere.get(id);
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
        {last.length > 0 && (
          <>
            <h2>Logged last</h2>
            <ul className="list-plain run-people" aria-label="Logged last">
              {last.map((row) => {
                const { name } = athleteOf(row.athleteId);
                return (
                  <li key={row.id} className="row-line">
                    <span className="run-person">
                      {name}
                      <span className="quiet small-text d-block">
                        {seenWords(row, at)}
                        {row.device !== device && ', on another phone'}
                      </span>
                    </span>
                    <Button
                      size="sm"
                      variant="outline-dark"
                      aria-label={`Take back ${name}, rep ${row.rep}`}
                      onClick={() => onBack(row)}
                    >
                      Take back
                    </Button>
                  </li>
                );
              })}
            </ul>
          </>
        )}
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
};
