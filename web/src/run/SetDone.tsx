import { isLeaving, standing, wasRun } from '@gravek/core/session/repLog';
import { keptVariants } from '@gravek/core/session/variants';
import { counted } from '@gravek/core/words';
import type { RunBundle } from '@gravek/contract/run';
import type { FieldRow } from '@gravek/library/field/log';
import type { SetRun } from '@gravek/library/field/sets';
import { spareTime } from '@gravek/library/field/spareTime';
import type { ReactNode } from 'react';
import { wayParts } from '@gravek/core/units';
import { clock } from '../controls/clock';
import { minutes } from '../controls/dates';
import { Figure } from '../controls/Figure';
import { useLengthStyle } from '../member/member';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';

export const SetDone = ({
  at: { set, base, people, athleteOf, away, elsewhere, stillToMake },
  log,
  twice,
  bundle,
  next,
  onNext,
  onUndo,
  onPeople,
}: {
  at: SetRun;
  log: readonly FieldRow[];
  /** what two phones have seen differently */
  twice: ReactNode;
  bundle: RunBundle;
  next: SetRun | undefined;
  onNext: () => void;
  onUndo: (() => void) | null;
  onPeople: () => void;
}) => {
  const { unit } = useLengthStyle();
  const pacerOf = (work: Pick<SetRun, 'set'>) =>
    bundle.athletes.find(({ id, body }) => body && work.set.athleteIds.includes(id))?.body ??
    undefined;
  const spare = spareTime({ set, base }, next, log, { pacerOf, lanes: bundle.lanes });
  const rows = standing(log).filter((rep) => rep.drillSetId === set.id);
  /** nobody can do it, and nobody has */
  const nobody = rows.length === 0 && people.every((id) => away.has(id));
  const title =
    people.length === 0
      ? 'Nobody is in this set'
      : people.every((id) => elsewhere.has(id))
        ? 'Nobody is at this station'
        : nobody
          ? 'Everybody is held back'
          : keptVariants(set).length === 0
            ? 'Every combination is struck out'
            : 'Drill set done';
  return (
    <div className="run-body">
      <h1>{title}</h1>
      {people.length === 0 && (
        <p>Put athletes on it in the session, or let in whoever comes late.</p>
      )}
      {nobody && people.length > 0 && <p>{[...away.values()].join(' ')}</p>}
      {spare && (
        <p className="mb-0">
          Done {minutes(spare.seconds)} early
          {next && spare.moreReps > 0 && (
            <>
              : there is time for {counted(spare.moreReps, 'more rep', 'more reps')} each of{' '}
              {next.base?.name}
            </>
          )}
          .
        </p>
      )}
      {twice}
      <div className="row-line">
        {next ? (
          <Button onClick={onNext}>Next drill set</Button>
        ) : (
          <Link className="btn btn-primary" to="/faults">
            See the faults
          </Link>
        )}
        {onUndo && (
          <Button variant="outline-dark" onClick={onUndo}>
            Undo the last
          </Button>
        )}
        <Button variant="outline-dark" onClick={onPeople}>
          Athletes
        </Button>
        <Link className="btn btn-outline-dark" to="/run">
          Finish
        </Link>
      </div>
      {/* What was done stands where the answers were: a tap too many changes nothing. */}
      <ul className="list-plain run-summary" aria-label="What was done">
        {people.map((id) => {
          const athleteReps = rows.filter((rep) => rep.athleteId === id);
          const ran = athleteReps.filter(wasRun);
          const clean = ran.filter((rep) => rep.outcome === 'clean').length;
          const row = athleteReps.find(isLeaving);
          const made = ran.filter((rep) => rep.made).length;
          const missing = ran.length > 0 ? stillToMake(id, set.sets) : [];
          const heldTimes = ran.flatMap((rep) => rep.heldS ?? []);
          const rounds = ran.flatMap((rep) => (rep.touchS?.length ? [rep.touchS.at(-1)!] : []));
          const ranM = ran.reduce((sum, rep) => sum + (rep.ranM ?? 0), 0);
          const ranS = ran.reduce((sum, rep) => sum + (rep.ranS ?? 0), 0);
          return (
            <li key={id} className="row-line">
              <span className="run-person">
                {athleteOf(id).name}
                {row && (
                  <span className="quiet small-text d-block">
                    {row.outcome === 'pain' ? 'stopped by pain' : 'out for today'}
                  </span>
                )}
                {missing.length > 0 && (
                  <span className="quiet small-text d-block">
                    left: {missing.map(({ what }) => what).join(' · ')}
                  </span>
                )}
              </span>
              {set.target === 'makes' && (
                <span className="ms-auto figure">
                  {made}
                  <span className="unit"> made</span>
                </span>
              )}
              {heldTimes.length > 0 && (
                <span className="ms-auto figure">
                  {Math.max(...heldTimes).toFixed(1)}
                  <span className="unit"> s at best</span>
                </span>
              )}
              {rounds.length > 0 && (
                <span className="ms-auto figure">
                  {rounds[0]!.toFixed(1)}
                  <span className="unit"> s, last round </span>
                  {rounds.at(-1)!.toFixed(1)}
                  <span className="unit"> s</span>
                </span>
              )}
              {(ranM > 0 || ranS > 0) && (
                <span className="ms-auto">
                  {ranM > 0 && <Figure parts={[wayParts(ranM, unit)]} />}
                  {ranS > 0 && (
                    <span className="figure">
                      {' '}
                      {clock(Math.round(ranS))}
                      <span className="unit"> min</span>
                    </span>
                  )}
                </span>
              )}
              <span className="ms-auto figure">
                {clean}
                <span className="unit"> clean of </span>
                {ran.length}
              </span>
            </li>
          );
        })}
      </ul>
    </div>
  );
};
