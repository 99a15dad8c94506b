import { rampStep, type RampStep } from '@gravek/core/measuring/deviceCourse';
import { currentFigures } from '@gravek/core/measuring/measures';
import { speedParts, type LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import { distinctRuns, steadyWeeks } from '@gravek/library/planning/steadyCadence';
import { useMeasured } from '../../api/queries';
import { dayName } from '../../controls/dates';
import { Length } from '../../controls/Figure';

const SAYS: Record<RampStep, string> = {
  'too-few': 'Two runs of ten minutes at the same target tell whether the ramp may go on.',
  stay: 'Stay at this target: fewer than four fifths of the minutes lay in its band.',
  'go-on': 'The ramp may go on: the last two runs held their target.',
};

/**
 * Steady runs week by week, whatever measured them: what was asked, what was run, and whether the ramp may go
 * on; nothing where there are none.
 */
export const SteadyWeeks = ({ athlete, style }: { athlete: Athlete; style: LengthStyle }) => {
  const baselineSpm = currentFigures(athlete.readings).cadence?.mean ?? null;
  const measured = useMeasured(athlete.id).data?.steady ?? [];
  const runs = distinctRuns(
    measured,
    athlete.readings.flatMap(({ reading, takenOn }) =>
      reading.kind === 'steady' ? [{ ...reading, takenOn }] : [],
    ),
  );
  if (runs.length === 0) return null;
  const weeks = steadyWeeks(runs);
  const withSpeed = weeks.some(({ stepM }) => stepM !== null);
  return (
    <section className="panel" aria-label="Steady cadence">
      <h2>Steady cadence</h2>
      <p className="note small-text mb-1">{SAYS[rampStep(runs)]}</p>
      <div className="table-scroll" tabIndex={0} role="group" aria-label="Steady runs by week">
        <table className="grid-table small-text">
          <caption className="visually-hidden">Steady runs by week</caption>
          <thead>
            <tr>
              <th>Week of</th>
              <th className="num">Asked</th>
              <th className="num">Run</th>
              <th className="num">Minutes</th>
              <th className="num">in the band</th>
              {withSpeed && <th className="num">{speedParts(0, style.unit).unit}</th>}
              {withSpeed && <th className="num">Step</th>}
            </tr>
          </thead>
          <tbody>
            {baselineSpm !== null && (
              <tr>
                <td className="quiet">counted before</td>
                <td className="num">–</td>
                <td className="num">{Math.round(baselineSpm)}</td>
                <td className="num">–</td>
                <td className="num">–</td>
                {withSpeed && <td className="num">–</td>}
                {withSpeed && <td className="num">–</td>}
              </tr>
            )}
            {weeks.map((week) => (
              <tr key={week.from}>
                <td>{dayName(week.from)}</td>
                <td className="num">{week.targetSpm ?? '–'}</td>
                <td className="num">{Math.round(week.meanSpm)}</td>
                <td className="num">{week.minutes}</td>
                <td className="num">{week.inBand ?? '–'}</td>
                {withSpeed && (
                  <td className="num">
                    {week.meanMps === null ? '–' : speedParts(week.meanMps, style.unit, 2).figure}
                  </td>
                )}
                {withSpeed && (
                  <td className="num">
                    {week.stepM === null ? '–' : <Length m={week.stepM} style={style} />}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
};
