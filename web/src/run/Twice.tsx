import { loggedTwice } from '@gravek/core/repLog';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import type { PhoneRow } from './useRun';

const said = (row: PhoneRow): string =>
  [
    row.outcome === 'clean' ? 'clean' : 'a fault',
    ...(row.made === null ? [] : [row.made ? 'made' : 'missed']),
  ].join(', ');

/** Turns that this phone logged and another one too: it counts once, and the coach says which. */
export const Twice = ({
  log,
  device,
  nameOf,
  onDrop,
}: {
  log: readonly PhoneRow[];
  device: string;
  nameOf: (athleteId: string) => string;
  /** takes a row back */
  onDrop: (row: PhoneRow) => void;
}) => {
  const twice = useMemo(
    () =>
      loggedTwice(log).filter(
        ({ stands, other }) => other.device === device && stands.device !== device,
      ),
    [log, device],
  );
  const [first] = twice;
  if (!first) return null;
  const { stands, other } = first;
  return (
    <div className="note small-text twice" role="alert">
      {nameOf(other.athleteId)}, set {other.set} rep {other.rep}, was logged by another phone too:{' '}
      {said(stands)} there, {said(other)} here. It counts once, as there.
      <div className="row-line mt-1">
        <Button size="sm" variant="outline-dark" onClick={() => onDrop(other)}>
          Leave it so
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => onDrop(stands)}>
          Count mine
        </Button>
        {twice.length > 1 && <span>and {twice.length - 1} more</span>}
      </div>
    </div>
  );
};
