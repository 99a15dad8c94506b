import type { CurrentFigures } from '@gravek/core/measuring/measures';
import { USUAL_BRAKING_MPS2 } from '@gravek/core/runup/closingSpeed';
import { type BrakeMend, brakingOf, mendBraking } from '@gravek/core/runup/stepCounts';
import type { StraightInput, StraightPlan } from '@gravek/core/runup/straightPlan';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { StraightChoices } from '@gravek/contract/approach';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { Length, Speed } from '../../controls/Figure';

/** How fast the close may be, so that its speed can be gone within the zone; never shortened earlier. */
export const Brake = ({
  brake,
  fullFraction,
  fraction,
  limit,
  paceM,
  style,
}: {
  brake: NonNullable<StraightPlan['brake']>;
  fullFraction: number;
  /** of full speed, as it is run */
  fraction: number;
  /** the athlete's measured stop; a usual one where there is none */
  limit: CurrentFigures['stop'];
  /** the athlete's own walking pace */
  paceM: number;
  style: LengthStyle;
}) => {
  const limitMps2 = limit?.mean ?? USUAL_BRAKING_MPS2;
  const isSlower = fraction < fullFraction - 1e-9;
  return (
    <div className={isSlower ? 'note note-wrong my-2' : 'note my-2'} role="status">
      {isSlower && <strong>As fast as asked it cannot be run. </strong>}
      Closes at <Speed mps={brake.entrySpeedMps} unit={style.unit} />,{' '}
      <strong>{Math.round(fraction * 100)} % of full</strong>, and shortens over{' '}
      <Length m={brake.brakeZoneM} style={style} />,{' '}
      <span className="figure">{(brake.brakeZoneM / paceM).toFixed(1)}</span> own paces, braking at{' '}
      {brake.decelMps2.toFixed(1)} m/s² on average.{' '}
      {isSlower
        ? `Faster could not be braked there: ${limit ? 'the measured limit is' : 'a usual limit is'} ${limitMps2.toFixed(1)} m/s². A slower close is the answer, not an earlier one.`
        : `No step may brake harder than ${limitMps2.toFixed(1)} m/s², ${limit ? 'as measured' : 'a usual limit'}.`}
    </div>
  );
};

/** What would mend a plan that brakes too hard, as a press says it. */
const mendWords = (mend: BrakeMend, style: LengthStyle): string => {
  switch (mend.change) {
    case 'pin':
      return `Pin step ${mend.step} at ${formatLength(mend.lengthM, style)} instead of ${formatLength(mend.fromM, style)}`;
    case 'distance':
      return `Start from ${formatLength(mend.distanceM, style)}`;
    case 'taper':
      return `Slow down over ${mend.taperSteps} steps`;
    case 'speed':
      return `Run it at ${Math.round(mend.speedFraction * 100)} % of full`;
  }
};

const withMend = (choices: StraightChoices, mend: BrakeMend): Partial<StraightChoices> => {
  switch (mend.change) {
    case 'pin':
      return {
        pins: choices.pins.map((pin) =>
          pin.step === mend.step ? { ...pin, lengthM: mend.lengthM } : pin,
        ),
      };
    case 'distance':
      return { distanceM: null };
    case 'taper':
      return choices.ending.kind === 'short'
        ? { ending: { ...choices.ending, taperSteps: mend.taperSteps } }
        : {};
    case 'speed':
      return { speedFraction: mend.speedFraction };
  }
};

/** A step that brakes harder than the body can, whatever made it so, with the smallest change that mends it. */
export const OverBraking = ({
  plan,
  ask,
  choices,
  limitMps2,
  isMeasured,
  style,
  disabled,
  onMend,
}: {
  plan: StraightPlan;
  ask: StraightInput;
  choices: StraightChoices;
  limitMps2: number;
  isMeasured: boolean;
  style: LengthStyle;
  disabled: boolean;
  onMend: (change: Partial<StraightChoices>) => void;
}) => {
  const { demandMps2, step } = brakingOf(plan);
  const isOver = step !== null && demandMps2 > limitMps2 + 0.005;
  const mend = useMemo(
    () => (isOver ? mendBraking(ask, limitMps2) : null),
    [isOver, ask, limitMps2],
  );
  if (!isOver) return null;
  return (
    <div className="note note-wrong mt-3" role="alert">
      <strong>Step {step} brakes too hard:</strong> {demandMps2.toFixed(1)} m/s², and the{' '}
      {isMeasured ? 'measured' : 'usual'} limit is {limitMps2.toFixed(1)} m/s².
      {mend ? (
        <div className="row-line mt-2">
          <Button
            size="sm"
            variant="outline-dark"
            disabled={disabled}
            onClick={() => onMend(withMend(choices, mend))}
          >
            {mendWords(mend, style)}
          </Button>
        </div>
      ) : (
        ' No single change mends it; let pins go, or set the start mark free.'
      )}
    </div>
  );
};
