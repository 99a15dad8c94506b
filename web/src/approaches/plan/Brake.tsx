import {
  brakeFixes,
  solveStraight,
  USUAL_BRAKING_MPS2,
  type CurrentFigures,
  type StraightInput,
} from '@gravek/core';
import { type StraightChoices } from '@gravek/contract';
import Button from 'react-bootstrap/Button';

export const Brake = ({
  ask,
  limit,
  onChoices,
}: {
  ask: StraightInput;
  /** the athlete's measured stop; a usual one where there is none */
  limit: CurrentFigures['stop'];
  onChoices: (change: Partial<StraightChoices>) => void;
}) => {
  const result = solveStraight(ask);
  if (!result.feasible || !result.brake) return null;
  const { decelMps2, entrySpeedMps, brakeZoneM } = result.brake;
  const limitMps2 = limit?.mean ?? USUAL_BRAKING_MPS2;
  const fixes = brakeFixes(ask, limitMps2);
  return (
    <div className={decelMps2 > limitMps2 ? 'note note-wrong' : 'note'}>
      From {entrySpeedMps.toFixed(1)} m/s within {brakeZoneM.toFixed(1)} m asks for{' '}
      <strong>{decelMps2.toFixed(1)} m/s²</strong> of braking;{' '}
      {limit
        ? `the measured limit is ${limitMps2.toFixed(1)}.`
        : `a usual limit is ${USUAL_BRAKING_MPS2}.`}{' '}
      {decelMps2 > limitMps2 && fixes.length === 0 && 'Shorten the approach or use more steps.'}
      {fixes.map((fix) => (
        <Button
          key={fix.change}
          size="sm"
          variant="outline-dark"
          className="me-2 mt-1"
          onClick={() =>
            onChoices(
              fix.change === 'speed'
                ? { speedFraction: fix.speedFraction }
                : {
                    ending: {
                      ...(ask.ending as Extract<StraightInput['ending'], { kind: 'short' }>),
                      taperSteps: fix.taperSteps,
                    },
                  },
            )
          }
        >
          {fix.change === 'speed'
            ? `Close at ${Math.round(fix.speedFraction * 100)} %`
            : `Shorten over ${fix.taperSteps} steps`}
        </Button>
      ))}
    </div>
  );
};
