import Button from 'react-bootstrap/Button';

/** Somebody else has saved first: nothing is overwritten until the coach says whose version stands. */
export const Conflict = ({
  problem,
  onTheirs,
  onMine,
}: {
  problem: string | null;
  /** absent when the problem is of another kind */
  onTheirs?: (() => void) | undefined;
  onMine?: (() => void) | undefined;
}) =>
  problem && (
    <div className="note note-wrong" role="alert">
      {problem}{' '}
      {onTheirs && (
        <Button size="sm" variant="outline-dark" className="mx-1" onClick={onTheirs}>
          Show theirs
        </Button>
      )}
      {onMine && (
        <Button size="sm" variant="outline-dark" onClick={onMine}>
          Keep mine
        </Button>
      )}
    </div>
  );

/** A draft was found again from before a reload. */
export const DraftBack = ({ onDrop }: { onDrop: () => void }) => (
  <div className="small-text quiet">
    What was typed and not saved is back.{' '}
    <Button variant="link" className="p-0 align-baseline small-text" onClick={onDrop}>
      Drop it
    </Button>
  </div>
);
