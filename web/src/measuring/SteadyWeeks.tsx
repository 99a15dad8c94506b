import { rampStep, type RampStep } from '@gravek/core';
import type { Athlete } from '@gravek/contract';
import { steadyWeeks } from '@gravek/library';
import { dayName } from '../controls/dates';

const SAYS: Record<RampStep, string> = {
  'too-few': 'Two runs of ten minutes at the same target tell whether the ramp may go on.',
  stay: 'Stay at this target: fewer than four fifths of the minutes lay in its band.',
  'go-on': 'The ramp may go on: the last two runs held their target.',
};

/** Steady runs week by week: what was asked, what was run, and whether the ramp may go on. */
export const SteadyWeeks = ({
  athlete,
  baselineSpm,
}: {
  athlete: Athlete;
  /** as it was counted; null where nobody has */
  baselineSpm: number | null;
}) => {
  const runs = athlete.readings
    .flatMap(({ reading, takenOn }) => (reading.kind === 'steady' ? [{ ...reading, takenOn }] : []))
    .sort((a, b) => (a.takenOn < b.takenOn ? -1 : 1));
  return (
    <>
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
              </tr>
            )}
            {steadyWeeks(runs).map((week) => (
              <tr key={week.from}>
                <td>{dayName(week.from)}</td>
                <td className="num">{week.targetSpm ?? '–'}</td>
                <td className="num">{Math.round(week.meanSpm)}</td>
                <td className="num">{week.minutes}</td>
                <td className="num">{week.inBand ?? '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
};
