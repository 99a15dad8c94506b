import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import { rotationAxis } from '@gravek/library/session/rotationAxis';
import type { SetTime } from '@gravek/library/session/sessionTime';

/** More rows than this are told, not drawn: they go on in the same order. */
const MOST_ROWS = 14;

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;

/** Once round: who performs, who does what else, who waits, on a time axis. */
export const RotationView = ({
  set,
  time,
  athletes,
}: {
  set: DrillSet;
  time: SetTime | null;
  athletes: readonly Athlete[];
}) => {
  const axis = rotationAxis(set, time);
  if (!axis) return null;
  const { roles, rows, shifts, shiftS } = axis;
  const nameOf = (id: string): string =>
    athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '?';
  const every = Math.ceil(shifts / 8);
  return (
    <figure className="rotation" aria-label="Once round">
      <figcaption className="small-text quiet">
        Once round in <span className="figure">{clock(shifts * shiftS)}</span>, then again.{' '}
        {roles.map((role, i) => (
          <span key={role} className="rotation-key">
            <span className={`part part-${i}`} /> {role}
          </span>
        ))}
        <span className="rotation-key">
          <span className="part part-none" /> waits
        </span>
      </figcaption>
      <div className="rotation-row small-text quiet" aria-hidden>
        <span />
        {Array.from({ length: shifts }, (_, i) => (
          <span key={i} className="figure">
            {i % every === 0 ? clock(i * shiftS) : ''}
          </span>
        ))}
      </div>
      {rows.slice(0, MOST_ROWS).map(({ athleteId, parts }) => (
        <div key={athleteId} className="rotation-row">
          <span className="text-truncate small-text">{nameOf(athleteId)}</span>
          {parts.map((role, i) => (
            <span
              key={i}
              className={`part part-${role ?? 'none'}`}
              role="img"
              aria-label={`${nameOf(athleteId)} at ${clock(i * shiftS)}: ${role === null ? 'waits' : roles[role]!}`}
            />
          ))}
        </div>
      ))}
      {rows.length > MOST_ROWS && (
        <div className="small-text quiet">and {rows.length - MOST_ROWS} more in the same order</div>
      )}
    </figure>
  );
};
