import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { ApiProblem, sentenceOf } from '../api/client';

/** What the second of two who saved the same row is shown, and what stands there now. */
export const useConflict = <T extends { version: number }>(
  takeTheirs: (theirs: T) => void,
  keepMine: (version: number) => void,
) => {
  const [problem, setProblem] = useState<string | null>(null);
  const [theirs, setTheirs] = useState<T | null>(null);
  const clear = (): void => {
    setProblem(null);
    setTheirs(null);
  };
  return {
    clear,
    /** something is wrong that is no conflict */
    say: setProblem,
    /** shows what saving has thrown */
    show: (error: unknown): void => {
      setProblem(sentenceOf(error));
      const changed = error instanceof ApiProblem && error.status === 409;
      setTheirs(changed ? (error.problem.current as T) : null);
    },
    shown: {
      problem,
      ...(theirs && {
        onTheirs: () => {
          takeTheirs(theirs);
          clear();
        },
        onMine: () => {
          keepMine(theirs.version);
          setTheirs(null);
          setProblem('Yours stays; press Save to put it over theirs.');
        },
      }),
    },
  };
};

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
