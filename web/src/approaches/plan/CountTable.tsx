import { memo } from 'react';
import { COMFORT, type StepCountComparison } from '@gravek/core/runup/stepCounts';
import { formatLength, speedParts, type LengthStyle } from '@gravek/core/units';
import { Figure, Length } from '../../controls/Figure';
import { FootWord } from '../../drawing/FootPrint';

/** Step counts side by side, the suggested one named with its reason. */
export const CountTable = memo(
  ({
    comparison,
    chosen,
    free,
    tolerance,
    laneM,
    style,
    onSteps,
  }: {
    comparison: StepCountComparison;
    chosen: number;
    /** the start mark follows from the count */
    free: boolean;
    tolerance: number;
    /** room before the target; absent where nobody knows */
    laneM: number | undefined;
    style: LengthStyle;
    onSteps: (steps: number) => void;
  }) => (
    <>
      <table className="counts">
        <caption className="visually-hidden">Step counts compared</caption>
        <thead>
          <tr>
            <th>Steps</th>
            <th>First foot</th>
            <th>{free ? 'Start mark' : 'Most a step changes'}</th>
            <th className="num">End speed</th>
          </tr>
        </thead>
        <tbody>
          {comparison.choices.map(({ steps, result }) => (
            <tr key={steps} className={steps === chosen ? 'chosen' : undefined}>
              <td>
                <button
                  type="button"
                  className="count-press figure"
                  aria-current={steps === chosen || undefined}
                  aria-label={`Plan with ${steps} steps`}
                  onClick={() => onSteps(steps)}
                >
                  {steps}
                </button>
                {steps === comparison.recommended && <div className="suggested">suggested</div>}
              </td>
              <td>
                <FootWord foot={result.startFoot} />
              </td>
              {result.feasible ? (
                <>
                  <td>
                    {free ? (
                      <>
                        <Length m={result.distanceM} style={style} />
                        {laneM !== undefined && result.distanceM > laneM && (
                          <div className="quiet small-text">beyond the lane</div>
                        )}
                      </>
                    ) : (
                      <div className="adjust">
                        <div className="bar" aria-hidden="true">
                          <span
                            className={result.maxAdjust <= COMFORT ? 'easy' : undefined}
                            style={{
                              width: `${Math.min(100, (100 * result.maxAdjust) / Math.max(tolerance, 0.001))}%`,
                            }}
                          />
                        </div>
                        <Figure
                          parts={[{ figure: (result.maxAdjust * 100).toFixed(1), unit: '%' }]}
                        />
                      </div>
                    )}
                  </td>
                  <td className="num">
                    <Figure parts={[speedParts(result.endSpeedMps, style.unit, 2)]} />
                  </td>
                </>
              ) : (
                <td colSpan={2} className="quiet small-text">
                  {result.reason === 'wrong-foot' && 'arrives on the other foot'}
                  {result.reason === 'too-long' &&
                    `needs longer steps: reaches ${formatLength(result.maxDistanceM, style)}`}
                  {result.reason === 'too-short' &&
                    `needs shorter steps: from ${formatLength(result.minDistanceM, style)}`}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small-text quiet mt-2 mb-0">{comparison.reason}</p>
    </>
  ),
);
