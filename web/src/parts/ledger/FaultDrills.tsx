import type { Athlete } from '@gravek/contract/athlete';
import type { Fault, Movement } from '@gravek/contract/movement';
import type { Rung } from '@gravek/contract/rungs';
import { drillFor, drillOf } from '@gravek/library/movement/byCode';
import { IntoNext } from '../intoSession/IntoNext';

/** Drills against a fault, each with the press that puts it into the next session, at the athlete's rung. */
export const FaultDrills = ({
  athlete,
  movement,
  fault,
  first: chosen = null,
  rung,
}: {
  athlete: Athlete;
  movement: Movement;
  fault: Fault;
  /** code of the drill that a coach has chosen; null for the fault's own */
  first?: string | null;
  rung: Rung | null;
}) => {
  const first = (chosen === null ? null : drillOf(movement, chosen)) ?? drillFor(movement, fault);
  const drills = movement.drills
    .filter((drill) => fault.drills.includes(drill.code) || drill.code === first?.code)
    .sort((a, b) => Number(b.code === first?.code) - Number(a.code === first?.code));
  return (
    <ul className="list-plain small-text mt-2">
      {drills.map((drill, i) => (
        <li key={drill.code} className="row-line">
          <span>
            <strong>
              {i === 0 ? 'Drill: ' : 'or: '}
              {drill.name}.
            </strong>{' '}
            <span className="quiet">{drill.how}</span>
          </span>
          <IntoNext movement={movement} drill={drill} athletes={[athlete]} rung={rung} />
        </li>
      ))}
    </ul>
  );
};
