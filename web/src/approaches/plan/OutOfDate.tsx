import { dayIn } from '@gravek/core/days';
import { isSameModel } from '@gravek/core/runup/currentModel';
import type { StepModel } from '@gravek/core/runup/stepModel';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { Approach, SolvedApproach } from '@gravek/contract/plan';
import Button from 'react-bootstrap/Button';
import { useMember } from '../../member/member';

/** The saved solution of an athlete, when their measures have changed since. */
export const outdatedOf = (
  saved: Approach | null,
  athleteId: string,
  model: StepModel,
): SolvedApproach | null => {
  const stored = saved?.solved.find((approach) => approach.athleteId === athleteId);
  return stored && !isSameModel(stored.model, model) ? stored : null;
};

/** What moves when a plan is solved by today's measures; one press keeps that. */
export const OutOfDate = ({
  stored,
  nowM,
  target,
  style,
  onSolve,
}: {
  stored: SolvedApproach;
  /** start mark as it is now; null when it cannot be run */
  nowM: number | null;
  target: string;
  style: LengthStyle;
  /** absent where nothing may be changed */
  onSolve: (() => void) | undefined;
}) => {
  const { timeZone } = useMember().club;
  const before = stored.straight;
  const byM = before?.feasible && nowM !== null ? nowM - before.distanceM : null;
  return (
    <div className="note" role="status">
      The measures have changed since this was saved on {dayIn(timeZone, new Date(stored.solvedAt))}
      . What is drawn follows today’s
      {byM === null
        ? '.'
        : Math.abs(byM) < 0.005
          ? '; the start mark stays, the steps before it move.'
          : `: the start mark moves ${formatLength(Math.abs(byM), { ...style, small: true })} ${byM > 0 ? 'away from' : 'toward'} the ${target}.`}{' '}
      {onSolve && (
        <Button size="sm" variant="outline-dark" onClick={onSolve}>
          Keep it solved anew
        </Button>
      )}
    </div>
  );
};
