import { toldDifferently } from '@gravek/core/session/loggedTwice';
import type { Movement } from '@gravek/contract/movement';
import { faultOf } from '@gravek/library/movement/byCode';
import { useMemo } from 'react';
import type { FieldRow } from '@gravek/library/field/log';
import Button from 'react-bootstrap/Button';

/**
 * Reps of which this phone and another tell different things, as a list at the end of a set: each counts once,
 * as there, unless the coach says otherwise. Only the phone whose row does not stand decides, so that two
 * coaches never take back each other's.
 */
export const Twice = ({
  log,
  device,
  nameOf,
  movementOf,
  onDrop,
}: {
  log: readonly FieldRow[];
  device: string;
  nameOf: (athleteId: string) => string;
  movementOf: (row: FieldRow) => Movement | null;
  /** takes rows back */
  onDrop: (rows: readonly FieldRow[]) => void;
}) => {
  const twice = useMemo(
    () => toldDifferently(log).filter(({ other }) => other.device === device),
    [log, device],
  );
  if (twice.length === 0) return null;
  const said = (row: FieldRow): string => {
    const movement = movementOf(row);
    const faults = row.faults.map((code) => (movement && faultOf(movement, code)?.name) ?? code);
    return [
      faults.length > 0 ? faults.join(', ') : row.outcome === 'clean' ? 'clean' : 'held too short',
      ...(row.made === null ? [] : [row.made ? 'made' : 'missed']),
    ].join(', ');
  };
  return (
    <section className="twice" aria-label="Seen differently">
      <h2 className="h6">
        {twice.length === 1 ? 'One rep was' : `${twice.length} reps were`} seen differently on
        another phone
      </h2>
      <p className="quiet small-text">Each counts once, as there, until you choose.</p>
      <ul className="list-plain">
        {twice.map(({ stands, other }) => (
          <li key={other.id}>
            <strong>{nameOf(other.athleteId)}</strong>, set {other.set} rep {other.rep}
            <div className="row-line mt-1">
              <Button size="sm" variant="outline-dark" onClick={() => onDrop([other])}>
                There: {said(stands)}
              </Button>
              <Button size="sm" variant="outline-dark" onClick={() => onDrop([stands])}>
                Here: {said(other)}
              </Button>
            </div>
          </li>
        ))}
      </ul>
      {twice.length > 1 && (
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() => onDrop(twice.map(({ other }) => other))}
        >
          All as there
        </Button>
      )}
    </section>
  );
};
