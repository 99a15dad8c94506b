import { USUAL_BRAKING_MPS2 } from '@gravek/core/closingSpeed';
import type { CurrentFigures } from '@gravek/core/measures';
import type { StraightPlan } from '@gravek/core/solveStraight';
import type { LengthStyle } from '@gravek/core/units';
import { Length, Speed } from '../../controls/Figure';

/** How fast the close may be, so that its speed can be gone within the zone; never shortened earlier. */
export const Brake = ({
  brake,
  asked,
  fraction,
  limit,
  paceM,
  style,
}: {
  brake: NonNullable<StraightPlan['brake']>;
  asked: number;
  /** of full speed, as it is run */
  fraction: number;
  /** the athlete's measured stop; a usual one where there is none */
  limit: CurrentFigures['stop'];
  /** the athlete's own walking pace */
  paceM: number;
  style: LengthStyle;
}) => {
  const limitMps2 = limit?.mean ?? USUAL_BRAKING_MPS2;
  const held = fraction < asked - 1e-9;
  return (
    <div className={held ? 'note note-wrong my-2' : 'note my-2'} role="status">
      {held && <strong>As fast as asked it cannot be run. </strong>}
      Closes at <Speed mps={brake.entrySpeedMps} unit={style.unit} />,{' '}
      <strong>{Math.round(fraction * 100)} % of full</strong>, and shortens over{' '}
      <Length m={brake.brakeZoneM} style={style} />,{' '}
      <span className="figure">{(brake.brakeZoneM / paceM).toFixed(1)}</span> own paces.{' '}
      {held
        ? `Faster could not be braked there: ${limit ? 'the measured limit is' : 'a usual limit is'} ${limitMps2.toFixed(1)} m/s². A slower close is the answer, not an earlier one.`
        : `That is within ${limit ? 'the measured' : 'a usual'} limit of ${limitMps2.toFixed(1)} m/s².`}
    </div>
  );
};
