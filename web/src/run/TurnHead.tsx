import type { Turn } from '@gravek/core/session/runOrder';
import type { SetRun, StillToMake } from '@gravek/library/field/sets';
import type { TurnView } from '@gravek/library/field/turn';
import { useLengthStyle } from '../member/member';
import { Figure, Length } from '../controls/Figure';

/** What lacks makes: with how many of them, where some were made. */
const missingWords = (missing: readonly StillToMake[], amount: number): string =>
  missing.map(({ what, made }) => (made > 0 ? `${what} (${made} of ${amount})` : what)).join(' · ');

/** Who is up, what is done on which foot, and which rep it is. */
export const TurnHead = ({
  at,
  up,
  view,
  onPeople,
}: {
  at: SetRun;
  up: Turn;
  view: TurnView;
  onPeople: () => void;
}) => {
  const { set, fewer } = at;
  const { athlete, outline, movement } = view;
  const style = useLengthStyle(athlete.shoeM);
  const firstName = (id: string): string => at.athleteOf(id).name.split(' ')[0] ?? '';
  const reps = fewer.get(athlete.id) ?? set.reps;
  const made = set.target === 'makes' ? at.madeSoFar(up) : null;
  const isOnceMore = up.rep > set.reps;
  return (
    <div className="run-who">
      <div>
        <h1>
          <button type="button" className="run-name" aria-haspopup="true" onClick={onPeople}>
            {firstName(athlete.id)}
          </button>
        </h1>
        <div className="run-what">{view.what.join(' · ')}</div>
        {movement && (
          <div className="quiet">
            {outline ? (
              <>
                {outline.firstFoot} foot first
                {outline.startM !== null && (
                  <>
                    , from <Length m={outline.startM} style={style} />
                  </>
                )}
              </>
            ) : (
              'no plan that fits; run by feel'
            )}
            {view.sideSaid && (
              <>
                {' · '}
                <strong>{view.sideSaid}</strong>
              </>
            )}
            {at.isOwed(up) && <strong className="d-block">missed last time</strong>}
            {isOnceMore && <strong className="d-block">once more: missed in this round</strong>}
          </div>
        )}
      </div>
      <div className="rep-no">
        {made ? (
          <Figure parts={[{ figure: String(made.made), unit: `of ${set.amount} made` }]} />
        ) : (
          <Figure parts={[{ figure: String(up.rep), unit: `of ${reps}` }]} />
        )}
        <div className="run-next">
          {made && `try ${isOnceMore ? up.rep - set.reps : up.rep} of ${reps}, `}
          {set.sets > 1 || !made ? `set ${up.set} of ${set.sets}` : 'then on'}
        </div>
      </div>
    </div>
  );
};

/** Who comes after, who helps, and what is still to make. */
export const TurnNext = ({
  at,
  up,
  parts,
  onForward,
}: {
  at: SetRun;
  up: Turn;
  /** who does what else while this one performs, in words */
  parts: readonly string[];
  onForward: (athleteId: string) => void;
}) => {
  const { set, fewer } = at;
  const firstName = (id: string): string => at.athleteOf(id).name.split(' ')[0] ?? '';
  const made = set.target === 'makes' ? at.madeSoFar(up) : null;
  const missing = at.stillToMake(up.athleteId, up.set);
  return (
    <>
      <div className="run-next row-line">
        {at.state.next.length > 0 ? (
          <>
            then
            {at.state.next.slice(0, 3).map((id) => (
              <button
                key={id}
                type="button"
                className="run-chip"
                aria-label={`${firstName(id)} now`}
                onClick={() => onForward(id)}
              >
                {firstName(id)}
              </button>
            ))}
          </>
        ) : (
          'nobody else waits'
        )}
        {parts.length > 0 && <span className="run-parts">{parts.join(' · ')}</span>}
      </div>
      {made && missing.length > 1 && (
        <div
          className="run-next text-truncate flex-shrink-0"
          title={missingWords(missing, set.amount)}
        >
          still to make: {missingWords(missing, set.amount)}
        </div>
      )}
      {fewer.has(up.athleteId) && (
        <div className="note small-text" role="status">
          {firstName(up.athleteId)} is on reduced volume: {fewer.get(up.athleteId)} of {set.reps}{' '}
          reps.
        </div>
      )}
    </>
  );
};
